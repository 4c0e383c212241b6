<script setup lang="ts">
import { ref, watch } from 'vue';
import { explain, type Dimension, type Issue } from '@helb/core';
import { readTyped } from '../editor/typed-number.ts';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';

/** Why a number can not be taken; a name that nobody knows yet gets its number there and then. */
const { issue, asks } = defineProps<{ issue: Issue; asks: Dimension }>();
/** What was missing has its number now: what was typed may be taken. */
const emit = defineEmits<{ named: []; left: [] }>();

const store = useProject();
const typed = ref('');
const wrong = ref('');
watch(
  () => issue,
  () => (typed.value = wrong.value = ''),
);

function name() {
  const read = readTyped(`${String(issue.facts['name'])} = ${typed.value}`, asks, store.kept!, newId);
  const done = read.ok ? store.act(read.value.naming) : read;
  wrong.value = done.ok ? '' : explain(done.issue);
  if (done.ok) emit('named');
}
</script>

<template>
  <div class="bg-lit border-clash text-clash border px-2 py-1 font-sans text-sm whitespace-normal">
    <p role="alert">{{ explain(issue) }}</p>
    <label v-if="issue.code === 'value.unknown'" class="text-ink mt-1 block">
      {{ issue.facts['name'] }} =
      <input
        v-model="typed"
        class="chip bg-lit w-24 border px-1 outline-none"
        :aria-label="`value of ${issue.facts['name']}`"
        maxlength="240"
        @keydown.enter.stop.prevent="name"
        @keydown.esc.stop="emit('left')"
      />
      <span class="text-muted ml-1">Enter</span>
    </label>
    <p v-if="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>
