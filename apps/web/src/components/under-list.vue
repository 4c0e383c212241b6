<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Vec2 } from '@helb/core';

/** What lies under the pointer, front to back; one of it is chosen: Tab steps on, and while it is held a click takes. */
const { chosen } = defineProps<{
  at: Vec2;
  items: readonly string[];
  chosen: number;
  isHeld: boolean;
  width: number;
  height: number;
}>();
defineEmits<{ choose: [k: number]; take: [k: number, event: MouseEvent]; leave: [event: PointerEvent] }>();

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
    class="bg-lit border-rule absolute z-10 max-h-56 max-w-72 overflow-y-auto border px-2 py-1.5 text-[13px] shadow-sm"
    :style="{
      left: `${Math.max(0, Math.min(at[0] + 18, width - 296))}px`,
      top: `${Math.min(at[1] + 14, Math.max(height - 230, 0))}px`,
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
        class="cursor-pointer truncate px-1.5 py-0.5"
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
