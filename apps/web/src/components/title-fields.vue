<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { cellIn, labelOf, linesIn, ok, TITLE_LIMITS, WRITTEN, type Cell, type WrittenName, cellKey } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import TitleLayout from './title-layout.vue';
import TypedField from './typed-field.vue';

/** What is written into the title block of this sheet; and how the title blocks of all sheets are laid out. */
const sheets = useSheets();

/** A field that this sheet writes. */
interface Written {
  readonly key: string;
  readonly label: string;
  readonly value: string;
  readonly example: string;
  readonly most: number;
  /** Is there room for several lines? */
  readonly lines: boolean;
  readonly write: (text: string) => boolean;
}
const isWritten = (name: string): name is WrittenName => name in WRITTEN;
function writtenIn(cell: Cell, high: number): Written[] {
  const { title } = sheets.sheet!;
  const base = { key: cellKey(cell), label: labelOf(cell) };
  if ('own' in cell) {
    const { own, words = '' } = cell;
    const [value, most, lines] = [title.own?.[own] ?? '', TITLE_LIMITS.words, linesIn(high) > 1];
    return [{ ...base, value, example: words, most, lines, write: (text) => sheets.write({ own: { [own]: text } }) }];
  }
  const { field } = cell;
  if (!isWritten(field)) return [];
  const write = (text: string) => sheets.write({ [field]: text || undefined });
  return [{ ...base, value: title[field] ?? '', example: WRITTEN[field].example, most: 60, lines: false, write }];
}
const fields = computed(() =>
  sheets.block.rows.flatMap(({ high, cells }) => cells.flatMap((cell) => writtenIn(cell, high))),
);
const change =
  ({ write }: Written) =>
  (text: string) => {
    write(text);
    return ok(undefined);
  };

// a field that is pressed on the paper is written into, or shown while it is laid out
const list = ref<HTMLElement>();
watch(
  () => sheets.cell,
  async (at) => {
    const cell = at && cellIn(sheets.block, at);
    if (!cell) return;
    await nextTick();
    if (sheets.layingOut) list.value?.querySelector('[role=group]')?.scrollIntoView({ block: 'nearest' });
    else list.value?.querySelector<HTMLElement>(`[data-field="${cellKey(cell)}"]`)?.focus();
  },
);
</script>

<template>
  <section ref="list" class="border-rule space-y-1.5 border-b p-4" aria-label="Title block">
    <h2 class="heading flex items-baseline gap-3">
      Title block
      <button
        class="word-link text-sm font-normal"
        :aria-expanded="sheets.layingOut"
        @click="sheets.layingOut = !sheets.layingOut"
      >
        {{ sheets.layingOut ? 'done' : 'lay it out' }}
      </button>
    </h2>
    <TitleLayout v-if="sheets.layingOut" />
    <label v-for="field in fields" v-else :key="field.key" class="flex items-center gap-2">
      <span class="text-muted w-28 shrink-0 truncate text-sm" :title="field.label">{{ field.label }}</span>
      <TypedField
        class="field min-w-0 grow"
        :data-field="field.key"
        :value="field.value"
        :label="field.label"
        :placeholder="field.example"
        :most="field.most"
        :lines="field.lines"
        :change="change(field)"
      />
    </label>
  </section>
</template>
