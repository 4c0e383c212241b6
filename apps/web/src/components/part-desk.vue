<script setup lang="ts">
import { computed, ref } from 'vue';
import { explain, formatAmount, formatMeasured, frameOn, frameSeenFrom, type Frame } from '@helb/core';
import { seenFrom } from '@helb/engine';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useUnits } from '../stores/units.ts';
import ChoiceWord from './choice-word.vue';
import CopyFigures from './copy-figures.vue';
import MaterialChoice from './material-choice.vue';
import PickedNumbers from './picked-numbers.vue';
import PickedReadings from './picked-readings.vue';

/** The part as a whole: material, mass, size, and where its mass lies as seen from a frame of one's choosing. */
const bench = useWorkbench();
const model = useModel();
const units = useUnits();

const trouble = computed(() => (model.built?.part === bench.partId ? model.built?.trouble : undefined));
const totals = computed(() => (model.built?.part === bench.partId ? model.built?.totals : undefined));

/** Where it is seen from: the origin, or a datum frame or point. */
const from = ref('');
const frames = computed((): Record<string, { words: string; frame: Frame }> => {
  const places = Object.entries(model.built?.datums ?? {}).flatMap(([id, datum]) => {
    const words = bench.part?.steps[id]?.name ?? 'a step that is gone';
    const frame = frameSeenFrom(datum);
    return frame ? [[id, { words, frame }] as const] : [];
  });
  return { '': { words: 'the origin', frame: ORIGIN }, ...Object.fromEntries(places) };
});
const ORIGIN = frameOn([0, 0, 0], [0, 0, 1], [1, 0, 0]);
const options = computed(() => Object.fromEntries(Object.entries(frames.value).map(([id, { words }]) => [id, words])));
const chosen = computed(() => (frames.value[from.value] ? from.value : ''));

const figures = computed((): [string, string][] => {
  const t = totals.value;
  if (!t || t.bodies === 0) return [];
  return [
    ['Mass', t.mass_g === null ? 'no material' : `${formatMeasured(t.mass_g, t.off.mass_g, 2)} g`],
    ['Volume', units.volume(t.volume_mm3, t.off.volume_mm3)],
    ['Area', units.area(t.area_mm2, t.off.area_mm2)],
    ['Size', units.size(t.box_mm!)],
    ['Bodies', `${t.bodies} with ${t.faces} faces`],
  ];
});
/** The inertia is about the place that it is seen from. */
const seen = computed((): [string, string][] => {
  const t = totals.value;
  if (!t || t.bodies === 0) return [];
  const { centre_mm, inertia_g_mm2 } = seenFrom(t, frames.value[chosen.value]!.frame);
  const inertia = inertia_g_mm2?.map((entry) => formatAmount(entry / 1000, 2));
  return [
    ['Centre of mass', units.place(centre_mm!, t.off.centre_mm > 5e-3 ? t.off.centre_mm : 0)],
    ...(inertia
      ? ([
          ['I xx yy zz', inertia.slice(0, 3).join('  ')],
          ['I xy xz yz', inertia.slice(3).join('  ')],
        ] as [string, string][])
      : []),
  ];
});
</script>

<template>
  <PickedReadings />
  <PickedNumbers />
  <section v-if="bench.part" class="border-rule border-b p-4">
    <h2 class="heading mb-2">This part</h2>
    <MaterialChoice />
    <p v-if="trouble" class="text-clash py-1 text-sm" role="status">{{ explain(trouble) }}</p>
    <CopyFigures :figures="figures" prefix="figure" />
    <template v-if="seen.length > 0">
      <p class="text-muted border-rule mt-1 border-t pt-1">
        Seen from
        <ChoiceWord :value="chosen" :options="options" label="seen from" @choose="(id) => (from = id)" />
      </p>
      <CopyFigures :figures="seen" prefix="figure" />
      <p v-if="seen.length > 1" class="text-muted text-right text-[12px]">inertia about it, in kg mm²</p>
    </template>
    <p v-if="figures.length === 0" class="text-muted">
      {{ model.busy ? 'Building …' : 'No body yet. Draw a closed outline, then extrude it.' }}
    </p>
  </section>
</template>
