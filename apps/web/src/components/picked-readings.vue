<script setup lang="ts">
import { computed, onBeforeUnmount, watch } from 'vue';
import { isOfBody } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useUnits } from '../stores/units.ts';
import { ownWords } from '../view/pick-words.ts';
import { centreFromHere, placeRead, readingText, readingTexts } from '../view/readings.ts';
import CopyFigures from './copy-figures.vue';
import CutFace from './cut-face.vue';

/** What can be read off what is picked: off one thing, or between two. */
const bench = useWorkbench();
const model = useModel();
const store = useProject();
const { unit, place, placeToRead } = useUnits();

/** The smallest gap takes the kernel: it comes a little later. */
watch(
  [() => bench.picked, () => model.built],
  async ([picked]) => {
    bench.gap = undefined;
    const [a, b, ...more] = picked.map(({ reference }) => reference).filter(isOfBody);
    if (!a || !b || more.length > 0 || picked.length !== 2 || !store.kept || a.to === 'body' || b.to === 'body') return;
    // a worker that died on it is no trouble of the model: the next build starts another
    const reply = await model.engine.gap(store.project!, bench.partId!, [a, b]).catch(() => undefined);
    if (bench.picked === picked) bench.gap = reply && 'gap' in reply ? reply.gap : undefined;
  },
  { immediate: true },
);
onBeforeUnmount(() => (bench.gap = undefined));

const things = computed(() => bench.picked.map(({ thing }) => thing));
const readings = computed((): [string, string][] => [
  ...readingTexts(things.value, unit.value),
  ...placeRead(things.value, placeToRead),
  ...centreFromHere(things.value, model.built?.totals.centre_mm, place),
  ...(bench.gap
    ? ([['smallest gap', readingText(bench.gap.distance_mm, 'length', unit.value)]] as [string, string][])
    : []),
]);
</script>

<template>
  <section v-if="bench.picked.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Picked</h2>
    <p v-for="pick in bench.picked" :key="pick.body + pick.name" class="leading-5">
      {{ ownWords(pick, unit) }}<span v-if="pick.within" class="text-muted"> in {{ pick.within }}</span>
    </p>
    <CutFace />
    <CopyFigures class="mt-1" :figures="readings" prefix="reading" />
    <p v-if="bench.picked.length === 1" class="text-muted mt-1 text-sm">Shift-click something else to measure to it.</p>
  </section>
</template>
