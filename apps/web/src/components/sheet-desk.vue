<script setup lang="ts">
import { computed } from 'vue';
import { PAPERS, SCALE_NAMES, type Sheet } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';
import ChoiceWord from './choice-word.vue';
import DoubtNote from './doubt-note.vue';
import MarkDesk from './mark-desk.vue';
import NameField from './name-field.vue';
import SheetFindings from './sheet-findings.vue';
import SheetIssues from './sheet-issues.vue';
import SheetViews from './sheet-views.vue';
import SheetWriting from './sheet-writing.vue';
import TitleFields from './title-fields.vue';

/** What the sheet is set up as: paper, scale, views, and what is written into the title block. */
const sheets = useSheets();
const writing = useWriting();

const papers = Object.fromEntries(Object.keys(PAPERS).map((name) => [name, name]));
const scales = computed(() => ({
  '': `as fits (${sheets.composed?.scale ?? '…'})`,
  ...Object.fromEntries(SCALE_NAMES.map((name) => [name, name])),
}));
const set = (fields: Partial<Sheet>) => sheets.set(fields);
</script>

<template>
  <aside class="border-rule bg-sheet w-75 shrink-0 overflow-y-auto border-l" aria-label="Desk">
    <template v-if="sheets.sheet && sheets.id">
      <MarkDesk v-if="writing.mark && writing.chosen" :key="writing.chosen" />
      <SheetFindings />
      <SheetWriting />
      <section class="border-rule space-y-1.5 border-b p-4">
        <NameField :value="sheets.sheet.name" label="Name of the sheet" @change="(name) => set({ name })" />
        <p>
          <ChoiceWord
            :value="sheets.sheet.paper"
            :options="papers"
            label="paper"
            @choose="(paper) => set({ paper: paper as Sheet['paper'] })"
          />
          <ChoiceWord
            class="ml-1.5"
            :value="sheets.sheet.upright ? 'upright' : 'lying'"
            :options="{ lying: 'lying', upright: 'upright' }"
            label="how the paper lies"
            @choose="(way) => set({ upright: way === 'upright' })"
          />
        </p>
        <p>
          Scale
          <ChoiceWord
            :value="sheets.sheet.scale ?? ''"
            :options="scales"
            label="scale"
            @choose="(scale) => set({ scale: scale || undefined } as Partial<Sheet>)"
          />
        </p>
        <p>
          Views folded out in
          <ChoiceWord
            :value="sheets.sheet.projection"
            :options="{ first: 'first angle', third: 'third angle' }"
            label="projection"
            @choose="(projection) => set({ projection: projection as Sheet['projection'] })"
          />
        </p>
      </section>
      <SheetViews />
      <SheetIssues />
      <TitleFields />
      <section class="p-4">
        <h2 class="heading mb-1">This sheet as a file</h2>
        <DoubtNote />
        <p class="flex gap-4">
          <button
            v-for="format in ['pdf', 'svg', 'dxf'] as const"
            :key="format"
            class="word-link"
            :disabled="sheets.busy"
            @click="sheets.save([sheets.id], format)"
          >
            {{ format.toUpperCase() }}
          </button>
        </p>
        <p class="text-muted mt-2 text-[12px]">
          Print at full size, and have it read by a second person before anything is made from it. Nothing here proves
          strength.
        </p>
      </section>
    </template>
    <p v-else class="text-muted p-4">A sheet shows a part from several sides, or the whole, with a title block.</p>
  </aside>
</template>
