<script setup lang="ts">
import { computed } from 'vue';
import {
  CELL_WAYS,
  cellIn,
  fieldOf,
  fieldsLeft,
  labelOf,
  movedCell,
  ok,
  TITLE_LIMITS,
  withCell,
  withField,
  withHeight,
  withoutCell,
  type Cell,
  type CellAt,
  type CellWay,
  type FieldName,
  type TitleBlock,
} from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useSheets } from '../stores/sheets.ts';
import ChoiceWord from './choice-word.vue';
import TypedField from './typed-field.vue';

/** How the title blocks of all sheets are laid out: rows of fields, and the one that is picked. */
const sheets = useSheets();

const at = computed(() => sheets.cell);
const cell = computed((): Cell | undefined => at.value && cellIn(sheets.block, at.value));
const own = computed(() => (cell.value && 'own' in cell.value ? cell.value : undefined));
const isAt = (row: number, k: number) => at.value?.row === row && at.value.cell === k;

function set(block: TitleBlock, next?: CellAt) {
  if (sheets.layOut(block) && next) sheets.cell = next;
}
const HEIGHTS = [
  { words: 'higher', by: 1 },
  { words: 'lower', by: -1 },
] as const;
/** A row higher or lower, where it can be. */
function heightened(row: number, by: number): TitleBlock | undefined {
  const { high } = sheets.block.rows[row]!;
  const next = withHeight(sheets.block, row, high + by);
  return next.rows[row]!.high === high ? undefined : next;
}
const changed = (next: Cell) => set(withCell(sheets.block, at.value!, next));

/** Called as usual again where nothing is typed. */
function rename(text: string) {
  if (own.value) {
    if (text) changed({ ...own.value, label: text });
  } else if (cell.value && 'field' in cell.value) {
    const { field, share } = cell.value;
    changed({ field, share, ...(text && text !== fieldOf(field).label ? { label: text } : {}) });
  }
  return ok(undefined);
}
function say(text: string) {
  const { words: _, ...rest } = own.value!;
  changed(text ? { ...rest, words: text } : rest);
  return ok(undefined);
}
const widen = (by: number) => changed({ ...cell.value!, share: cell.value!.share + by });
const canWiden = (by: number) => {
  const next = cell.value!.share + by;
  return next >= 1 && next <= TITLE_LIMITS.share;
};
const ways = computed(() =>
  (Object.keys(CELL_WAYS) as CellWay[]).map((way) => ({ way, next: movedCell(sheets.block, at.value!, way) })),
);

const OWN = 'own';
const choices = computed(() => ({
  '': '+ field',
  [OWN]: 'one of its own',
  ...Object.fromEntries(fieldsLeft(sheets.block).map((name) => [name, fieldOf(name).label])),
}));
function add(row: number, choice: string) {
  if (!choice) return;
  const next: Cell =
    choice === OWN ? { own: newId('field'), label: 'Field', share: 4 } : { field: choice as FieldName, share: 4 };
  const made = withField(sheets.block, row, next);
  if (made) set(made.block, made.at);
  else sheets.message = 'The title block is full: take a field off, or make a row lower.';
}
function takeOff() {
  set(withoutCell(sheets.block, at.value!));
  sheets.cell = undefined;
}
const isLast = computed(() => sheets.block.rows.length === 1 && sheets.block.rows[0]!.cells.length === 1);
</script>

<template>
  <div class="space-y-2 text-sm">
    <p class="text-muted">The same on all sheets of the project. Pick a field here or on the paper.</p>
    <ol class="space-y-1.5" aria-label="Rows of the title block">
      <li v-for="(line, row) in sheets.block.rows" :key="row" class="border-rule border-b pb-1.5">
        <div class="flex flex-wrap items-baseline gap-1">
          <button
            v-for="(one, k) in line.cells"
            :key="k"
            class="border px-1.5"
            :class="isAt(row, k) ? 'bg-ink text-sheet border-ink' : 'border-rule bg-lit hover:border-ink'"
            :aria-pressed="isAt(row, k)"
            @click="sheets.cell = { row, cell: k }"
          >
            {{ labelOf(one) }}
          </button>
          <ChoiceWord
            class="text-link"
            value=""
            :options="choices"
            :label="`Add to row ${row + 1}`"
            @choose="(choice) => add(row, choice)"
          />
        </div>
        <p class="text-muted mt-0.5">
          {{ line.high }} mm high
          <button
            v-for="{ words, by } in HEIGHTS"
            :key="words"
            class="word-link ml-1.5"
            :disabled="!heightened(row, by)"
            :aria-label="`Row ${row + 1} ${words}`"
            @click="set(heightened(row, by)!)"
          >
            {{ words }}
          </button>
        </p>
      </li>
    </ol>
    <div v-if="cell" class="space-y-1.5" aria-label="The picked field" role="group">
      <label class="flex items-center gap-2">
        <span class="text-muted w-20 shrink-0">called</span>
        <TypedField class="field min-w-0 grow" :value="labelOf(cell)" label="called" :most="30" :change="rename" />
      </label>
      <label v-if="own" class="flex items-start gap-2">
        <span class="text-muted w-20 shrink-0">says always</span>
        <TypedField
          class="field min-w-0 grow"
          :value="own.words ?? ''"
          label="says always"
          placeholder="or as each sheet says"
          lines
          :most="TITLE_LIMITS.words"
          :change="say"
        />
      </label>
      <p class="flex flex-wrap gap-x-3">
        <button
          v-for="{ way, next } in ways"
          :key="way"
          class="word-link"
          :disabled="!next"
          @click="next && set(next.block, next.at)"
        >
          {{ way }}
        </button>
        <button class="word-link" :disabled="!canWiden(1)" @click="widen(1)">wider</button>
        <button class="word-link" :disabled="!canWiden(-1)" @click="widen(-1)">narrower</button>
        <button class="word-link" :disabled="isLast" @click="takeOff">take off</button>
      </p>
    </div>
    <p v-if="sheets.isOwnBlock">
      <button class="word-link" @click="sheets.layOut(undefined)">as usual again</button>
    </p>
  </div>
</template>
