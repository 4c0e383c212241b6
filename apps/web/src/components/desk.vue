<script setup lang="ts">
import { useBench } from '../stores/bench.ts';
import { useProject } from '../stores/project.ts';
import BodiesList from './bodies-list.vue';
import DraftDesk from './draft-desk.vue';
import IncomingDesk from './incoming-desk.vue';
import LooseEnds from './loose-ends.vue';
import PartDesk from './part-desk.vue';
import SectionsList from './sections-list.vue';
import SketchDesk from './sketch-desk.vue';

const bench = useBench();
const store = useProject();
</script>

<template>
  <aside class="bg-sheet border-rule w-[300px] shrink-0 overflow-y-auto border-l" aria-label="Desk">
    <p
      v-if="store.message"
      class="border-rule text-clash flex items-start justify-between gap-2 border-b px-4 py-2"
      role="alert"
    >
      {{ store.message }}
      <button class="word-link shrink-0 text-sm" @click="store.message = ''">close</button>
    </p>
    <DraftDesk v-if="bench.draft" />
    <template v-else-if="bench.editor">
      <IncomingDesk v-if="bench.incoming" />
      <SketchDesk />
    </template>
    <template v-else>
      <PartDesk />
      <BodiesList />
    </template>
    <SectionsList v-if="!bench.draft" />
    <LooseEnds />
  </aside>
</template>
