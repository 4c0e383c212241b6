<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue';
import { useRoute } from 'vue-router';
import SheetDesk from '../components/sheet-desk.vue';
import SheetPaper from '../components/sheet-paper.vue';
import SheetsList from '../components/sheets-list.vue';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';

const route = useRoute();
const store = useProject();
const sheets = useSheets();

watch(
  () => route.params['sheet'],
  (id) => typeof id === 'string' && id !== '' && sheets.show(id),
  { immediate: true },
);
watch([() => store.project, () => sheets.id], () => void sheets.draw(), { immediate: true });
// nothing else has to wait for it
onBeforeUnmount(() => sheets.stop());
</script>

<template>
  <main class="flex min-h-0 grow">
    <SheetsList />
    <SheetPaper />
    <SheetDesk />
  </main>
</template>
