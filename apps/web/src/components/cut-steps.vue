<script setup lang="ts">
import { computed } from 'vue';
import type { Id, View } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import ChoiceWord from './choice-word.vue';

/** Where a section goes on at another plane, or where it ends: offset and half sections. */
const props = defineProps<{ id: Id }>();
const sheets = useSheets();

type Section = Extract<View, { kind: 'section' }>;
const view = computed(() => sheets.sheet!.views[props.id] as Section);
const steps = computed(() => view.value.steps ?? []);
const set = (next: Section['steps']) => sheets.setView(props.id, { steps: next?.length ? next : undefined });

const names = computed(() =>
  Object.fromEntries(Object.entries(sheets.cutPart(view.value.at)?.sections ?? {}).map(([id, { name }]) => [id, name])),
);
/** From where on it may change: any section but the one that it is cut at. */
const others = computed(() =>
  Object.fromEntries(Object.entries(names.value).filter(([id]) => id !== view.value.section)),
);
const next = computed(() => ({ '': 'it is not cut', ...names.value }));

const add = () => set([...steps.value, { at: Object.keys(others.value)[0]! }]);
const change = (k: number, step: NonNullable<Section['steps']>[number]) =>
  set(steps.value.map((one, i) => (i === k ? step : one)));
</script>

<template>
  <p v-for="({ at, section }, k) in steps" :key="k" class="text-sm">
    <span class="text-muted">from</span>
    <ChoiceWord
      class="mx-1"
      :value="at"
      :options="others"
      label="from where on"
      @choose="(to) => change(k, section === undefined ? { at: to } : { at: to, section })"
    />
    <span class="text-muted">on</span>
    <ChoiceWord
      class="mx-1"
      :value="section ?? ''"
      :options="next"
      label="how it goes on"
      @choose="(to) => change(k, to ? { at, section: to } : { at })"
    />
    <button class="word-link" aria-label="Goes on as before" @click="set(steps.filter((_, i) => i !== k))">
      take out
    </button>
  </p>
  <button v-if="Object.keys(others).length > 0 && steps.length < 8" class="word-link text-sm" @click="add">
    goes on elsewhere
  </button>
</template>
