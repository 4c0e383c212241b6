<script setup lang="ts">
import { computed } from 'vue';
import {
  evaluate,
  isSize,
  issue,
  markSchema,
  markTitle,
  ok,
  placedExpressions,
  TOLERANCE_TITLES,
  toleranceKind,
  toleranceSchema,
  valueScope,
  viewWords,
  type Action,
  type Mark,
  type Result,
  type Tolerance,
} from '@helb/core';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';
import { typedNumber } from '../stores/typed-amount.ts';
import ChoiceWord from './choice-word.vue';
import { MARK_FIELDS } from './marks/index.ts';
import NumberChip from './number-chip.vue';
import TypedField from './typed-field.vue';

/** The dimension or note that is picked: what it says, and how it is said. */
const store = useProject();
const sheets = useSheets();
const writing = useWriting();

const id = computed(() => writing.chosen!);
const mark = computed(() => writing.mark!);
const words = computed(() => sheets.composed?.marks[id.value]?.words ?? '');
const set = (fields: object) => writing.set(id.value, { ...mark.value, ...fields });
const without = (key: 'at' | 'tolerance' | 'extra') =>
  writing.set(id.value, Object.fromEntries(Object.entries(mark.value).filter(([name]) => name !== key)) as Mark);

/** Takes a text that has to fit the schema of the mark. */
const take =
  (fields: (text: string) => object) =>
  (text: string): Result<void> => {
    const read = markSchema.safeParse({ ...mark.value, ...fields(text) });
    if (read.success) writing.set(id.value, read.data);
    else writing.message = `That does not fit: ${read.error.issues[0]!.message}.`;
    return read.success ? ok(undefined) : { ok: false, issue: issue('command.input', {}) };
  };

const sized = computed(() => (isSize(mark.value) ? mark.value : undefined));
/** The number that it shows, where that is one of the model: a lone name stands for its value. */
const driven = computed(() => {
  const drives = sized.value?.drives;
  const project = store.project!;
  const path = drives && ['parts', sheets.sheet!.part, 'steps', drives.step, ...drives.path];
  const place = path && placedExpressions(project).find((one) => one.path.join('/') === path.join('/'));
  if (!place?.asks) return undefined;
  const value = Object.entries(project.values).find(([, { name }]) => name === place.text.trim());
  const change = (expression: string): Action[] =>
    value
      ? [{ command: 'value.set', input: { id: value[0], expression } }]
      : [{ command: 'expression.set', input: { path: [...place.path], expression } }];
  // what came later in the model may have changed what this number alone told
  const comesTo = evaluate(place.text, place.asks, valueScope(Object.values(project.values), project.unit));
  const shown = sheets.composed?.marks[id.value]?.amount;
  const holds = shown === undefined || (comesTo.ok && Math.abs(Math.abs(comesTo.value) - shown) < 1e-6);
  return {
    holds,
    asks: place.asks,
    text: value?.[1].expression ?? place.text,
    name: value?.[1].name,
    label: place.label,
    change,
  };
});

/** The view that it stands in, and the others in which it can be read: put there it stands where there is room. */
const views = computed(() => {
  const { sheet, composed, sectionName } = sheets;
  const others = composed?.marks[id.value]?.elsewhere ?? [];
  const shown = [mark.value.view, ...others].filter((view) => sheet?.views[view]);
  return Object.fromEntries(shown.map((view) => [view, viewWords(sheet!.views[view]!, sheet!, sectionName)]));
});
const putInto = (view: string) => {
  const { at: _, ...rest } = mark.value;
  writing.set(id.value, { ...rest, view });
};

const tolerance = computed(() => sized.value?.tolerance);
const TOLERANCES = { none: 'as the general ones', ...TOLERANCE_TITLES };
const toleranceFields = computed(() => (tolerance.value ? toleranceKind(tolerance.value.kind).fields : []));
const chooseTolerance = (kind: string) =>
  kind === 'none' ? without('tolerance') : set({ tolerance: toleranceKind(kind as Tolerance['kind']).begun });
/** Sets a field of the tolerance, or says what would fit. */
const within = (fields: (text: string) => object) => (text: string) => {
  const read = toleranceSchema.safeParse({ ...tolerance.value, ...fields(text) });
  if (read.success) set({ tolerance: read.data });
  else writing.message = `That does not fit: ${read.error.issues[0]!.message}.`;
  return ok(undefined);
};
</script>

<template>
  <section class="border-rule space-y-1.5 border-b p-4" aria-label="What is picked">
    <h2 class="heading flex justify-between gap-2">
      <span>{{ markTitle(mark) }}</span>
      <button class="word-link text-sm font-normal" @click="writing.remove(id)">take off</button>
    </h2>
    <p class="font-mono">{{ words }}</p>
    <p v-if="Object.keys(views).length > 1" class="text-sm">
      <span class="text-muted">stands in the view</span>
      <ChoiceWord class="ml-1.5" :value="mark.view" :options="views" label="stands in the view" @choose="putInto" />
    </p>
    <p v-if="driven" class="text-sm">
      <span class="text-muted">{{
        driven.holds ? 'Changes the model:' : 'Came from this number, but shows what was made of it since:'
      }}</span>
      {{ driven.name ?? '' }}
      <NumberChip :text="driven.text" :asks="driven.asks" :label="driven.label" :change="driven.change" />
    </p>
    <p v-else-if="sized" class="text-muted text-sm">Read off the model.</p>
    <template v-if="sized">
      <p class="text-sm">
        Tolerance
        <ChoiceWord
          :value="tolerance?.kind ?? 'none'"
          :options="TOLERANCES"
          label="tolerance"
          @choose="chooseTolerance"
        />
        <TypedField
          v-for="{ name, label, isNumber } in toleranceFields"
          :key="name"
          class="field ml-1.5 w-20"
          :label="label"
          :value="`${(tolerance as unknown as Record<string, unknown>)[name]}`"
          :change="within((text) => ({ [name]: isNumber ? typedNumber(text) : text }))"
        />
      </p>
      <label class="flex items-center gap-1.5 text-sm"
        ><input
          type="checkbox"
          :checked="sized.extra ?? false"
          @change="($event.target as HTMLInputElement).checked ? set({ extra: true }) : without('extra')"
        />in brackets: told for convenience only</label
      >
    </template>
    <component :is="MARK_FIELDS[mark.kind]" v-if="MARK_FIELDS[mark.kind]" :mark="mark" :take="take" @set="set" />
    <p v-if="mark.at">
      <button class="word-link text-sm" @click="without('at')">put where there is room</button>
    </p>
  </section>
</template>
