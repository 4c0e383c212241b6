<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue';
import SheetDesk from '../components/sheet-desk.vue';
import SheetPaper from '../components/sheet-paper.vue';
import SheetsList from '../components/sheets-list.vue';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';

const store = useProject();
const sheets = useSheets();

watch([() => store.project, () => sheets.id], () => void sheets.draw(), { immediate: true });
// nothing else has to wait for it
onBeforeUnmount(() => sheets.stop());
</script>

<template>
  <main class="flex room">
    <SheetsList />
    <SheetPaper />
    <SheetDesk />
  </main>
</template>
