<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import {
  ACCEPT_WORDS,
  applying,
  filledIn,
  offerWords,
  placeFurtherUp,
  stepKind,
  type Action,
  type Result,
} from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useUnits } from '../stores/units.ts';
import { FIELD_LINES } from './fields/index.ts';
import PhraseText from './phrase-text.vue';
import WiderPicks from './wider-picks.vue';

/** Making a step, or choosing anew what it builds on: its sentence, the lines that it asks, accept or leave. */
const bench = useWorkbench();
const model = useModel();
const { explained } = useUnits();

const draft = computed(() => bench.draft!);
const kind = computed(() => stepKind(draft.value.step.kind));
const phrases = computed(() => kind.value.sentence(draft.value.step, bench.nameOf));
const result = computed(() => model.built?.steps.find((step) => step.id === draft.value.id));
/** What still has to be picked is asked for on its line; that is no trouble. */
const ASKED = new Set(['reference.missing', 'field.steps', 'field.file', 'field.part']);
const trouble = computed(() => {
  const issue = result.value?.issue;
  return issue && !ASKED.has(issue.code) ? explained(issue) : '';
});

/** The step right after which it builds, where it does not do so at its place. */
const furtherUp = computed(() => (trouble.value ? placeFurtherUp(result.value!.issue!) : undefined));

const fields = computed(() => kind.value.fields ?? {});
const filled = computed(() => filledIn(fields.value, draft.value.step));
/** The fields with lines of their own, in the order of these. */
const lines = computed(() => {
  const said = new Set(phrases.value.flatMap((phrase) => ('field' in phrase ? [phrase.field] : [])));
  return applying(fields.value, draft.value.step)
    .flatMap(([name, field]) => {
      const line = FIELD_LINES[field.type];
      return line && !(line.ifUnsaid && said.has(name)) ? [{ name, field, ...line }] : [];
    })
    .sort((a, b) => a.rank - b.rank);
});
const above = computed(() => lines.value.filter(({ rank }) => rank < 0));
const below = computed(() => lines.value.filter(({ rank }) => rank > 0));

const set = (field: string, value: unknown) => bench.setField(field, value);

function keep(field: string, expression: string, added: readonly Action[]): Result<void> {
  const { step, naming } = draft.value;
  return bench.setDraft({ ...draft.value, step: { ...step, [field]: expression }, naming: [...naming, ...added] });
}

/** A number that was typed in the view takes the step with it, where nothing is missing and nothing is known to be wrong. */
function entered() {
  // while it is built what is told is of the number before
  if ((model.busy || !trouble.value) && bench.fields.every(({ picked, min }) => picked.length >= min))
    bench.acceptDraft();
}

const keepIn = (field: string) => (expression: string, naming: readonly Action[]) => keep(field, expression, naming);

const sentence = ref<InstanceType<typeof PhraseText>>();
const more = ref<readonly object[]>([]);
onMounted(() => {
  bench.desk = {
    typeNumber(text) {
      const lines = [sentence.value, ...more.value] as { begin?(text?: string): boolean }[];
      return lines.some((line) => line?.begin?.(text) ?? false);
    },
  };
});
onBeforeUnmount(() => (bench.desk = undefined));

/** What the picks of each line are called, no two alike. */
const called = computed(() => new Map(bench.fields.map((line) => [line, offerWords(line.picked, bench.nameOf)])));
</script>

<template>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-2">{{ kind.title }}</h2>
    <p class="mb-3 leading-7">
      <PhraseText
        :key="draft.id"
        ref="sentence"
        :phrases="phrases"
        :change="() => []"
        :choose="set"
        :pick="(field) => (bench.asked = field)"
        :keep="keep"
        :entered="entered"
      />
    </p>
    <component
      :is="component"
      v-for="{ name, field, component } in above"
      :key="name"
      :field="field"
      :value="filled[name]"
      @choose="(value: unknown) => set(name, value)"
    />
    <ol v-if="bench.fields.length > 0" class="mb-1">
      <li v-for="line in bench.fields" :key="line.field" class="border-rule border-t py-1.5">
        <button
          class="flex w-full items-baseline justify-between gap-3 text-left"
          :aria-pressed="bench.asked === line.field"
          :data-testid="`ask-${line.field}`"
          @click="bench.asked = bench.asked === line.field && line.picked.length > 0 ? undefined : line.field"
        >
          <span class="first-letter:uppercase" :class="bench.asked === line.field ? 'font-semibold' : 'text-muted'">{{
            line.label
          }}</span>
          <span v-if="line.picked.length === 0" class="text-muted text-sm">{{
            line.min === 0 ? 'none chosen' : 'not chosen yet'
          }}</span>
        </button>
        <p v-for="(reference, k) in line.picked" :key="k" class="flex justify-between gap-2 leading-5">
          <span :class="{ 'text-clash': model.isGone(draft.id, reference) }"
            >{{ called.get(line)?.[k] }}{{ model.isGone(draft.id, reference) ? ' is gone' : '' }}</span
          >
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
        <WiderPicks v-if="bench.asked === line.field" :line="line" />
        <p v-if="bench.asked === line.field" class="text-act text-sm">Click {{ ACCEPT_WORDS[line.accepts] }}.</p>
      </li>
    </ol>
    <component
      :is="component"
      v-for="{ name, field, component, keeps } in below"
      ref="more"
      :key="name"
      :field="field"
      :value="filled[name]"
      v-bind="keeps ? { keep: keepIn(name), entered } : {}"
      @choose="(value: unknown) => set(name, value)"
    />
    <p v-if="trouble" class="text-clash my-2" role="alert">
      {{ trouble }}
      <button v-if="furtherUp" class="word-link" @click="bench.acceptDraft(furtherUp)">put it there</button>
    </p>
    <div class="mt-3 flex items-baseline gap-4">
      <button class="verb-strong" @click="bench.acceptDraft()">
        Accept <span class="font-mono text-[12px] opacity-80">Enter</span>
      </button>
      <button class="word-link" @click="bench.cancelDraft()">
        Leave <span class="font-mono text-[12px]">Esc</span>
      </button>
    </div>
  </section>
</template>
