<script setup lang="ts">
import type { Vec2 } from '@helb/core';

/** What lies under the pointer, front to back; one of it is chosen, Tab steps on. */
defineProps<{ at: Vec2; items: readonly string[]; chosen: number; width: number }>();
</script>

<template>
  <div
    class="bg-lit border-rule pointer-events-none absolute z-10 max-w-64 border px-2 py-1.5 text-[13px] shadow-sm"
    :style="{ left: `${Math.min(at[0] + 18, width - 230)}px`, top: `${at[1] + 14}px` }"
    data-testid="under"
  >
    <p
      v-for="(item, k) in items.slice(0, 6)"
      :key="k"
      class="truncate px-1.5 py-0.5"
      :class="k === chosen ? 'bg-ink text-sheet' : ''"
      :aria-current="k === chosen"
    >
      {{ item }}
    </p>
    <p v-if="items.length > 1" class="text-muted px-1.5 pt-1 text-[12px]">Tab: next of {{ items.length }}</p>
  </div>
</template>
