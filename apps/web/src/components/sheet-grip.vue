<script setup lang="ts">
import { computed } from 'vue';
import type { SheetSign } from '@helb/core';
import { ARROW_WAYS } from '../editor/arrow-keys.ts';
import { useSheets } from '../stores/sheets.ts';
import SheetLines from './sheet-lines.vue';
import SheetWords from './sheet-words.vue';

/** Something on a sheet that is dragged by itself, by the pointer or by arrow keys: its lines, its words, and where one presses it. */
const {
  mark,
  box,
  dragged = undefined,
} = defineProps<{
  /** Which lines and letters are its. */
  mark: string;
  title: string;
  /** What it covers, mm on paper. */
  box: SheetSign['box'];
  isPicked: boolean;
  dragged?: readonly [number, number] | undefined;
}>();
const emit = defineEmits<{
  press: [event: PointerEvent];
  pick: [];
  /** By a key, mm on paper. */
  shift: [by: readonly [number, number]];
  drop: [];
}>();
const sheets = useSheets();

const height = computed(() => sheets.composed!.ink.size[1]);
const ink = computed(() => sheets.composed!.ink.marks[mark]);
const area = computed(() => ({
  x: box.low[0] - 0.6,
  y: height.value - box.high[1] - 0.6,
  width: box.high[0] - box.low[0] + 1.2,
  height: box.high[1] - box.low[1] + 1.2,
}));

/** How far a key moves it, mm on paper. */
const STEP = 2;
function onKey(event: KeyboardEvent) {
  const way = ARROW_WAYS[event.key];
  if (way) emit('shift', [way[0] * STEP, way[1] * STEP]);
  else if (event.key === 'Delete' || event.key === 'Backspace') emit('drop');
  else return;
  event.preventDefault();
}
</script>

<template>
  <g
    class="group cursor-move outline-none"
    :class="isPicked ? 'text-act' : 'text-[#111]'"
    :transform="dragged ? `translate(${dragged[0]} ${dragged[1]})` : undefined"
    tabindex="0"
    role="button"
    :aria-label="title"
    :aria-pressed="isPicked"
    :data-mark="mark"
    @pointerdown.stop="emit('press', $event)"
    @focus="emit('pick')"
    @keydown="onKey"
  >
    <rect
      v-bind="area"
      fill="transparent"
      class="group-hover:fill-[#d1432b14] group-focus-visible:stroke-act"
      stroke-width="0.3"
    />
    <g fill="none" stroke="currentColor"><SheetLines :paths="ink?.paths ?? []" /></g>
    <g fill="currentColor" stroke="none" font-family="'Source Sans 3', sans-serif">
      <SheetWords :letters="ink?.letters ?? []" :height="height" />
    </g>
  </g>
</template>
