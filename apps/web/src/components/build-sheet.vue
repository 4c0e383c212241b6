<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { computed, nextTick, ref } from 'vue';
import {
  isSketch,
  explain,
  referenceWords,
  stepKind,
  type Action,
  type Id,
  type Reference,
  type Step,
} from '@helb/core';
import type { UnsureReference } from '@helb/engine';
import { useBench } from '../stores/bench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import PhraseText from './phrase-text.vue';
import SketchSizes from './sketch-sizes.vue';

const bench = useBench();
const store = useProject();
const model = useModel();

const rows = computed(() => {
  const { part } = bench;
  if (!part) return [];
  const results = new Map(model.built?.part === bench.partId ? model.built?.steps.map((step) => [step.id, step]) : []);
  const nameOf = (id: Id) => part.steps[id]?.name ?? '?';
  return part.stepOrder.map((id) => {
    const step = part.steps[id]!;
    const sketch = model.built?.sketches[id];
    const result = results.get(id);
    return {
      id,
      step,
      phrases: stepKind(step.kind).sentence(step, nameOf),
      trouble: result?.issue && !step.suppressed ? explain(result.issue) : '',
      state: step.suppressed ? 'left out' : sketchState(step, sketch),
      unsure: step.suppressed ? [] : (result?.references ?? []),
      loose: sketch?.state === 'loose',
      current: bench.editor?.step === id || bench.draft?.id === id,
      pale: bench.editor !== undefined && bench.editor.step !== id,
    };
  });
});

function sketchState(step: Step, sketch: { state: string; freedoms: number } | undefined): string {
  if (!sketch) return '';
  return sketch.state === 'loose' ? `${sketch.freedoms} loose` : sketch.state;
}

const wordsOf = (reference: Reference) => referenceWords(reference, (id) => bench.part?.steps[id]?.name ?? '?');
const unsureWords = ({ label, fate, offers }: UnsureReference): string =>
  fate === 'recovered'
    ? `${label}: recovered by its shape.`
    : `${label}: gone.${offers.length > 0 ? ' What it may be now:' : ''}`;
function repoint(step: Id, path: readonly string[], reference: Reference) {
  bench.pointedAt = undefined;
  store.act([{ command: 'step.repoint', input: { ...where(step), path: [...path], reference } }]);
}

const where = (step: Id) => ({ part: bench.partId!, step });
const set =
  (step: Id) =>
  (field: string, value: string): Action[] => [
    { command: 'step.set', input: { ...where(step), fields: { [field]: value } } },
  ];

const renaming = ref<Id>();
const name = ref('');
async function beginRename(id: Id, step: Step) {
  renaming.value = id;
  name.value = step.name;
  await nextTick();
  document.querySelector<HTMLInputElement>(`#rename-${id}`)?.select();
}
function rename(id: Id) {
  if (renaming.value !== id) return;
  renaming.value = undefined;
  const next = name.value.trim();
  if (next && next !== bench.part?.steps[id]?.name)
    store.act([{ command: 'step.rename', input: { ...where(id), name: next } }]);
}

const isPlane = (id: Id): boolean => {
  const datum = model.built?.datums[id];
  return datum !== undefined && 'frame' in datum;
};

interface RowVerb {
  readonly title: string;
  readonly run: () => void;
}
function verbsOf(id: Id, step: Step, at: number): RowVerb[] {
  const last = (bench.part?.stepOrder.length ?? 0) - 1;
  return [
    ...(isSketch(step)
      ? [
          { title: 'Open sketch', run: () => bench.editSketch(id) },
          { title: 'Extrude', run: () => bench.draftOf('extrude', id) },
        ]
      : [{ title: 'Change', run: () => bench.editStep(id) }]),
    ...(isPlane(id) ? [{ title: 'Sketch on it', run: () => bench.newSketch({ to: 'datum', step: id }) }] : []),
    { title: 'Rename', run: () => void beginRename(id, step) },
    {
      title: step.suppressed ? 'Take in again' : 'Leave out',
      run: () => void store.act([{ command: 'step.suppress', input: { ...where(id), on: !step.suppressed } }]),
    },
    ...(at > 0
      ? [
          {
            title: 'Move up',
            run: () => void store.act([{ command: 'step.move', input: { ...where(id), to: at - 1 } }]),
          },
        ]
      : []),
    ...(at < last
      ? [
          {
            title: 'Move down',
            run: () => void store.act([{ command: 'step.move', input: { ...where(id), to: at + 1 } }]),
          },
        ]
      : []),
    { title: 'Remove', run: () => void store.act([{ command: 'step.remove', input: where(id) }]) },
  ];
}

