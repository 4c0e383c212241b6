<script setup lang="ts">
import { format, formatDistanceToNow } from 'date-fns';
import { computed, nextTick, ref } from 'vue';
import { isThrown } from '../shelf/shelved.ts';
import type { ProjectCard } from '../sync/api.ts';
import MoreMenu from './more-menu.vue';

/** A project on the shelf: opened by its picture, called otherwise and put elsewhere where it lies. */
const { card, folders } = defineProps<{
  card: ProjectCard;
  /** Those that there are. */
  folders: readonly string[];
  /** Is its folder told? */
  tellsFolder: boolean;
}>();
const emit = defineEmits<{
  rename: [name: string];
  put: [folder: string | null];
  copy: [];
  throwAway: [];
  takeBack: [];
  remove: [];
}>();

const asked = ref<'name' | 'folder' | 'removal'>();
const typed = ref('');
const field = ref<HTMLInputElement>();

async function ask(what: 'name' | 'folder') {
  typed.value = what === 'name' ? card.name : (card.folder ?? '');
  asked.value = what;
  await nextTick();
  field.value?.select();
}

function answer() {
  const [what, text] = [asked.value, typed.value.trim()];
  asked.value = undefined;
  if (what === 'name' && text && text !== card.name) emit('rename', text);
  if (what === 'folder' && text !== (card.folder ?? '')) emit('put', text || null);
}

const verbs = computed(() => [
  { title: 'Rename', run: () => void ask('name') },
  { title: 'Put into a folder', run: () => void ask('folder') },
  ...(card.folder === null ? [] : [{ title: `Take out of ${card.folder}`, run: () => emit('put', null) }]),
  { title: 'Duplicate', run: () => emit('copy') },
  { title: 'Throw away', run: () => emit('throwAway') },
]);

/** Nothing where it was never looked at. */
const open = computed(() => {
  if (card.findings === null) return '';
  return card.findings === 0 ? 'nothing open' : card.findings === 1 ? '1 finding' : `${card.findings} findings`;
});
</script>

<template>
  <li class="bg-sheet border-rule border" :aria-label="card.name">
    <component
      :is="isThrown(card) ? 'div' : 'RouterLink'"
      v-bind="isThrown(card) ? {} : { to: { name: 'bench', params: { id: card.id } } }"
      class="block"
      :aria-label="`Open ${card.name}`"
      :class="isThrown(card) ? 'opacity-60' : ''"
    >
      <span class="bg-paper border-rule grid h-36 place-items-center border-b">
        <img
          v-if="card.hasPicture"
          :src="`/api/projects/${card.id}/picture?r=${card.revision}`"
          alt=""
          class="h-full w-full object-contain"
        />
        <span v-else class="text-muted text-sm">no picture yet: open it once</span>
      </span>
    </component>
    <div class="px-3 pt-2 pb-2">
      <form v-if="asked === 'name' || asked === 'folder'" @submit.prevent="answer">
        <input
          ref="field"
          v-model="typed"
          class="field"
          maxlength="60"
          :aria-label="asked === 'name' ? 'Name of the project' : 'Folder'"
          :placeholder="asked === 'folder' ? 'a folder, new or there' : ''"
          :list="asked === 'folder' ? `folders-${card.id}` : undefined"
          @keydown.esc.stop="asked = undefined"
          @blur="answer"
        />
        <datalist v-if="asked === 'folder'" :id="`folders-${card.id}`">
          <option v-for="folder in folders" :key="folder" :value="folder" />
        </datalist>
      </form>
      <div v-else class="flex items-start gap-2">
        <RouterLink
          v-if="!isThrown(card)"
          :to="{ name: 'bench', params: { id: card.id } }"
          class="grow font-semibold wrap-anywhere"
          >{{ card.name }}</RouterLink
        >
        <span v-else class="grow font-semibold wrap-anywhere">{{ card.name }}</span>
        <MoreMenu v-if="!isThrown(card)" :of="card.name" :verbs="verbs" />
      </div>
      <template v-if="card.goesAt === null">
        <p class="text-muted text-sm">
          changed {{ formatDistanceToNow(new Date(card.changedAt), { addSuffix: true })
          }}<template v-if="open"> · {{ open }}</template>
        </p>
        <p v-if="tellsFolder && card.folder" class="text-muted text-sm">in {{ card.folder }}</p>
      </template>
      <template v-else>
        <p class="text-muted text-sm">kept until {{ format(new Date(card.goesAt), 'd MMMM') }}</p>
        <p v-if="asked === 'removal'" class="text-sm">
          Remove it for good?
          <button class="text-clash mx-1 hover:underline" @click="emit('remove')">Remove</button>
          <button class="word-link" @click="asked = undefined">Keep</button>
        </p>
        <p v-else class="flex gap-4 text-sm">
          <button class="word-link" @click="emit('takeBack')">Take it back</button>
          <button class="text-muted hover:text-ink hover:underline" @click="asked = 'removal'">remove for good…</button>
        </p>
      </template>
    </div>
  </li>
</template>
