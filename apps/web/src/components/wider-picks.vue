<script setup lang="ts">
import { computed } from 'vue';
import {
  type Accepts,
  referenceWords,
  ruleWords,
  sameReference,
  widened,
  type PickField,
  type Reference,
  type Rule,
  type Wider,
} from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';

/** What the last pick of a line has in common with others, to take all of them by that rule. */
const { line } = defineProps<{ line: PickField }>();
const bench = useWorkbench();
const model = useModel();

const last = computed(() => line.picked.findLast(({ to }) => to !== 'rule'));

const offers = computed((): readonly Wider[] => {
  void model.arrivals;
  if (line.max === 1) return [];
  const found = last.value && bench.view?.find(last.value)[0]?.thing;
  const wider = found ? widened(found, bench.view!.bodies()) : [];
  return wider.filter(({ rule }) => fits(rule) && !line.picked.some((other) => sameReference(other, rule)));
});
const GIVES: Partial<Record<Accepts, readonly Rule['gives'][]>> = {
  edges: ['edges', 'faces'],
  edge: ['edges'],
  face: ['faces'],
};
const fits = (rule: Rule): boolean => GIVES[line.accepts]?.includes(rule.gives) ?? false;

/** The rule stands for what was picked. */
function take(rule: Rule) {
  const rest = line.picked.filter((other) => !sameReference(other, last.value!));
  bench.setPicks(line, [...rest, rule] satisfies Reference[]);
}
const title = computed(() => (last.value ? `Instead of ${referenceWords(last.value, bench.nameOf)}:` : ''));
</script>

<template>
  <div v-if="offers.length > 0" class="mt-1 text-sm" data-testid="wider">
    <p class="text-muted">{{ title }}</p>
    <button
      v-for="{ rule, count } in offers"
      :key="JSON.stringify(rule)"
      class="word-link flex w-full justify-between gap-2 text-left leading-5"
      @click="take(rule)"
    >
      <span>{{ ruleWords(rule, bench.nameOf) }}</span>
      <span class="text-muted font-mono">{{ count }}</span>
    </button>
  </div>
</template>
