<script setup lang="ts">
import { computed, ref } from 'vue';
import { explain, type TableChange, type TableReading } from '@helb/core';
import { useProject } from '../stores/project.ts';

/** What a table from a spreadsheet says otherwise: each line is taken over or left. */
const { reading, file } = defineProps<{ reading: TableReading; file: string }>();
const emit = defineEmits<{ close: [] }>();

const store = useProject();
const possible = computed(() => reading.changes.filter(({ kind }) => kind !== 'wrong'));
const wrong = computed(() => reading.changes.filter(({ kind }) => kind === 'wrong'));
/** What was changed on both sides is taken over only where somebody says so. */
const taken = ref(new Set(possible.value.filter(({ kind }) => kind !== 'both')));

function toggle(change: TableChange) {
  const next = new Set(taken.value);
  if (!next.delete(change)) next.add(change);
  taken.value = next;
}
function take() {
  // a note on a value that is not taken has nothing to stand on
  const left = new Set(possible.value.filter((c) => c.kind === 'new' && !taken.value.has(c)).map(({ value }) => value));
  const chosen = possible.value.filter((change) => taken.value.has(change) && !left.has(change.value));
  if (store.act(chosen.flatMap(({ actions }) => actions)).ok) emit('close');
}
const KINDS = { new: 'new', changed: 'changed', both: 'changed here and there', wrong: '' } as const;
</script>

<template>
  <section class="bg-sheet border-ink mb-5 border p-4" data-testid="table-changes">
    <h2 class="heading mb-2">{{ file }}</h2>
    <p v-if="reading.changes.length === 0">Nothing in it is different.</p>
    <label
      v-for="change in possible"
      :key="`${change.value} ${change.of}`"
      class="border-rule flex items-baseline gap-3 border-t py-1"
    >
      <input type="checkbox" :checked="taken.has(change)" @change="toggle(change)" />
      <span class="w-56 shrink-0">
        <strong>{{ change.value }}</strong>
        <span v-if="change.of !== 'expression'" class="text-muted"> · {{ change.of }}</span>
      </span>
      <span class="text-sm" :class="change.kind === 'both' ? 'text-clash' : 'text-muted'">{{
        KINDS[change.kind]
      }}</span>
      <span class="ml-auto font-mono text-[13px]">{{ change.here || '–' }} → {{ change.there || '–' }}</span>
    </label>
    <p v-for="(change, k) in wrong" :key="k" class="text-clash border-rule border-t py-1 text-sm">
      {{ change.value || 'a line without a name' }}: {{ explain(change.issue!) }}
    </p>
    <p v-if="reading.absent.length > 0" class="text-muted mt-2 text-sm">
      Not in the file, kept as they are: {{ reading.absent.join(', ') }}.
    </p>
    <p v-if="reading.ignored.length > 0" class="text-muted text-sm">
      Columns that mean nothing here: {{ reading.ignored.join(', ') }}.
    </p>
    <p class="mt-3 flex items-baseline gap-4">
      <button v-if="possible.length > 0" class="verb-strong" :disabled="taken.size === 0" @click="take">
        Take over {{ taken.size }}
      </button>
      <button class="word-link" @click="emit('close')">{{ possible.length > 0 ? 'leave it' : 'close' }}</button>
    </p>
  </section>
</template>
