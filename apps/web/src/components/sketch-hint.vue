<script setup lang="ts">
import { computed } from 'vue';
import { formatQuantity, LENGTH } from '@helb/core';
import type { EditorState } from '../editor/editor-state.ts';

// What the tool waits for, what it would borrow, and where the pointer is.

const { state } = defineProps<{ readonly state: EditorState }>();

const pointerAt = computed(() => {
  const { at, unit } = state;
  if (!at) return undefined;
  const [x, y] = at.map((amount) => formatQuantity({ amount, dimension: LENGTH }, unit, 2));
  return `x ${x!.replace(` ${unit}`, '')}  y ${y}`;
});
</script>

<template>
  <p
    class="text-muted bg-paper/80 pointer-events-none absolute bottom-13 left-1/2 w-max max-w-full -translate-x-1/2 px-2 text-center text-sm"
    data-testid="hint"
  >
    {{ state.tool.hint }}
    <span v-if="state.lends.length > 0" class="text-link ml-2" data-testid="lends"
      >{{ state.tool.name === 'select' ? 'Of the model:' : 'Borrows' }}
      {{ state.lends.map(({ words }) => words).join(', ') }}.</span
    >
    <span
      v-if="pointerAt"
      class="ml-3 font-mono text-[12px] whitespace-pre"
      aria-label="Pointer"
      data-testid="pointer-at"
      >{{ pointerAt }}</span
    >
  </p>
</template>
