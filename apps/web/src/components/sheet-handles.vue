<script setup lang="ts">
import { computed } from 'vue';
import { sameReference, type Handle } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';

/** What lies under the pointer while something is written, what was picked for it, and what a finding is about. */
const { hovered = undefined } = defineProps<{ hovered?: Handle | undefined }>();
const sheets = useSheets();
const writing = useWriting();

const height = computed(() => sheets.composed!.ink.size[1]);
const lit = computed(() => {
  const { picked } = sheets;
  const isMeant = ({ view, reference }: Handle) =>
    (picked === undefined || view === picked) && writing.shown.some((other) => sameReference(other, reference));
  const meant = writing.shown.length > 0 ? sheets.handles.filter(isMeant) : [];
  return [
    ...meant.map((handle) => ({ handle, colour: '#d1432b' })),
    ...writing.picks.map((handle) => ({ handle, colour: '#d1432b' })),
    ...(writing.verb && hovered ? [{ handle: hovered, colour: '#1f7370' }] : []),
  ];
});
const d = ({ path }: Handle) => path.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x} ${height.value - y}`).join('');
</script>

<template>
  <g fill="none" stroke-linecap="round" stroke-linejoin="round" class="pointer-events-none">
    <template v-for="({ handle, colour }, k) in lit" :key="k">
      <circle
        v-if="handle.path.length === 1"
        :cx="handle.path[0]![0]"
        :cy="height - handle.path[0]![1]"
        r="1.2"
        :stroke="colour"
        stroke-width="0.6"
      />
      <path v-else :d="d(handle)" :stroke="colour" stroke-width="0.9" />
    </template>
  </g>
</template>
