<script setup lang="ts">
import { onBeforeUnmount } from 'vue';
import type { Reference, Vec2 } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import type { Pick } from '../view/picks.ts';

/** The names of datums in the view: each stands for what it names, and is picked like that. */
const { find } = defineProps<{
  names: readonly {
    readonly name: string;
    readonly words: string;
    readonly reference: Reference;
    readonly at: Vec2;
  }[];
  find: (reference: Reference) => readonly Pick[];
}>();

const bench = useWorkbench();
function take(reference: Reference) {
  leave();
  if (bench.askedField) bench.answer(reference);
  else bench.picked = find(reference).slice(0, 1);
}
const leave = () => (bench.pointedAt = undefined);
onBeforeUnmount(leave);
</script>

<template>
  <button
    v-for="{ name, words, reference, at } in names"
    :key="name"
    class="text-link absolute text-[12px] whitespace-nowrap"
    :class="bench.editor ? 'pointer-events-none' : 'hover:underline'"
    :style="{ left: `${at[0] + 4}px`, top: `${at[1] + 2}px` }"
    tabindex="-1"
    @pointerenter="bench.pointedAt = reference"
    @pointerleave="leave"
    @click="take(reference)"
  >
    {{ words }}
  </button>
</template>
