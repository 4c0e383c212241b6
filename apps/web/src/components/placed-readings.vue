<script setup lang="ts">
import { computed } from 'vue';
import { transformThing } from '@helb/core';
import { useAssembly } from '../stores/assembly.ts';
import { useUnits } from '../stores/units.ts';
import { ownWords } from '../view/pick-words.ts';
import { centreFromHere, placeRead, readingTexts } from '../view/readings.ts';
import CopyFigures from './copy-figures.vue';

/** What can be read off what is picked of the assembly, as its parts stand now, not as they are drawn apart: off one thing, or between two. */
const assemblyStore = useAssembly();
const { unit, place, placeToRead } = useUnits();

const picked = computed(() => assemblyStore.picked.filter(({ kind }) => kind !== 'body'));
const readings = computed(() => {
  const things = picked.value.flatMap(({ member, thing }) => {
    const pose = assemblyStore.poseOf(member);
    return pose ? [transformThing(thing, pose)] : [];
  });
  return [
    ...readingTexts(things, unit.value),
    ...placeRead(things, placeToRead),
    ...centreFromHere(things, assemblyStore.totals?.centre_mm, place),
  ];
});
</script>

<template>
  <section v-if="picked.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Picked</h2>
    <p v-for="pick in picked" :key="pick.member + pick.body + pick.name" class="leading-5">
      {{ assemblyStore.nameOf(pick.member) }} · <span class="text-muted">{{ ownWords(pick, unit) }}</span>
    </p>
    <CopyFigures class="mt-1" :figures="readings" prefix="reading" />
    <p v-if="picked.length === 1" class="text-muted mt-1 text-sm">Shift-click something else to measure to it.</p>
  </section>
</template>
