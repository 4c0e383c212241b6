<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter, type LocationQuery } from 'vue-router';
import ChoiceWord from '../components/choice-word.vue';
import HelbMark from '../components/helb-mark.vue';
import ProjectCardOf from '../components/project-card.vue';
import ShelfBeginning from '../components/shelf-beginning.vue';
import { bringIn } from '../shelf/bring-in.ts';
import { foldersOf, isThrown, ORDERS, shelved, type OrderName, type Pile } from '../shelf/shelved.ts';
import { useSession } from '../stores/session.ts';
import { api, ApiError, type ProjectCard } from '../sync/api.ts';

const session = useSession();
const route = useRoute();
const router = useRouter();
const cards = ref<ProjectCard[]>();
const message = ref('');
/** What was just thrown away: one click takes it back. */
const thrown = ref<ProjectCard>();
/** With fewer there is room to say how one begins. */
const FEW = 4;

// where one looks stands in the address: it is there again after a reload, and on the way back
const asked = (name: string): string => {
  const value = route.query[name];
  return typeof value === 'string' ? value : '';
};
const words = ref('');
const order = computed<OrderName>(() => {
  const named = asked('order');
  return named in ORDERS ? (named as OrderName) : 'latest';
});
const pile = computed<Pile>(() => {
  if (asked('pile') === 'thrown' && cards.value?.some(isThrown)) return { kind: 'thrown' };
  const name = asked('folder');
  return folders.value.some((folder) => folder.name === name) ? { kind: 'folder', name } : { kind: 'all' };
});

const folders = computed(() => foldersOf(cards.value ?? []));
const shown = computed(() => shelved(cards.value ?? [], pile.value, words.value, order.value));
const kept = computed(() => (cards.value ?? []).filter((card) => !isThrown(card)).length);
interface PileWord {
  readonly title: string;
  readonly count: number;
  readonly pile: Pile;
  /** What stands in the address. */
  readonly to: LocationQuery;
}
const piles = computed((): PileWord[] => {
  const away = (cards.value?.length ?? 0) - kept.value;
  return [
    { title: 'All', count: kept.value, pile: { kind: 'all' }, to: {} },
    ...folders.value.map(({ name, count }): PileWord => ({
      title: name,
      count,
      pile: { kind: 'folder', name },
      to: { folder: name },
    })),
    ...(away > 0
      ? [{ title: 'Thrown away', count: away, pile: { kind: 'thrown' } as const, to: { pile: 'thrown' } }]
      : []),
  ];
});
const here = computed(() => piles.value.find((one) => isLookedAt(one.pile)) ?? piles.value[0]!);
/** With one project there is nothing to find. */
const hasPiles = computed(() => (cards.value?.length ?? 0) > 1 || (cards.value ?? []).some(isThrown));
/** The address of a pile, in an order. */
const addressOf = (to: LocationQuery, by: OrderName) => ({ query: { ...to, ...(by !== 'latest' && { order: by }) } });
const isLookedAt = (other: Pile) => JSON.stringify(other) === JSON.stringify(pile.value);
const orders = Object.fromEntries(Object.entries(ORDERS).map(([name, { title }]) => [name, title]));

async function report(error: unknown): Promise<undefined> {
  if (error instanceof ApiError && error.facts['wants'] === 'codes')
    await router.push({ name: 'account', query: { first: 'codes' } });
  message.value = (error as Error).message;
}
/** Does something anew: what was told before is told no more. */
function tell<T>(work: Promise<T>): Promise<T | undefined> {
  message.value = '';
  thrown.value = undefined;
  return work.catch(report);
}

/** What was told of the work before it stays. */
const load = async () => void (cards.value = (await api.projects().catch(report)) ?? cards.value);
onMounted(load);

async function create(from: Parameters<typeof api.create>[0], query: LocationQuery = {}) {
  const made = await tell(api.create(from));
  if (made) await router.push({ name: 'bench', params: { id: made.id }, query });
}

