<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router';
import { clashWords } from '../sync/clashes.ts';
import TopLine from '../components/top-line.vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useFirstTasks } from '../stores/first-tasks.ts';
import { useJoining } from '../stores/joining.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { ApiError } from '../sync/api.ts';

const route = useRoute();
const router = useRouter();
const store = useProject();
const bench = useWorkbench();
const joining = useJoining();
const model = useModel();
const failed = ref('');

watch(
  () => route.params['id'],
  async (id) => {
    if (typeof id !== 'string') return;
    failed.value = '';
    bench.goOut();
    await store.open(id).catch((error: unknown) => {
      failed.value = error instanceof ApiError ? error.message : 'The server does not answer. Try again in a moment.';
    });
    bench.comeIn();
    joining.comeIn(id);
    if (route.query['tasks'] !== undefined) await beginTasks();
  },
  { immediate: true },
);

/** Asked for by the address, once. */
async function beginTasks() {
  await router.replace({ query: {} });
  if (store.kept) useFirstTasks().begin();
}

function onKey(event: KeyboardEvent) {
  const typing = (event.target as HTMLElement).closest('input, textarea, select');
  if (typing || !(event.ctrlKey || event.metaKey)) return;
  const key = event.key.toLowerCase();
  if (key === 'z') (event.shiftKey ? store.redo : store.undo)();
  else if (key === 'y') store.redo();
  else return;
  event.preventDefault();
}
addEventListener('keydown', onKey);

onBeforeUnmount(() => {
  removeEventListener('keydown', onKey);
  bench.goOut();
  store.close();
  model.close();
});
</script>

<template>
  <div class="flex h-full flex-col">
    <div v-if="failed" class="bg-paper grid h-full place-items-center">
      <p>{{ failed }} <RouterLink class="word-link" to="/">To the shelf</RouterLink></p>
    </div>
    <template v-else-if="store.project">
      <TopLine />
      <p v-if="store.view?.lost" class="bg-chip border-rule flex gap-4 border-b px-4 py-1" role="alert">
        {{ store.view.lost }}
        <button class="word-link" @click="store.dismissLost()">I have read it</button>
      </p>
      <p
        v-for="clash of store.view?.clashes"
        :key="clash.path.join('/')"
        class="bg-chip border-rule flex gap-4 border-b px-4 py-1"
        role="alert"
      >
        {{ clashWords(clash).told }}
        <button class="word-link" @click="store.settle(clash, 'take')">{{ clashWords(clash).take }}</button>
        <button class="word-link" @click="store.settle(clash, 'leave')">leave it so</button>
      </p>
      <RouterView />
    </template>
    <p v-else class="text-muted grid h-full place-items-center">Opening…</p>
  </div>
</template>
