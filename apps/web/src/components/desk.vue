<script setup lang="ts">
import type { Id } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import BodiesList from './bodies-list.vue';
import MeshesList from './meshes-list.vue';
import DeskMessage from './desk-message.vue';
import DraftDesk from './step-desk.vue';
import IncomingDesk from './incoming-desk.vue';
import LooseEnds from './loose-ends.vue';
import PartDesk from './part-desk.vue';
import PartPlacings from './part-placings.vue';
import SectionsList from './sections-list.vue';
import SketchDesk from './sketch-desk.vue';

const emit = defineEmits<{ whole: [placement: Id] }>();
const bench = useWorkbench();
</script>

<template>
  <aside class="bg-sheet border-rule w-[300px] shrink-0 overflow-y-auto border-l" aria-label="Desk">
    <DeskMessage />
    <DraftDesk v-if="bench.draft" />
    <template v-else-if="bench.editor">
      <IncomingDesk v-if="bench.incoming" />
      <SketchDesk />
    </template>
    <template v-else>
      <PartDesk />
      <PartPlacings @whole="(placement) => emit('whole', placement)" />
      <BodiesList />
      <MeshesList />
    </template>
    <SectionsList v-if="!bench.draft" />
    <LooseEnds />
  </aside>
</template>
