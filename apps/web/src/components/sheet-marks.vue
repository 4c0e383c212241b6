<script setup lang="ts">
import { computed } from 'vue';
import { markTitle } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';
import SheetGrip from './sheet-grip.vue';

/** Dimensions and notes of a sheet, numbers of parts, circles of details: picked, dragged, taken off. */
const { held = undefined } = defineProps<{
  held?: { readonly mark?: string; readonly by: readonly [number, number] } | undefined;
}>();
const emit = defineEmits<{ press: [event: PointerEvent, mark: string] }>();
const sheets = useSheets();
const writing = useWriting();

const marks = computed(() =>
  Object.entries(sheets.composed!.marks).flatMap(([id, { words, box }]) => {
    const record = writing.marks[id];
    return record ? [{ id, title: `${markTitle(record)} ${words}`, box }] : [];
  }),
);
const dragged = (mark: string) => (held?.mark === mark ? held.by : undefined);
</script>

<template>
  <SheetGrip
    v-for="(sign, key) in sheets.composed!.signs"
    :key="key"
    :mark="key"
    :title="sign.words"
    :box="sign.box"
    :is-picked="false"
    :dragged="dragged(key)"
    @press="emit('press', $event, key)"
    @pick="sheets.picked = sign.of"
    @shift="sheets.shiftSign(key, $event)"
    @drop="sheets.dropSign(sign)"
  />
  <SheetGrip
    v-for="{ id, title, box } in marks"
    :key="id"
    :mark="id"
    :title="title"
    :box="box"
    :is-picked="writing.chosen === id"
    :dragged="dragged(id)"
    @press="emit('press', $event, id)"
    @pick="writing.chosen = id"
    @shift="writing.shift(id, $event)"
    @drop="writing.remove(id)"
  />
</template>
