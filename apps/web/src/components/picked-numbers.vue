<script setup lang="ts">
import { computed } from 'vue';
import { isTyped, madeBy, namesUsed, placedExpressions, stepKind, type PlacedExpression } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useProject } from '../stores/project.ts';
import { replacing } from '../stores/values.ts';
import NumberChip from './number-chip.vue';

/** The numbers that what is picked was made by: of the steps that its faces come from, and of their sketches. */
const bench = useWorkbench();
const store = useProject();
const MOST = 12;

const numbers = computed(() => {
  const { part, partId, picked } = bench;
  if (!part || !store.kept) return [];
  const steps = new Set(
    picked
      .flatMap(({ reference }) => madeBy(reference))
      .flatMap((id) => {
        const step = part.steps[id];
        return step ? [id, ...stepKind(step.kind).uses(step)] : [];
      }),
  );
  const { kept } = store;
  return placedExpressions(kept)
    .filter((place) => place.part === partId && place.step !== undefined && steps.has(place.step))
    .filter((place) => isTyped(kept, place))
    .sort((a, b) => Number(isNamed(a)) - Number(isNamed(b)));
});
const isNamed = ({ text }: PlacedExpression): boolean => namesUsed(text).length > 0;

/** The label without the name of the part. */
const shortly = ({ label }: PlacedExpression): string => label.split(' · ').slice(1).join(' · ');
</script>

<template>
  <section v-if="numbers.length > 0" class="border-rule border-b p-4" data-testid="picked-numbers">
    <h2 class="heading mb-1">Its numbers</h2>
    <p
      v-for="place in numbers.slice(0, MOST)"
      :key="place.path.join('/')"
      class="border-rule flex items-baseline justify-between gap-3 border-t py-1"
    >
      <span class="text-muted">{{ shortly(place) }}</span>
      <NumberChip :text="place.text" :asks="place.asks!" :label="shortly(place)" :change="replacing(place)" />
    </p>
    <p v-if="numbers.length > MOST" class="text-muted text-sm">and {{ numbers.length - MOST }} more</p>
    <p class="text-muted mt-1 text-sm">Type “name = 5 mm” to name one.</p>
  </section>
</template>
