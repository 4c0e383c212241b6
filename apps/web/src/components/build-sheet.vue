<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import {
  isSketch,
  lastSeenWords,
  offerWords,
  placeFurtherUp,
  stepKind,
  type Action,
  type Id,
  type Phrase,
  type Reference,
  type Step,
  facesOfName,
  stepOfFace,
} from '@helb/core';
import type { UnsureReference } from '@helb/engine';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useUnits } from '../stores/units.ts';
import { useProject } from '../stores/project.ts';
import { putAfter } from '../making/step-making.ts';
import { useStepVerbs } from '../stores/step-verbs.ts';
import MoreMenu from './more-menu.vue';
import PhraseText from './phrase-text.vue';
import SketchSizes from './sketch-sizes.vue';

const bench = useWorkbench();
const store = useProject();
const model = useModel();
const { explained } = useUnits();

const rows = computed(() => {
  const { part } = bench;
  if (!part) return [];
  const results = new Map(model.built?.part === bench.partId ? model.built?.steps.map((step) => [step.id, step]) : []);
  return part.stepOrder.map((id) => {
    const step = part.steps[id]!;
    const sketch = model.built?.sketches[id];
    const result = results.get(id);
    return {
      id,
      step,
      phrases: stepKind(step.kind).sentence(step, bench.nameOf),
      // what is being made asks for what it lacks on the desk
      trouble: result?.issue && !step.suppressed && bench.draft?.id !== id ? explained(result.issue) : '',
      furtherUp: result?.issue && placeFurtherUp(result.issue),
      detours: step.suppressed ? [] : (result?.detours ?? []).map(explained),
      state: step.suppressed ? 'left out' : sketchState(step, sketch),
      unsure: step.suppressed ? [] : (result?.references ?? []),
      loose: sketch?.state === 'loose',
      current: bench.editor?.step === id || bench.draft?.id === id,
      pale: result?.state === 'later' || (bench.editor !== undefined && bench.editor.step !== id),
    };
  });
});

function sketchState(step: Step, sketch: { state: string; freedoms: number } | undefined): string {
  if (!sketch) return '';
  return sketch.state === 'loose' ? `${sketch.freedoms} loose` : sketch.state;
}

const unsureWords = ({ label, fate, offers, reference }: UnsureReference): string =>
  `${label}: ${lastSeenWords(reference, bench.nameOf)} ${
    fate === 'recovered' ? 'recovered by its shape.' : `is gone.${offers.length > 0 ? ' What it may be now:' : ''}`
  }`;
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

/** A piece of a sentence that can only be read. */
function said(phrase: Phrase): string {
  if (phrase.type === 'choice') return phrase.options[phrase.value] ?? '';
  return phrase.type === 'part' ? (bench.takeable[phrase.value] ?? phrase.label) : phrase.text;
}

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

const { verbsOf, suppress, remove, removeNow } = useStepVerbs((id, step) => void beginRename(id, step));

// several steps chosen by their numbers: Shift for a stretch, else one by one
const marked = computed(() => bench.part?.stepOrder.filter((id) => bench.chosen.has(id)) ?? []);
let latest: Id | undefined;
function choose(id: Id, event: MouseEvent) {
  const order = bench.part!.stepOrder;
  const next = new Set(bench.chosen);
  if (event.shiftKey && latest !== undefined) {
    const [a, b] = [order.indexOf(latest), order.indexOf(id)].toSorted((p, q) => p - q) as [number, number];
    order.slice(a, b + 1).forEach((other) => next.add(other));
  } else if (!next.delete(id)) next.add(id);
  latest = id;
  bench.chosen = next;
}
/** A click on the sentence beside its words and numbers means this step alone. */
function chooseOnly(id: Id, event: MouseEvent) {
  if ((event.target as Element).closest('button, input')) return;
  if (event.shiftKey) return choose(id, event);
  latest = id;
  bench.chosen = new Set([id]);
}
const namesOf = (ids: readonly Id[]) => ids.map((id) => bench.part?.steps[id]?.name ?? '?').join(', ');

/** Which step's name a face begins with: hovering geometry lights up the sentence that made it. */
const lit = computed(
  () => new Set([...bench.hovered, ...bench.picked].flatMap((pick) => facesOfName(pick.name).map(stepOfFace))),
);
</script>

