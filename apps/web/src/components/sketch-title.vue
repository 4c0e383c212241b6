<script setup lang="ts">
import { computed } from 'vue';
import { planeReference, referenceWords } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';

/** Which sketch is drawn, on which plane, and how far it is. */
const bench = useWorkbench();
const title = computed(() => {
  const { sketching } = bench;
  if (!sketching) return undefined;
  const { state, freedoms, clash } = sketching.solved.solution;
  const words =
    state === 'settled'
      ? 'settled'
      : state === 'loose'
        ? freedoms === 1
          ? '1 freedom left'
          : `${freedoms} freedoms left`
        : clash.length === 1
          ? '1 relation clashes'
          : `${clash.length} relations clash`;
  const plane = referenceWords(planeReference(sketching.sketch.plane), bench.nameOf);
  return { name: sketching.sketch.name, plane, words, state };
});
</script>

<template>
  <p v-if="title" class="bg-paper/80 pointer-events-none absolute top-2 left-4 text-[15px]" data-testid="sketch-title">
    <strong>{{ title.name }}</strong> on {{ title.plane }} ·
    <strong :class="{ 'text-loose': title.state === 'loose', 'text-clash': title.state === 'clashing' }">{{
      title.words
    }}</strong>
  </p>
</template>
