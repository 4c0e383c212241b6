<script setup lang="ts">
import { computed } from 'vue';
import { BESIDE_WORDS, placedSections, SIDE_WORDS, USUAL_LINES, viewWords, type Id, type View } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { useProject } from '../stores/project.ts';
import CutSteps from './cut-steps.vue';
import CutWhole from './cut-whole.vue';
import DetailSize from './detail-size.vue';

/** The views of a sheet: what each shows, and which can be added. */
const sheets = useSheets();
const store = useProject();
const wordsOf = (view: View) => viewWords(view, sheets.sheet!, sheets.sectionName);

const SQUARE: ReadonlySet<View['kind']> = new Set(['base', 'projected', 'section']);
/** The view that others are folded out of or show a detail of: the one that is picked, else the first that can be. */
const square = computed((): Id | undefined => {
  const { views = {}, viewOrder = [] } = sheets.sheet ?? {};
  const can = (id: Id | undefined) => id !== undefined && views[id] && SQUARE.has(views[id].kind);
  return can(sheets.picked) ? sheets.picked : viewOrder.find(can);
});

interface Offer {
  readonly words: string;
  readonly view: View;
}
const bases = Object.entries(SIDE_WORDS).map(([from, words]): Offer => ({
  words,
  view: { kind: 'base', from } as View,
}));
const corner: Offer = { words: 'from a corner', view: { kind: 'corner' } };
const apart: Offer = { words: 'drawn apart', view: { kind: 'corner', apart: 0.4, numbered: true } };
const unfolded = computed(() => [...bases, corner, ...(sheets.part ? [] : [apart])]);
const beside = computed(() =>
  Object.entries(BESIDE_WORDS).map(([side, words]) => ({
    words,
    view: { kind: 'projected', of: square.value, beside: side } as View,
  })),
);
const cuts = computed((): Offer[] => {
  const { part } = sheets;
  return part
    ? Object.entries(part.sections ?? {}).map(([section, { name }]) => ({
        words: name,
        view: { kind: 'section', section },
      }))
    : placedSections(store.project!).map(({ at, section }) => ({
        words: sheets.sectionName(section, at),
        view: { kind: 'section', section, at },
      }));
});

const lines = (view: View) => ({ ...USUAL_LINES[view.kind], ...view });
/** Is its middle to be left out; and is it, for its own sake or to stay in line with a view that asks for it? */
const isBroken = (id: Id): boolean => (sheets.sheet!.views[id] as { broken?: boolean }).broken === true;
const isShortened = (id: Id): boolean => sheets.composed?.views[id]?.breaks !== undefined;
const isOn = (event: Event) => (event.target as HTMLInputElement).checked;
/** The view of which a detail is made, or could be. */
const enlarged = computed(() =>
  sheets.enlarging && sheets.sheet?.views[sheets.enlarging] ? sheets.enlarging : square.value,
);
const SWITCHES = [
  { key: 'hidden', words: 'hidden edges' },
  { key: 'smooth', words: 'smooth edges' },
] as const;
</script>

