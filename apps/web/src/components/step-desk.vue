<script setup lang="ts">
import { computed } from 'vue';
import {
  ACCEPT_WORDS,
  applying,
  explain,
  filledIn,
  isSketch,
  referenceWords,
  stepKind,
  type Action,
  type Field,
  type FileRecord,
  type Id,
  type Reference,
  type Result,
} from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import AreaChoice from './area-choice.vue';
import ChoiceWord from './choice-word.vue';
import FileChoice from './file-choice.vue';
import NumberChip from './number-chip.vue';
import PhraseText from './phrase-text.vue';
import WiderPicks from './wider-picks.vue';

/** Making a step, or choosing anew what it builds on: its sentence, the lines that it asks, accept or leave. */
const bench = useWorkbench();
const model = useModel();

const draft = computed(() => bench.draft!);
const kind = computed(() => stepKind(draft.value.step.kind));
const phrases = computed(() => kind.value.sentence(draft.value.step, bench.nameOf));
const result = computed(() => model.built?.steps.find((step) => step.id === draft.value.id));
/** What still has to be picked is asked for on its line; that is no trouble. */
const ASKED = new Set(['reference.missing', 'field.steps', 'field.file', 'field.part']);
const trouble = computed(() => {
  const issue = result.value?.issue;
  return issue && !ASKED.has(issue.code) ? explain(issue) : '';
});

const fields = computed(() => kind.value.fields ?? {});
const filled = computed(() => filledIn(fields.value, draft.value.step));
const has = (type: Field['type']) =>
  applying(fields.value, draft.value.step).filter(([, field]) => field.type === type);

const fileIn = (name: string) => filled.value[name] as FileRecord | undefined;
const files = computed(() =>
  applying(fields.value, draft.value.step).flatMap(([name, field]) =>
    field.type === 'file' ? [[name, field] as const] : [],
  ),
);

/** Numbers and words that the sentence leaves out while they are as usual. */
const more = computed(() => {
  const said = new Set(phrases.value.flatMap((phrase) => ('field' in phrase ? [phrase.field] : [])));
  return applying(fields.value, draft.value.step).filter(([name]) => !said.has(name));
});

const before = computed(() => {
  const order = bench.part?.stepOrder ?? [];
  const at = order.indexOf(draft.value.id);
  return at < 0 ? order : order.slice(0, at);
});
const sketches = computed(() => before.value.filter((id) => isSketch(bench.part?.steps[id])));
const sketchNames = computed(() => Object.fromEntries(sketches.value.map((id) => [id, bench.nameOf(id)])));
/** Steps that a step of this kind can take: sketches for a loft, what makes bodies for the others. */
const takes = computed(() =>
  before.value.filter((id) => {
    const step = bench.part!.steps[id]!;
    return draft.value.step.kind === 'loft' ? isSketch(step) : stepKind(step.kind).build !== undefined;
  }),
);

const set = (field: string, value: unknown) => bench.setField(field, value);

function keep(field: string, expression: string, added: readonly Action[]): Result<void> {
  const { step, naming } = draft.value;
  return bench.setDraft({ ...draft.value, step: { ...step, [field]: expression }, naming: [...naming, ...added] });
}

function toggleStep(field: string, id: Id) {
  const chosen = filled.value[field] as Id[];
  const next = chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id];
  // a loft goes through its sections in the order in which they are chosen
  set(field, draft.value.step.kind === 'loft' ? next : takes.value.filter((other) => next.includes(other)));
}

function setSkip(field: string, text: string) {
  const numbers = text.split(/[\s,;]+/).flatMap((part) => (/^\d+$/.test(part) ? [Number(part)] : []));
  set(field, [...new Set(numbers.filter((k) => k > 0))]);
}

const words = (reference: Reference) => referenceWords(reference, bench.nameOf);
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
    <div v-for="[name, field] in has('sketch')" :key="name" class="border-rule flex justify-between border-t py-1.5">
      <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
      <ChoiceWord
        v-if="sketches.length > 0"
        :value="filled[name] as string"
        :options="{ '': 'choose', ...sketchNames }"
        :label="field.label"
        @choose="(id) => set(name, id)"
      />
      <span v-else class="text-muted">draw one first</span>
    </div>
    <fieldset v-for="[name, field] in has('steps')" :key="name" class="border-rule mb-1 border-t py-1.5">
      <legend class="text-muted float-left w-full first-letter:uppercase">{{ field.label }}</legend>
      <label v-for="id in takes" :key="id" class="clear-left flex items-center gap-2 py-0.5">
        <input type="checkbox" :checked="(filled[name] as Id[]).includes(id)" @change="toggleStep(name, id)" />
        {{ bench.nameOf(id) }}
      </label>
      <p v-if="takes.length === 0" class="text-muted clear-left text-sm">There is none before this step.</p>
    </fieldset>
    <FileChoice
      v-for="[name, field] in files"
      :key="name"
      :value="fileIn(name)"
      :label="field.label"
      :endings="field.endings"
      @choose="(file) => set(name, file)"
    />
    <ol v-if="bench.fields.length > 0" class="mb-1">
      <li v-for="line in bench.fields" :key="line.field" class="border-rule border-t py-1.5">
        <button
          class="flex w-full items-baseline justify-between gap-3 text-left"
          :aria-pressed="bench.asked === line.field"
          :data-testid="`ask-${line.field}`"
          @click="bench.asked = bench.asked === line.field ? undefined : line.field"
        >
          <span class="first-letter:uppercase" :class="bench.asked === line.field ? 'font-semibold' : 'text-muted'">{{
            line.label
          }}</span>
          <span v-if="line.picked.length === 0" class="text-muted text-sm">{{
            line.min === 0 ? 'none chosen' : 'not chosen yet'
          }}</span>
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
        <WiderPicks v-if="bench.asked === line.field" :line="line" />
        <p v-if="bench.asked === line.field" class="text-act text-sm">Click {{ ACCEPT_WORDS[line.accepts] }}.</p>
      </li>
    </ol>
    <AreaChoice v-if="has('areas').length > 0" />
    <div
      v-for="[name, field] in more.filter(([, field]) => field.type === 'number' || field.type === 'choice')"
      :key="name"
      class="border-rule flex items-baseline justify-between gap-3 border-t py-1"
    >
      <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
      <NumberChip
        v-if="field.type === 'number'"
        :text="filled[name] as string"
        :asks="field.asks"
        :label="field.label"
        :change="() => []"
        :keep="(expression: string, naming: readonly Action[]) => keep(name, expression, naming)"
      />
      <ChoiceWord
        v-else-if="field.type === 'choice'"
        :value="filled[name] as string"
        :options="field.options"
        :label="field.label"
        @choose="(value) => set(name, value)"
      />
    </div>
    <label
      v-for="[name, field] in has('skip')"
      :key="name"
      class="border-rule flex items-baseline justify-between gap-3 border-t py-1"
    >
      <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
      <input
        class="chip border-rule w-28 border px-1"
        :value="(filled[name] as number[]).join(', ')"
        placeholder="2, 5"
        @change="setSkip(name, ($event.target as HTMLInputElement).value)"
        @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
      />
    </label>
    <p v-if="trouble" class="text-clash my-2" role="alert">{{ trouble }}</p>
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