/** Which step's name a face begins with: hovering geometry lights up the sentence that made it. */
const lit = computed(
  () =>
    new Set(
      [...bench.hovered, ...bench.picked].flatMap((pick) => pick.name.split(' | ').map((face) => face.split('/')[0]!)),
    ),
);
</script>

<template>
  <ol class="grow overflow-y-auto" aria-label="Steps of the part">
    <li
      v-for="(row, k) in rows"
      :key="row.id"
      class="border-rule group relative border-b py-2 pr-3 pl-4"
      :class="[
        row.current ? 'bg-lit' : lit.has(row.id) ? 'bg-paper' : '',
        row.pale ? 'text-muted' : '',
        row.id === bench.draft?.id ? 'pointer-events-none' : '',
      ]"
      :data-testid="`step-${row.step.name}`"
      @pointerenter="bench.pointedStep = row.id"
      @pointerleave="bench.pointedStep = undefined"
    >
      <span v-if="row.current" class="bg-act absolute inset-y-0 left-0 w-[3px]" />
      <span v-else-if="row.trouble" class="border-clash absolute inset-y-0 left-0 border-l-3 border-dashed" />
      <div class="flex gap-3">
        <span class="text-muted w-4 shrink-0 font-mono text-[13px] leading-6">{{ k + 1 }}</span>
        <div
          class="min-w-0 grow leading-6"
          :class="row.step.suppressed ? 'text-muted line-through' : ''"
          @dblclick="isSketch(row.step) ? bench.editSketch(row.id) : bench.editStep(row.id)"
        >
          <input
            v-if="renaming === row.id"
            :id="`rename-${row.id}`"
            v-model="name"
            class="field"
            aria-label="Name of the step"
            maxlength="60"
            @keydown.enter="rename(row.id)"
            @keydown.esc.stop="renaming = undefined"
            @blur="rename(row.id)"
          />
          <PhraseText
            v-else
            :phrases="row.phrases"
            :change="set(row.id)"
            :choose="(field, value) => store.act(set(row.id)(field, value))"
            :pick="(field) => bench.editStep(row.id, field)"
          />
        </div>
        <span
          v-if="row.state"
          class="shrink-0 text-[13px] leading-6"
          :class="row.loose ? 'text-loose' : row.state === 'clashing' ? 'text-clash' : 'text-muted'"
          >{{ row.state }}</span
        >
        <Menu as="div" class="relative shrink-0">
          <MenuButton class="text-muted hover:text-ink px-1 leading-6" :aria-label="`More for ${row.step.name}`"
            >⋮</MenuButton
          >
          <MenuItems class="bg-lit border-ink absolute right-0 z-30 min-w-32 border outline-none">
            <MenuItem v-for="verb in verbsOf(row.id, row.step, k)" :key="verb.title" v-slot="{ active }">
              <button
                class="block w-full px-3 py-1 text-left"
                :class="active ? 'bg-ink text-sheet' : ''"
                @click="verb.run"
              >
                {{ verb.title }}
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
      </div>
      <p v-if="row.trouble" class="text-clash ml-7 text-sm" role="alert">{{ row.trouble }}</p>
      <p
        v-for="unsure in row.unsure"
        :key="unsure.path.join('.')"
        class="ml-7 text-sm leading-5"
        :class="unsure.fate === 'gone' ? 'text-clash' : 'text-loose'"
        data-testid="unsure"
      >
        {{ unsureWords(unsure) }}
        <button
          v-for="(offer, n) in unsure.offers"
          :key="n"
          class="word-link mr-2"
          @pointerenter="bench.pointedAt = offer"
          @pointerleave="bench.pointedAt = undefined"
          @click="repoint(row.id, unsure.path, offer)"
        >
          {{ unsure.fate === 'gone' ? `take ${wordsOf(offer)}` : 'that is right' }}
        </button>
        <button v-if="!isSketch(row.step)" class="word-link" @click="bench.editStep(row.id, unsure.path.join('.'))">
          choose
        </button>
      </p>
    </li>
    <li v-if="rows.length === 0" class="text-muted p-4">
      No steps yet. Begin with a sketch: choose a plane below the view, or press
      <kbd class="text-key font-mono text-[13px]">1</kbd>.
    </li>
    <li v-if="bench.editor"><SketchSizes /></li>
  </ol>
</template>
