<script setup lang="ts">
import { useRouter, useRoute } from 'vue-router';
import MotionList from '../components/motion-list.vue';
import AssemblyDesk from '../components/assembly-desk.vue';
import StudyPane from '../components/study-pane.vue';
import AssemblyPane from '../components/assembly-pane.vue';

const router = useRouter();
const route = useRoute();
const edit = () => void router.push({ name: 'bench', params: route.params });
</script>

<template>
  <main class="flex room">
    <div class="border-rule bg-sheet flex w-80 shrink-0 flex-col border-r"><MotionList /></div>
    <div class="flex min-w-0 grow flex-col">
      <AssemblyPane />
      <StudyPane />
    </div>
    <AssemblyDesk @edit="edit" />
  </main>
</template>
