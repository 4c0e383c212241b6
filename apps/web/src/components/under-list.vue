<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Vec2 } from '@helb/core';

/** What lies under the pointer, front to back; one of it is chosen: Tab steps on, and while it is held a click takes. */
const { at, chosen, width } = defineProps<{
  at: Vec2;
  items: readonly string[];
  chosen: number;
  isHeld: boolean;
  width: number;
  height: number;
}>();
defineEmits<{ choose: [k: number]; take: [k: number, event: MouseEvent]; leave: [event: PointerEvent] }>();

/** On the side of the pointer with more room: never under it, where its words would be chosen by nobody. */
const beside = computed(() => {
  const [left, right] = [at[0] - OFF, width - at[0] - OFF];
  const isRight = right >= Math.min(left, WIDEST);
  return {
    ...(isRight ? { left: `${at[0] + OFF}px` } : { right: `${width - at[0] + OFF}px` }),
    maxWidth: `${Math.min(WIDEST, isRight ? right : left)}px`,
  };
});
/** How far off the pointer, how wide and tall it can become, and what stands below it in the view, px. */
const [OFF, WIDEST, TALLEST, STRIP] = [18, 384, 230, 56];

const list = ref<HTMLElement>();
defineExpose({ has: (target: EventTarget | null): boolean => list.value?.contains(target as Node | null) ?? false });
watch(
  () => chosen,
  (k) => list.value?.querySelectorAll('[role=option]')[k]?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
);
</script>

<template>
  <div
    ref="list"
    class="bg-lit border-rule absolute z-10 max-h-56 overflow-y-auto border px-2 py-1.5 text-[13px] shadow-sm"
    :style="{
      ...beside,
      top: `${Math.min(at[1] + 14, Math.max(height - TALLEST - STRIP, 0))}px`,
    }"
    :class="isHeld ? '' : 'pointer-events-none'"
    data-testid="under"
    @pointerleave="$emit('leave', $event)"
  >
    <div role="listbox" aria-label="Under the pointer">
      <p
        v-for="(item, k) in items"
        :key="k"
        role="option"
        :aria-selected="k === chosen"
        class="cursor-pointer px-1.5 py-0.5"
        :class="k === chosen ? 'bg-ink text-sheet' : ''"
        @pointerenter="$emit('choose', k)"
        @click="$emit('take', k, $event)"
      >
        {{ item }}
      </p>
    </div>
    <p v-if="items.length > 1" class="text-muted px-1.5 pt-1 text-[12px]">
      Tab: next of {{ items.length }}{{ isHeld ? '' : ' · right-click: choose here' }}
    </p>
  </div>
</template>