<template>
  <section v-if="sheets.sheet" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Views</h2>
    <ul aria-label="Views of the sheet">
      <li
        v-for="id in sheets.sheet.viewOrder"
        :key="id"
        class="border-rule border-b py-1"
        :class="sheets.picked === id ? 'bg-lit' : ''"
      >
        <div class="flex items-baseline gap-2">
          <button class="min-w-0 grow truncate text-left" @click="sheets.picked = id">
            {{ wordsOf(sheets.sheet.views[id]!) }}
          </button>
          <button
            class="word-link text-sm"
            :aria-label="`Remove the view ${wordsOf(sheets.sheet.views[id]!)}`"
            @click="sheets.removeView(id)"
          >
            remove
          </button>
        </div>
        <div class="text-muted flex flex-wrap gap-x-4 text-sm">
          <label v-for="{ key, words } in SWITCHES" :key="key" class="flex items-center gap-1.5"
            ><input
              type="checkbox"
              :checked="lines(sheets.sheet.views[id]!)[key]"
              @change="sheets.setView(id, { [key]: isOn($event) })"
            />{{ words }}</label
          >
          <label v-if="SQUARE.has(sheets.sheet.views[id]!.kind)" class="flex items-center gap-1.5"
            ><input
              type="checkbox"
              :checked="isBroken(id) || isShortened(id)"
              :disabled="!isBroken(id) && isShortened(id)"
              @change="sheets.setView(id, { broken: isOn($event) || undefined })"
            />middle left out</label
          >
          <span v-if="isBroken(id) && !isShortened(id) && !sheets.busy" class="text-loose"
            >no stretch of it is long and the same all along</span
          >
          <template v-if="!sheets.part && sheets.sheet.views[id]!.kind !== 'detail'">
            <label class="flex items-center gap-1.5"
              ><input
                type="checkbox"
                :checked="sheets.sheet.views[id]!.numbered ?? false"
                @change="sheets.setView(id, { numbered: isOn($event) || undefined })"
              />numbers</label
            >
            <label class="flex items-center gap-1.5"
              >drawn apart<input
                type="range"
                class="accent-ink w-24"
                min="0"
                max="1"
                step="0.05"
                :value="sheets.sheet.views[id]!.apart ?? 0"
                @change="sheets.setView(id, { apart: Number(($event.target as HTMLInputElement).value) || undefined })"
            /></label>
          </template>
          <button
            v-if="sheets.sheet.views[id]!.numbered && sheets.sheet.views[id]!.numbers"
            class="word-link"
            @click="sheets.setView(id, { numbers: undefined })"
          >
            numbers where there is room
          </button>
          <button
            v-if="sheets.sheet.views[id]!.shift"
            class="word-link"
            @click="sheets.setView(id, { shift: undefined })"
          >
            put back
          </button>
        </div>
        <CutSteps v-if="sheets.sheet.views[id]!.kind === 'section'" :id="id" />
        <CutWhole v-if="!sheets.part && sheets.sheet.views[id]!.kind === 'section'" :id="id" />
        <DetailSize v-if="sheets.sheet.views[id]!.kind === 'detail'" :id="id" />
      </li>
    </ul>
    <p class="mt-2 text-sm">
      <span class="text-muted">Add a view</span>
      <template v-for="{ words, view } in unfolded" :key="words">
        {{ ' ' }}<button class="word-link mr-1.5" @click="sheets.addView(view)">{{ words }}</button>
      </template>
    </p>
    <p v-if="square" class="mt-1 text-sm">
      <span class="text-muted">Fold out of “{{ wordsOf(sheets.sheet.views[square]!) }}”</span>
      <template v-for="{ words, view } in beside" :key="words">
        {{ ' ' }}<button class="word-link mr-1.5" @click="sheets.addView(view)">{{ words }}</button>
      </template>
    </p>
    <p v-if="enlarged" class="mt-1 text-sm">
      <span class="text-muted">Of “{{ wordsOf(sheets.sheet.views[enlarged]!) }}”</span>
      {{ ' '
      }}<button v-if="!sheets.enlarging" class="word-link" @click="sheets.enlarging = square">
        show a detail larger
      </button>
      <span v-else role="status"
        >press in it where the detail lies
        <button class="word-link ml-1" @click="sheets.enlarging = undefined">leave</button></span
      >
    </p>
    <p class="mt-1 text-sm">
      <span class="text-muted">Cut open</span>
      <template v-for="{ words, view } in cuts" :key="words">
        {{ ' ' }}<button class="word-link mr-1.5" @click="sheets.addView(view)">{{ words }}</button>
      </template>
      <span v-if="cuts.length === 0" class="text-muted">
        — sections are kept by name on the bench;
        {{ sheets.part ? 'this part has' : 'the parts that are placed have' }} none yet</span
      >
    </p>
  </section>
</template>
