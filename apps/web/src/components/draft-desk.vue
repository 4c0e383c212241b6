<script setup lang="ts">
import { computed } from 'vue';
import { explain, stepKind, type Action, type Result } from '@helb/core';
import { useBench } from '../stores/bench.ts';
import { useModel } from '../stores/model.ts';
import PhraseText from './phrase-text.vue';

/** Making a step: its sentence, what it still asks, its areas to be picked, accept or leave. */
const bench = useBench();
const model = useModel();

const draft = computed(() => bench.draft!);
const phrases = computed(() =>
  stepKind(draft.value.step.kind).sentence(draft.value.step, (id) => bench.part?.steps[id]?.name ?? '?'),
);
const result = computed(() => model.built?.steps.find((step) => step.id === draft.value.id));
const regions = computed(() => model.built?.sketches[draft.value.step.sketch]?.regions ?? []);
const taken = computed(() => {
  const { areas } = draft.value.step;
  return new Set(
    areas === 'outline' ? regions.value.filter((region) => region.depth % 2 === 0).map((region) => region.key) : areas,
  );
});

const set = (field: string, value: unknown) =>
  bench.setDraft({ ...draft.value, step: { ...draft.value.step, [field]: value } });

function keep(field: string, expression: string, added: readonly Action[]): Result<void> {
  const step = { ...draft.value.step, [field]: expression };
  return bench.setDraft({ ...draft.value, step, naming: [...draft.value.naming, ...added] });
}

function toggle(key: string) {
  const next = new Set(taken.value);
  if (!next.delete(key)) next.add(key);
  if (next.size > 0) set('areas', [...next]);
}
</script>

<template>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-2">Extrude</h2>
    <p class="mb-3 leading-7"><PhraseText :phrases="phrases" :change="() => []" :choose="set" :keep="keep" /></p>
    <fieldset v-if="regions.length > 1" class="mb-3">
      <legend class="text-muted mb-1">Areas</legend>
      <label v-for="region in regions" :key="region.key" class="flex items-center gap-2 py-0.5">
        <input type="checkbox" :checked="taken.has(region.key)" @change="toggle(region.key)" />
        <span class="font-mono text-[13px]">{{ region.area.toFixed(1) }} mm²</span>
        <span class="text-muted text-sm">{{
          region.holes.length > 0
            ? `with ${region.holes.length} ${region.holes.length === 1 ? 'opening' : 'openings'}`
            : region.depth > 0
              ? 'inside'
              : ''
        }}</span>
      </label>
    </fieldset>
    <p v-if="result?.issue" class="text-clash mb-3" role="alert">{{ explain(result.issue) }}</p>
    <div class="flex items-baseline gap-4">
      <button class="verb-strong" @click="bench.acceptDraft()">
        Accept <span class="font-mono text-[12px] opacity-80">Enter</span>
      </button>
      <button class="word-link" @click="bench.cancelDraft()">
        Leave <span class="font-mono text-[12px]">Esc</span>
      </button>
    </div>
  </section>
</template>