async function importFile(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  const id = await tell(bringIn(file, (text) => (message.value = text)));
  if (id === undefined) return void (await load());
  await router.push({ name: 'bench', params: { id } });
}

/** Does something with a project, and looks what has become of the shelf. */
async function change(work: Promise<unknown>): Promise<boolean> {
  const done = await tell(work.then(() => true));
  await load();
  return done ?? false;
}
async function throwAway(card: ProjectCard) {
  if (await change(api.throwAway(card.id))) thrown.value = card;
}

async function leave() {
  await tell(session.leave());
  await router.push({ name: 'enter' });
}
</script>

<template>
  <div class="bg-paper flex min-h-full flex-col">
    <header class="bg-sheet border-rule flex h-11 items-center gap-4 border-b px-4">
      <span class="flex items-center gap-2 text-lg font-semibold"><HelbMark />Helb</span>
      <span class="grow" />
      <RouterLink :to="{ name: 'help' }" class="word-link">Help</RouterLink>
      <RouterLink :to="{ name: 'account' }" class="word-link">{{ session.name }}</RouterLink>
      <button class="word-link" @click="leave">Sign out</button>
    </header>
    <main class="mx-auto w-full max-w-6xl grow p-8">
      <div class="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
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
        <span class="grow" />
        <input
          v-if="hasPiles"
          v-model="words"
          type="search"
          class="field max-w-64"
          placeholder="find by name or folder"
          aria-label="Find a project"
          maxlength="60"
        />
      </div>
      <nav
        v-if="hasPiles"
        class="border-rule mb-6 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b pb-2"
        aria-label="Folders"
      >
        <RouterLink
          v-for="one in piles"
          :key="`${one.pile.kind} ${one.title}`"
          :to="addressOf(one.to, order)"
          replace
          :aria-current="isLookedAt(one.pile) ? 'true' : undefined"
          :class="isLookedAt(one.pile) ? 'font-semibold' : 'text-link hover:underline'"
          @click="words = ''"
          >{{ one.title }} <span class="text-muted text-sm font-normal">{{ one.count }}</span></RouterLink
        >
        <span class="grow" />
        <ChoiceWord
          class="text-muted text-sm"
          label="order"
          :value="order"
          :options="orders"
          @choose="(next) => router.replace(addressOf(here.to, next as OrderName))"
        />
      </nav>
      <p v-if="message" class="text-clash mb-4" role="alert">{{ message }}</p>
      <p v-if="thrown" class="mb-4" role="status">
        “{{ thrown.name }}” was thrown away; it is kept for 30 days.
        <button class="word-link ml-2" @click="change(api.takeBack(thrown.id))">Take it back</button>
      </p>
      <p v-if="cards && shown.length === 0 && words.trim()" class="text-muted mb-6">
        Nothing here is called “{{ words.trim() }}”.
        <button class="word-link ml-1" @click="words = ''">Show all</button>
      </p>
      <ul v-if="shown.length > 0" class="mb-8 grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-6">
        <ProjectCardOf
          v-for="card in shown"
          :key="card.id"
          :card="card"
          :folders="folders.map(({ name }) => name)"
          :tells-folder="pile.kind !== 'folder'"
          @rename="(name) => change(api.change(card.id, { name }))"
          @put="(folder) => change(api.change(card.id, { folder }))"
          @copy="change(api.copy(card.id))"
          @throw-away="throwAway(card)"
          @take-back="change(api.takeBack(card.id))"
          @remove="change(api.remove(card.id))"
        />
      </ul>
      <template v-if="cards && kept < FEW && pile.kind === 'all' && !words.trim()">
        <h2 class="heading mb-3">{{ kept === 0 ? 'Begin' : 'Begin something else' }}</h2>
        <ShelfBeginning
          @draw="create({ name: 'New project' })"
          @demo="create({ demo: true })"
          @tasks="create({ demo: true }, { tasks: 'begin' })"
        />
      </template>
    </main>
  </div>
</template>
