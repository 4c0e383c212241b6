<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { cellIn, keyOf, labelOf, ok, TITLE_LIMITS, WRITTEN, type Cell, type WrittenName } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import TitleLayout from './title-layout.vue';
import TypedField from './typed-field.vue';

/** What is written into the title block of this sheet; and how the title blocks of all sheets are laid out. */
const sheets = useSheets();

interface Written {
  readonly key: string;
  readonly label: string;
  readonly value: string;
  readonly example: string;
  readonly most: number;
  readonly write: (text: string) => boolean;
}
const isWritten = (name: string): name is WrittenName => name in WRITTEN;
function writtenIn(cell: Cell): Written[] {
  const { title } = sheets.sheet!;
  const base = { key: keyOf(cell), label: labelOf(cell) };
  if ('own' in cell) {
    const write = (text: string) => sheets.write({ own: { [cell.own]: text } });
    const { own, words = '' } = cell;
    return [{ ...base, value: title.own?.[own] ?? '', example: words, most: TITLE_LIMITS.words, write }];
  }
  const { field } = cell;
  if (!isWritten(field)) return [];
  const write = (text: string) => sheets.write({ [field]: text || undefined });
  return [{ ...base, value: title[field] ?? '', example: WRITTEN[field].example, most: 60, write }];
}
const fields = computed(() => sheets.block.rows.flatMap(({ cells }) => cells.flatMap(writtenIn)));

function change({ write }: Written) {
  return (text: string) => {
    write(text);
    return ok(undefined);
  };
}

// a field that is pressed on the paper is written into
const list = ref<HTMLElement>();
watch(
  () => sheets.cell,
  async (at) => {
    const cell = at && cellIn(sheets.block, at);
    if (!cell || sheets.layingOut) return;
    await nextTick();
    list.value?.querySelector<HTMLElement>(`[data-field="${keyOf(cell)}"]`)?.focus();
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
        :change="change(field)"
      />
    </label>
  </section>
</template>
