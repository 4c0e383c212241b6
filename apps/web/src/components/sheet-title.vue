<script setup lang="ts">
import { computed } from 'vue';
import { cellIn, labelOf, WRITTEN, type Cell } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';

/** The fields of the title block on the paper: pressed, they are written into or, while it is laid out, picked. */
const sheets = useSheets();

const canPress = (cell: Cell) => sheets.layingOut || 'own' in cell || cell.field in WRITTEN;
const cells = computed(() => {
  const { cells: all, ink } = sheets.composed!;
  return all.flatMap(({ row, cell, box: { low, high } }) => {
    const record = cellIn(sheets.block, { row, cell });
    if (!record || !canPress(record)) return [];
    const isPicked = sheets.layingOut && sheets.cell?.row === row && sheets.cell.cell === cell;
    const area = { x: low[0], y: ink.size[1] - high[1], width: high[0] - low[0], height: high[1] - low[1] };
    return [{ at: { row, cell }, label: labelOf(record), isPicked, area }];
  });
});
</script>

<template>
  <rect
    v-for="{ at, label, isPicked, area } in cells"
    :key="`${at.row} ${at.cell}`"
    v-bind="area"
    fill="transparent"
    class="hover:fill-[#d1432b14] focus-visible:fill-[#d1432b14] cursor-pointer outline-none"
    :stroke="isPicked ? '#d1432b' : 'none'"
    stroke-width="0.5"
    tabindex="0"
    role="button"
    :aria-label="`Field ${label}`"
    :aria-pressed="isPicked"
    @pointerdown.stop.prevent="sheets.cell = { ...at }"
    @keydown.enter="sheets.cell = { ...at }"
    @keydown.space.prevent="sheets.cell = { ...at }"
  />
</template>