<template>
  <ol class="grow overflow-y-auto" aria-label="Steps of the part">
    <li
      v-for="(row, k) in rows"
      :key="row.id"
      class="border-rule group relative border-b py-2 pr-3 pl-4"
      :class="[
        row.current || bench.chosen.has(row.id) ? 'bg-lit' : lit.has(row.id) ? 'bg-paper' : '',
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
        <button
          class="hover:text-ink w-4 shrink-0 self-start text-left font-mono text-[13px] leading-6"
          :class="bench.chosen.has(row.id) ? 'text-act font-semibold' : 'text-muted'"
          :aria-pressed="bench.chosen.has(row.id)"
          :aria-label="`Choose step ${k + 1}`"
          title="Choose; Shift: up to here"
          @click="choose(row.id, $event)"
        >
          {{ k + 1 }}
        </button>
        <div
          class="min-w-0 grow leading-6 select-none"
          :class="row.step.suppressed ? 'text-muted line-through' : ''"
          @click="chooseOnly(row.id, $event)"
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
        <MoreMenu :of="row.step.name" :verbs="verbsOf(row.id, row.step, k)" />
      </div>
      <p v-if="bench.standing?.sketch === row.id && !row.current" class="ml-7 text-sm">
        left open · <button class="word-link" @click="bench.editSketch(row.id)">go on drawing</button>
      </p>
      <p v-if="row.trouble" class="text-clash ml-7 text-sm" role="alert">
        {{ row.trouble }}
        <button
          v-if="row.furtherUp"
          class="word-link"
          @click="store.act([putAfter(bench.partId!, bench.part!, row.id, row.furtherUp)])"
        >
          put it there
        </button>
      </p>
      <p v-for="way in row.detours" :key="way" class="text-muted ml-7 text-sm" data-testid="detour">{{ way }}</p>
      <p
        v-if="bench.upTo === row.id"
        class="text-muted mt-2 flex items-center gap-3 text-[13px]"
        data-testid="built-to"
      >
        <span class="bg-ink h-px grow" />built up to here
        <button class="word-link" @click="bench.upTo = undefined">build all</button><span class="bg-ink h-px grow" />
      </p>
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
          class="word-link mr-2 text-left"
          @pointerenter="bench.pointedAt = offer"
          @pointerleave="bench.pointedAt = undefined"
          @click="repoint(row.id, unsure.path, offer)"
        >
          {{ unsure.fate === 'gone' ? `take ${offerWords(unsure.offers, bench.nameOf)[n]}` : 'that is right' }}
        </button>
        <button v-if="!isSketch(row.step)" class="word-link" @click="bench.editStep(row.id, unsure.path.join('.'))">
          choose
        </button>
      </p>
    </li>
    <li
      v-for="one in bench.standing?.steps ?? []"
      :key="`standing ${one.id}`"
      class="border-rule text-muted relative border-b py-2 pr-3 pl-11 leading-6"
      data-testid="standing"
    >
      <span class="border-act absolute inset-y-0 left-0 border-l-3 border-dotted" />
      {{ stepKind(one.step.kind).sentence(one.step, bench.nameOf).map(said).join('') }}
      <p class="text-sm">
        {{ one.isNew ? 'in the making' : 'being changed' }} ·
        <button class="word-link" @click="bench.resume(one.id)">go on</button> ·
        <button class="word-link" @click="bench.dropStanding(one.id)">drop it</button>
      </p>
    </li>
    <li v-if="marked.length > 0" class="bg-lit border-rule sticky bottom-0 border-t px-4 py-2" data-testid="chosen">
      {{ marked.length === 1 ? '1 step' : `${marked.length} steps` }} chosen:
      <button class="word-link" @click="suppress(marked, true)">leave out</button> ·
      <button class="word-link" @click="suppress(marked, false)">take in</button> ·
      <button class="word-link" @click="(remove(marked), (bench.chosen = new Set()))">remove</button> ·
      <button class="word-link" @click="bench.chosen = new Set()">none</button>
    </li>
    <li v-if="bench.removing" class="bg-lit border-clash border-l-3 px-4 py-2" role="alert">
      <p v-if="bench.removing.needing.length > 0">
        {{ namesOf(bench.removing.steps) }} is needed by <strong>{{ namesOf(bench.removing.needing) }}</strong>, which
        would go too.
      </p>
      <p v-if="bench.removing.naming.length > 0">
        {{ namesOf(bench.removing.naming) }} builds on faces of it and would have to choose again.
      </p>
      <p class="mt-1 flex gap-4">
        <button class="verb" @click="removeNow([...bench.removing.steps, ...bench.removing.needing])">
          Remove {{ bench.removing.steps.length + bench.removing.needing.length }}
        </button>
        <button class="word-link" @click="bench.removing = undefined">leave it</button>
      </p>
    </li>
    <li v-if="rows.length === 0" class="text-muted p-4">
      No steps yet. Begin with a sketch: choose a plane below the view, or press
      <kbd class="text-key font-mono text-[13px]">1</kbd>.
    </li>
    <li v-if="bench.editor"><SketchSizes /></li>
  </ol>
</template>
