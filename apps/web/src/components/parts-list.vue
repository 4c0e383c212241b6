<script setup lang="ts">
import { ref } from 'vue';
import { PART_COLOURS, type Id } from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useBench } from '../stores/bench.ts';
import { useProject } from '../stores/project.ts';

const store = useProject();
const bench = useBench();
const renaming = ref<Id>();
const name = ref('');

function add() {
  const id = newId('part');
  const result = store.act([{ command: 'part.add', input: { id, name: `Part ${store.kept!.partOrder.length + 1}` } }]);
  if (result.ok) bench.show(id);
}

function rename(id: Id) {
  if (renaming.value !== id) return;
  renaming.value = undefined;
  const next = name.value.trim();
  if (next && next !== store.kept?.parts[id]?.name) store.act([{ command: 'part.rename', input: { id, name: next } }]);
}

const vFocus = { mounted: (element: HTMLInputElement) => element.select() };
</script>

<template>
  <div class="grow overflow-y-auto">
    <ul aria-label="Parts of the project">
      <li
        v-for="id in store.project?.partOrder"
        :key="id"
        class="border-rule relative flex items-center gap-2 border-b px-4 py-2"
        :class="id === bench.partId ? 'bg-lit' : ''"
      >
        <span v-if="id === bench.partId" class="bg-act absolute inset-y-0 left-0 w-[3px]" />
        <span
          class="size-3 shrink-0 rounded-full"
          :style="{ background: PART_COLOURS[store.project!.parts[id]!.colour] }"
        />
        <input
          v-if="renaming === id"
          v-model="name"
          v-focus
          class="field"
          aria-label="Name of the part"
          maxlength="60"
          @keydown.enter="rename(id)"
          @keydown.esc="renaming = undefined"
          @blur="rename(id)"
        />
        <button
          v-else
          class="grow truncate text-left"
          :class="id === bench.partId ? 'font-semibold' : ''"
          @click="bench.show(id)"
        >
          {{ store.project!.parts[id]!.name }}
        </button>
        <button class="word-link text-sm" @click="((name = store.project!.parts[id]!.name), (renaming = id))">
          rename
        </button>
        <button
          v-if="store.project!.partOrder.length > 1"
          class="word-link text-sm"
          @click="store.act([{ command: 'part.remove', input: { id } }])"
        >
          remove
        </button>
      </li>
    </ul>
    <button class="word-link px-4 py-3" @click="add">+ new part</button>
  </div>
</template>
