<script setup lang="ts">
import { computed, nextTick, ref, shallowRef } from 'vue';
import { formatDistanceToNow } from 'date-fns';
import { PART_COLOURS, variantsOf, type Revision } from '@helb/core';
import { useBrought } from '../stores/brought.ts';
import ChoiceWord from './choice-word.vue';

/** Brings parts from other projects: first which project, then which of its parts. */
const brought = useBrought();
const isOpen = ref(false);
const busy = ref(false);
const filter = ref('');
const opened = shallowRef<Revision>();
/** In which of its variants; empty for the project itself. */
const variant = ref('');

const shown = computed(() =>
  brought.projects.filter(({ name }) => name.toLowerCase().includes(filter.value.trim().toLowerCase())),
);
const parts = computed(() => {
  const { partOrder = [], parts: records = {} } = opened.value?.document ?? {};
  return partOrder.map((id) => ({ id, ...records[id]! })).filter(({ stepOrder, from }) => from || stepOrder.length > 0);
});
const variants = computed(() =>
  Object.fromEntries(
    (opened.value ? variantsOf(opened.value.document) : []).map(({ id = '', name }) => [id, name] as const),
  ),
);

async function begin() {
  isOpen.value = true;
  filter.value = '';
  await brought.listProjects();
  await inSight();
}
/** The list stands at the end of a long one. */
const panel = ref<HTMLElement>();
async function inSight() {
  await nextTick();
  panel.value?.scrollIntoView({ block: 'nearest' });
}
async function choose(project: string) {
  busy.value = true;
  variant.value = '';
  opened.value = await brought.open(project);
  busy.value = false;
  await inSight();
}
async function bring(part: string) {
  busy.value = true;
  await brought.bring(opened.value!, part, variant.value || undefined);
  busy.value = false;
}
function close() {
  isOpen.value = false;
  opened.value = undefined;
}
const when = (date: string) => formatDistanceToNow(new Date(date), { addSuffix: true });
</script>

<template>
  <button v-if="!isOpen" class="word-link px-4 py-2" @click="begin">+ from another project</button>
  <section v-else ref="panel" class="bg-lit border-rule w-full border-y px-4 py-3" aria-label="From another project">
    <h2 class="heading mb-2 flex items-baseline justify-between gap-3">
      <span class="min-w-0 truncate">{{ opened ? opened.document.name : 'From another project' }}</span>
      <button class="word-link shrink-0 text-sm font-normal" @click="close">close</button>
    </h2>
    <p v-if="brought.message" class="text-clash mb-2 text-sm" role="alert">{{ brought.message }}</p>
    <template v-if="opened">
      <p class="text-muted mb-2 text-sm">
        As it is now, revision {{ opened.revision
        }}<template v-if="Object.keys(variants).length > 1"
          >,
          <ChoiceWord :value="variant" :options="variants" label="variant" @choose="(id) => (variant = id)" /></template
        >. <button class="word-link" @click="opened = undefined">another project</button>
      </p>
      <p v-if="parts.length === 0" class="text-muted">It has no part with a step yet.</p>
      <ul aria-label="Parts of that project">
        <li v-for="part in parts" :key="part.id" class="border-rule flex items-center gap-2 border-t py-1">
          <span class="size-3 shrink-0 rounded-full" :style="{ background: PART_COLOURS[part.colour] }" />
          <span class="min-w-0 grow truncate">{{ part.name }}</span>
          <button class="word-link text-sm" :disabled="busy" :aria-label="`Bring ${part.name}`" @click="bring(part.id)">
            bring
          </button>
        </li>
      </ul>
    </template>
    <template v-else>
      <input
        v-if="brought.projects.length > 8"
        v-model="filter"
        class="field mb-2"
        placeholder="find a project"
        aria-label="Find a project"
      />
      <p v-if="brought.projects.length === 0" class="text-muted">There is no other project on your shelf yet.</p>
      <ul aria-label="Projects on the shelf" class="max-h-72 overflow-y-auto">
        <li v-for="card in shown" :key="card.id" class="border-rule border-t">
          <button class="flex w-full items-baseline gap-2 py-1 text-left" :disabled="busy" @click="choose(card.id)">
            <span class="min-w-0 grow truncate">{{ card.name }}</span>
            <span class="text-muted shrink-0 text-sm">{{ when(card.changedAt) }}</span>
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>
