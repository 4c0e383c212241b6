<script setup lang="ts">
import { computed } from 'vue';
import { markTitle, sheetPaths, type Id } from '@helb/core';
import { ARROW_WAYS } from '../editor/arrow-keys.ts';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';
import SheetLines from './sheet-lines.vue';
import SheetWords from './sheet-words.vue';

/** Dimensions and notes of a sheet: picked, dragged by the pointer or by arrow keys, taken off. */
const { held = undefined } = defineProps<{
  held?: { readonly mark?: Id; readonly by: readonly [number, number] } | undefined;
}>();
const emit = defineEmits<{ press: [event: PointerEvent, mark: Id] }>();
const sheets = useSheets();
const writing = useWriting();

const marks = computed(() => {
  const { picture, marks: all } = sheets.composed!;
  const height = picture.size[1];
  return Object.entries(all).flatMap(([id, { words, box }]) => {
    const record = writing.marks[id];
    if (!record) return [];
    return [
      {
        ...{ id, words },
        title: `${markTitle(record)} ${words}`,
        layers: sheetPaths({ ...picture, strokes: picture.strokes.filter(({ mark }) => mark === id) }),
        letters: picture.letters.filter(({ mark }) => mark === id),
        area: {
          x: box.low[0] - 0.6,
          y: height - box.high[1] - 0.6,
          width: box.high[0] - box.low[0] + 1.2,
          height: box.high[1] - box.low[1] + 1.2,
        },
      },
    ];
  });
});
const height = computed(() => sheets.composed!.picture.size[1]);

/** How far a key moves a mark, mm on paper. */
const STEP = 2;
function onKey(event: KeyboardEvent, id: Id) {
  const way = ARROW_WAYS[event.key];
  if (way) writing.shift(id, [way[0] * STEP, way[1] * STEP]);
  else if (event.key === 'Delete' || event.key === 'Backspace') writing.remove(id);
  else return;
  event.preventDefault();
}
</script>

<template>
  <g
    v-for="mark in marks"
    :key="mark.id"
    class="group cursor-move outline-none"
    :class="writing.chosen === mark.id ? 'text-act' : 'text-[#111]'"
    :transform="held?.mark === mark.id ? `translate(${held.by[0]} ${held.by[1]})` : undefined"
    tabindex="0"
    role="button"
    :aria-label="mark.title"
    :aria-pressed="writing.chosen === mark.id"
    :data-mark="mark.id"
    @pointerdown.stop="emit('press', $event, mark.id)"
    @focus="writing.chosen = mark.id"
    @keydown="onKey($event, mark.id)"
  >
    <rect
      v-bind="mark.area"
      fill="transparent"
      class="group-hover:fill-[#d1432b14] group-focus-visible:stroke-act"
      stroke-width="0.3"
    />
    <g fill="none" stroke="currentColor"><SheetLines :layers="mark.layers" /></g>
    <g fill="currentColor" stroke="none" font-family="'Source Sans 3', sans-serif">
      <SheetWords :letters="mark.letters" :height="height" />
    </g>
  </g>
</template>
