<script setup lang="ts">
import { computed } from 'vue';
import { placedParts, type Id, type View } from '@helb/core';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';
import ChoiceWord from './choice-word.vue';

/** Which parts a section of the whole does not cut: shafts, pins and bolts are shown whole along their axes. */
const { id } = defineProps<{ id: Id }>();
const sheets = useSheets();
const store = useProject();

const uncut = computed(() => (sheets.sheet!.views[id] as Extract<View, { kind: 'section' }>).uncut ?? []);
const nameOf = (part: Id) => store.project!.parts[part]?.name ?? '?';
const others = computed(() => ({
  '': '+ part',
  ...Object.fromEntries(
    placedParts(store.project!)
      .filter((part) => !uncut.value.includes(part))
      .map((part) => [part, nameOf(part)]),
  ),
}));
const set = (parts: Id[]) => sheets.setView(id, { uncut: parts.length > 0 ? parts : undefined });
</script>

<template>
  <p class="text-sm">
    <span class="text-muted">not cut:</span>
    <button
      v-for="part in uncut"
      :key="part"
      class="word-link ml-1.5"
      :aria-label="`Cut ${nameOf(part)} too`"
      title="cut it too"
      @click="set(uncut.filter((one) => one !== part))"
    >
      {{ nameOf(part) }} ×
    </button>
    <ChoiceWord
      class="text-link ml-1.5"
      value=""
      :options="others"
      label="leave a part whole"
      @choose="(part) => part && set([...uncut, part])"
    />
  </p>
</template>
