<script setup lang="ts">
import { format } from 'date-fns';
import { computed, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { LENGTH_UNITS, PART_COLOURS, variantsOf, type LengthUnit } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useSession } from '../stores/session.ts';
import { keysShown } from '../verbs/here.ts';
import ChoiceWord from './choice-word.vue';
import HelbMark from './helb-mark.vue';

const store = useProject();
const bench = useWorkbench();
const model = useModel();
const session = useSession();
const route = useRoute();
const router = useRouter();
const renaming = ref(false);
const name = ref('');

const screens = [
  { name: 'bench', title: 'Bench' },
  { name: 'values', title: 'Values' },
  { name: 'motion', title: 'Motion' },
  { name: 'sheets', title: 'Sheets' },
  { name: 'checks', title: 'Checks' },
  { name: 'output', title: 'Output' },
];

/** What is kept, in words. */
const saved = computed(() => {
  const state = store.view?.state;
  switch (state?.kind) {
    case 'kept':
      return `All kept · ${format(state.at, 'HH:mm')}`;
    case 'keeping':
      return 'Keeping…';
    case 'offline':
      // what matters most first: a narrow window cuts the rest off
      return `${state.safe ? 'Your work is safe on this computer, not kept yet.' : 'Please leave this page open: not kept yet.'} ${state.why}`;
    case 'signed-out':
      return 'Not kept yet: please sign in again.';
    default:
      return '';
  }
});
/** The variants by their ids, the project itself without one; undefined where there are none. */
const variants = computed(() => {
  const all = store.kept ? variantsOf(store.kept) : [];
  return all.length > 1 ? Object.fromEntries(all.map(({ id = '', name }) => [id, name])) : undefined;
});
const undo = computed(() => store.view?.stacks.undo.at(-1)?.label);
const redo = computed(() => store.view?.stacks.redo.at(-1)?.label);

function rename() {
  renaming.value = false;
  const next = name.value.trim();
  if (next && next !== store.kept?.name) store.act([{ command: 'project.rename', input: { name: next } }]);
}

const namingPart = ref(false);
function renamePart() {
  if (!namingPart.value) return;
  namingPart.value = false;
  const next = name.value.trim();
  if (next && next !== bench.part?.name)
    store.act([{ command: 'part.rename', input: { id: bench.partId!, name: next } }]);
}

async function leave() {
  await session.leave();
  await router.push({ name: 'enter' });
}

const UNITS = Object.fromEntries(LENGTH_UNITS.map((unit) => [unit, unit === 'in' ? 'inches' : unit]));

const vFocus = { mounted: (element: HTMLInputElement) => element.select() };
</script>

<template>
  <header class="bg-sheet border-rule flex h-11 shrink-0 items-center gap-3 border-b px-4 whitespace-nowrap">
    <RouterLink to="/" class="flex items-center gap-2 text-[17px] font-semibold" title="To the shelf"
      ><HelbMark />Helb</RouterLink
    >
    <input
      v-if="renaming"
      v-model="name"
      v-focus
      class="field w-48!"
      aria-label="Project name"
      @keydown.enter="rename"
      @keydown.esc="renaming = false"
      @blur="rename"
    />
    <button
      v-else
      class="text-muted max-w-48 truncate hover:underline"
      title="Rename the project"
      @click="((name = store.kept?.name ?? ''), (renaming = true))"
    >
      {{ store.kept?.name }}
    </button>
    <span
      v-if="store.kept"
      class="text-muted text-sm"
      title="Lengths without a unit are in it; what is measured of sketches, parts and the whole is told in it"
    >
      in
      <ChoiceWord
        :value="store.kept.unit"
        :options="UNITS"
        label="unit of lengths"
        @choose="(unit) => store.act([{ command: 'project.unit', input: { unit: unit as LengthUnit } }])"
      />
    </span>
    <span v-if="variants" class="text-muted text-sm">
      as
      <ChoiceWord
        :value="store.variant ?? ''"
        :options="variants"
        label="variant"
        @choose="(id) => store.showVariant(id || undefined)"
      />
    </span>
    <template v-if="route.name === 'motion' || bench.isWhole">
      <span class="text-rule text-xl">/</span>
      <h1 class="truncate text-[17px] font-semibold" data-testid="part-name">All parts</h1>
    </template>
    <template v-else-if="bench.part && route.name === 'bench'">
      <span class="text-rule text-xl">/</span>
      <span class="size-4 shrink-0 rounded-full" :style="{ background: PART_COLOURS[bench.part.colour] }" />
      <input
        v-if="namingPart"
        v-model="name"
        v-focus
        class="field w-48!"
        aria-label="Part name"
        maxlength="60"
        @keydown.enter="renamePart"
        @keydown.esc.stop="namingPart = false"
        @blur="renamePart"
      />
      <h1 v-else class="truncate text-[17px] font-semibold" data-testid="part-name">
        <button
          class="hover:underline"
          title="Rename the part"
          @click="((name = bench.part.name), (namingPart = true))"
        >
          {{ bench.part.name }}
        </button>
      </h1>
    </template>
    <span class="grow" />
    <span
      class="truncate text-sm"
      :class="store.view?.state.kind === 'kept' || store.view?.state.kind === 'keeping' ? 'text-muted' : 'text-clash'"
      role="status"
      :title="saved"
      data-testid="saved"
      >{{ saved }}
      <RouterLink
        v-if="store.view?.state.kind === 'signed-out'"
        class="word-link"
        :to="{ name: 'enter', query: { to: route.fullPath } }"
        >Sign in</RouterLink
      >
    </span>
    <button
      class="hover:bg-chip px-1.5 text-sm"
      :disabled="!undo"
      :title="undo ? `Undo: ${undo} (Ctrl+Z)` : 'Nothing to undo'"
      @click="store.undo()"
    >
      Undo
    </button>
    <button
      class="hover:bg-chip px-1.5 text-sm"
      :disabled="!redo"
      :title="redo ? `Redo: ${redo} (Ctrl+Shift+Z)` : 'Nothing to redo'"
      @click="store.redo()"
    >
      Redo
    </button>
    <nav class="flex h-full items-center gap-4 pl-2" aria-label="Screens">
      <RouterLink
        v-for="screen in screens"
        :key="screen.name"
        :to="{ name: screen.name, params: route.params }"
        class="flex h-full items-center border-b-2 pt-0.5"
        :class="
          route.name === screen.name ? 'border-act font-semibold' : 'text-muted hover:text-ink border-transparent'
        "
        >{{ screen.title }}</RouterLink
      >
    </nav>
    <button
      class="text-muted hover:text-ink font-mono text-sm"
      title="Keys of this place, and help (?)"
      aria-label="Keys and help"
      @click="keysShown = true"
    >
      ?
    </button>
    <button
      class="text-muted hover:text-ink max-w-24 truncate text-sm"
      :title="`Sign ${session.name} out`"
      @click="leave"
    >
      {{ session.name }} ×
    </button>
    <span v-if="model.busy" class="sr-only" role="status">building</span>
  </header>
</template>
