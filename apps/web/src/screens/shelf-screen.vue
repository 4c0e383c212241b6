<script setup lang="ts">
import { formatDistanceToNow } from 'date-fns';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import HelbMark from '../components/helb-mark.vue';
import { useSession } from '../stores/session.ts';
import { isZip, unpackedProject } from '../project-file.ts';
import { api, ApiError, type ProjectCard } from '../sync/api.ts';

const session = useSession();
const router = useRouter();
const cards = ref<ProjectCard[]>();
const message = ref('');
const removing = ref<string>();
const MOST_IMPORTED = 128 * 1024 * 1024;

async function tell<T>(work: Promise<T>): Promise<T | undefined> {
  message.value = '';
  return work.catch(async (error: unknown) => {
    if (error instanceof ApiError && error.facts['wants'] === 'codes')
      await router.push({ name: 'account', query: { first: 'codes' } });
    message.value = (error as Error).message;
    return undefined;
  });
}

const load = async () => (cards.value = await tell(api.projects()));
onMounted(load);

async function create(from: Parameters<typeof api.create>[0]) {
  const made = await tell(api.create(from));
  if (made) await router.push({ name: 'bench', params: { id: made.id } });
}

async function importFile(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  if (file.size > MOST_IMPORTED) return void (message.value = 'The file is larger than 128 MB.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (isZip(bytes)) return importZip(bytes);
  if (file.size > 8 * 1024 * 1024) return void (message.value = 'The file is larger than 8 MB.');
  try {
    await create({ document: JSON.parse(new TextDecoder().decode(bytes)) as unknown });
  } catch {
    message.value = `${file.name} is not a readable project file.`;
  }
}

/** A project with the files that it brings in. */
async function importZip(bytes: Uint8Array) {
  const read = await tell(unpackedProject(bytes));
  const made = read && (await tell(api.create({ document: read.document })));
  if (!read || !made) return;
  for (const [k, file] of read.files.entries()) {
    message.value = `Bringing in its files: ${k + 1} of ${read.files.length} …`;
    try {
      await api.keepFile(made.id, file);
    } catch (error) {
      message.value = `The project came in, but not all of its files: ${(error as Error).message}`;
      return void (await load());
    }
  }
  await router.push({ name: 'bench', params: { id: made.id } });
}

async function remove(id: string) {
  removing.value = undefined;
  await tell(api.remove(id));
  await load();
}

async function leave() {
  await tell(session.leave());
  await router.push({ name: 'enter' });
}

const when = (card: ProjectCard) => `changed ${formatDistanceToNow(new Date(card.changedAt), { addSuffix: true })}`;
const open = (card: ProjectCard) =>
  card.findings === null
    ? ''
    : card.findings === 0
      ? 'nothing open'
      : card.findings === 1
        ? '1 finding'
        : `${card.findings} findings`;
</script>

<template>
  <div class="bg-paper flex min-h-full flex-col">
    <header class="bg-sheet border-rule flex h-11 items-center gap-4 border-b px-4">
      <span class="flex items-center gap-2 text-lg font-semibold"><HelbMark />Helb</span>
      <span class="grow" />
      <RouterLink :to="{ name: 'account' }" class="word-link">{{ session.name }}</RouterLink>
      <button class="word-link" @click="leave">Sign out</button>
    </header>
    <main class="mx-auto w-full max-w-5xl grow p-8">
      <div class="mb-6 flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h1 class="text-xl font-semibold">Shelf</h1>
        <button class="word-link" @click="create({ name: 'New project' })">New project</button>
        <button class="word-link" @click="create({ demo: true })">Another copy of the demo</button>
        <label class="word-link focus-within:outline-link cursor-pointer focus-within:outline-2">
          Import a project file
          <input
            type="file"
            accept=".json,.zip,application/json,application/zip"
            class="sr-only"
            @change="importFile"
          />
        </label>
      </div>
      <p v-if="message" class="text-clash mb-4" role="alert">{{ message }}</p>
      <p v-if="cards?.length === 0" class="text-muted">
        Nothing here yet. Make a new project and draw its first outline, or look at the demo: the bearing bracket of a
        seed sieve.
      </p>
      <ul class="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-6">
        <li v-for="card in cards" :key="card.id" class="bg-sheet border-rule group border">
          <RouterLink :to="{ name: 'bench', params: { id: card.id } }" class="block">
            <span class="bg-paper border-rule grid h-36 place-items-center border-b">
              <img
                v-if="card.hasPicture"
                :src="`/api/projects/${card.id}/picture?r=${card.revision}`"
                alt=""
                class="h-full w-full object-contain"
              />
              <span v-else class="text-muted text-sm">no picture yet: open it once</span>
            </span>
            <span class="block px-3 pt-2 font-semibold">{{ card.name }}</span>
            <span class="text-muted block px-3 text-sm"
              >{{ when(card) }}<template v-if="open(card)"> · {{ open(card) }}</template></span
            >
          </RouterLink>
          <div class="px-3 pt-1 pb-2 text-sm">
            <template v-if="removing === card.id">
              Remove it for good?
              <button class="text-clash mx-1 hover:underline" @click="remove(card.id)">Remove</button>
              <button class="word-link" @click="removing = undefined">Keep</button>
            </template>
            <button v-else class="text-muted hover:text-ink hover:underline" @click="removing = card.id">
              remove…
            </button>
          </div>
        </li>
      </ul>
    </main>
  </div>
</template>
