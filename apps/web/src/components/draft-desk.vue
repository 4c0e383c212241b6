<script setup lang="ts">
import { computed } from 'vue';
import { ACCEPT_WORDS, explain, referenceWords, stepKind, type Action, type Reference, type Result } from '@helb/core';
import { useBench } from '../stores/bench.ts';
import { useModel } from '../stores/model.ts';
import PhraseText from './phrase-text.vue';

/** Making a step, or choosing anew what it builds on: its sentence, the lines that it asks, accept or leave. */
const bench = useBench();
const model = useModel();

const draft = computed(() => bench.draft!);
const kind = computed(() => stepKind(draft.value.step.kind));
const nameOf = (id: string) => bench.part?.steps[id]?.name ?? '?';
const phrases = computed(() => kind.value.sentence(draft.value.step, nameOf));
const result = computed(() => model.built?.steps.find((step) => step.id === draft.value.id));
/** What still has to be picked is asked for on its line; that is no trouble. */
const trouble = computed(() => {
  const issue = result.value?.issue;
  return issue && issue.code !== 'reference.missing' ? explain(issue) : '';
});

// areas, for steps that take some of a sketch
const outline = computed(() => {
  const { step } = draft.value;
  return 'areas' in step ? step : undefined;
});
const regions = computed(() => (outline.value ? (model.built?.sketches[outline.value.sketch]?.regions ?? []) : []));
const taken = computed(() => {
  const areas = outline.value?.areas ?? [];
  return new Set(
    areas === 'outline' ? regions.value.filter((region) => region.depth % 2 === 0).map((region) => region.key) : areas,
  );
});

const set = (field: string, value: unknown) => bench.setField(field, value);

function keep(field: string, expression: string, added: readonly Action[]): Result<void> {
  const { step, naming } = draft.value;
  return bench.setDraft({ ...draft.value, step: { ...step, [field]: expression }, naming: [...naming, ...added] });
}

function toggle(key: string) {
  const next = new Set(taken.value);
  if (!next.delete(key)) next.add(key);
  if (next.size > 0) set('areas', [...next]);
}

const words = (reference: Reference) => referenceWords(reference, nameOf);
</script>

<template>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-2">{{ kind.title }}</h2>
    <p class="mb-3 leading-7">
      <PhraseText
        :phrases="phrases"
        :change="() => []"
        :choose="set"
        :pick="(field) => (bench.asked = field)"
        :keep="keep"
      />
    </p>
    <ol v-if="bench.fields.length > 0" class="mb-3">
      <li v-for="line in bench.fields" :key="line.field" class="border-rule border-t py-1.5">
        <button
          class="flex w-full items-baseline justify-between gap-3 text-left"
          :aria-pressed="bench.asked === line.field"
          :data-testid="`ask-${line.field}`"
          @click="bench.asked = line.field"
        >
          <span class="first-letter:uppercase" :class="bench.asked === line.field ? 'font-semibold' : 'text-muted'">{{
            line.label
          }}</span>
          <span v-if="line.picked.length === 0" class="text-muted text-sm">not chosen yet</span>
        </button>
        <p v-for="(reference, k) in line.picked" :key="k" class="flex justify-between gap-2 leading-5">
          {{ words(reference) }}
          <button
            class="word-link shrink-0 text-sm"
            @click="
              bench.setPicks(
                line,
                line.picked.filter((_, other) => other !== k),
              )
            "
          >
            drop
          </button>
        </p>
        <p v-if="bench.asked === line.field" class="text-act text-sm">Click {{ ACCEPT_WORDS[line.accepts] }}.</p>
      </li>
    </ol>
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
    <p v-if="trouble" class="text-clash mb-3" role="alert">{{ trouble }}</p>
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
