<script setup lang="ts">
import { computed, ref } from 'vue';
import type { PlacedExpression, Value } from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';
import { replacing, useValues } from '../stores/values.ts';
import TypedField from './typed-field.vue';
import ValueGraph from './value-graph.vue';

/** What is chosen on the Values screen: a value with all that is said of it, or a number that has no name yet. */
const store = useProject();
const values = useValues();
const row = computed(() => values.selectedRow);
const number = computed(() => values.selectedNumber);
const naming = ref('');
/** Where it is used without the name of the part: the list below tells that. */
const shortly = ({ label }: PlacedExpression) => label.split(' · ').slice(-2).join(' · ');

const groups = computed(() => [...new Set(values.rows.flatMap(({ group }) => group ?? []))]);
const place = computed(() => store.kept!.valueOrder.indexOf(row.value!.id));
const move = (by: number) =>
  store.act([{ command: 'value.move', input: { id: row.value!.id, to: Math.max(0, place.value + by) } }]);
const setNote = (note: string) => store.act([{ command: 'value.note', input: { id: row.value!.id, note } }]);
const setGroup = (group: string) =>
  store.act([{ command: 'value.group', input: { id: row.value!.id, ...(group ? { group } : {}) } }]);
const remove = () => store.act([{ command: 'value.remove', input: { id: row.value!.id } }]);

const range = computed((): { readonly least: string; readonly most: string } => {
  const { allowed = {} } = row.value!;
  return 'list' in allowed ? { least: '', most: '' } : { least: allowed.least ?? '', most: allowed.most ?? '' };
});
const list = computed(() =>
  row.value!.allowed && 'list' in row.value!.allowed ? row.value!.allowed.list.join('; ') : '',
);

const allow = (allowed: Value['allowed']) =>
  store.act([{ command: 'value.allow', input: { id: row.value!.id, ...(allowed ? { allowed } : {}) } }]);
const setRange = (least: string, most: string) =>
  allow(least || most ? { ...(least ? { least } : {}), ...(most ? { most } : {}) } : undefined);
function setList(text: string) {
  const entries = text.split(';').flatMap((entry) => entry.trim() || []);
  return allow(entries.length > 0 ? { list: entries } : undefined);
}

/** Gives a number its name: the value is made and used there, in one gesture. */
function give() {
  const { text } = number.value!;
  const name = naming.value.trim();
  const id = newId('v');
  const done = store.act([
    { command: 'value.add', input: { id, name, expression: text } },
    ...replacing(number.value!)(name),
  ]);
  if (!done.ok) return;
  naming.value = '';
  values.selected = id;
}
</script>

<template>
  <section v-if="row" :key="row.id" class="border-rule border-b p-4" data-testid="value-desk">
    <h2 class="heading mb-2">{{ row.name }}</h2>
    <p class="mb-2">{{ row.users.length === 0 ? 'drives nothing yet' : `drives ${row.users.length} sizes` }}</p>
    <ValueGraph :name="row.name" :reads="row.reads" :drives="row.users.map(shortly)" />
    <label class="border-rule mt-3 flex items-baseline justify-between gap-3 border-t py-1.5">
      <span class="text-muted shrink-0">Note</span>
      <TypedField class="field w-44!" :value="row.note ?? ''" :label="`Note on ${row.name}`" :change="setNote" />
    </label>
    <label class="border-rule flex items-baseline justify-between gap-3 border-t py-1.5">
      <span class="text-muted shrink-0">Group</span>
      <TypedField
        class="field w-44!"
        list="value-groups"
        :value="row.group ?? ''"
        :label="`Group of ${row.name}`"
        :most="60"
        :change="setGroup"
      />
      <datalist id="value-groups"><option v-for="group in groups" :key="group" :value="group" /></datalist>
    </label>
    <p class="border-rule flex items-baseline justify-between gap-2 border-t py-1.5">
      <span class="text-muted grow">May be</span>
      <TypedField
        class="field w-20! font-mono text-[13px]!"
        :value="range.least"
        :label="`Least ${row.name}`"
        :change="(text) => setRange(text, range.most)"
      />
      <span class="text-muted">to</span>
      <TypedField
        class="field w-20! font-mono text-[13px]!"
        :value="range.most"
        :label="`Most ${row.name}`"
        :change="(text) => setRange(range.least, text)"
      />
    </p>
    <label class="flex items-baseline justify-between gap-2 pb-1.5">
      <span class="text-muted shrink-0">or one of</span>
      <TypedField
        class="field w-44! font-mono text-[13px]!"
        placeholder="6 mm; 8 mm"
        :value="list"
        :label="`Allowed for ${row.name}`"
        :most="2000"
        :change="setList"
      />
    </label>
    <p class="border-rule flex gap-4 border-t py-1.5 text-sm">
      <button class="word-link" :disabled="place === 0" @click="move(-1)">move up</button>
      <button class="word-link" :disabled="place === store.kept!.valueOrder.length - 1" @click="move(1)">
        move down
      </button>
      <button class="word-link ml-auto" @click="remove">remove</button>
    </p>
    <ul v-if="row.users.length > 0">
      <li v-for="user in row.users" :key="user.path.join('.')" class="border-rule border-t py-1">
        <span class="flex items-baseline justify-between gap-2">
          {{ user.label }}
          <button v-if="user.step" class="word-link shrink-0 text-sm" @click="values.show(user)">show me</button>
        </span>
        <code class="text-muted block font-mono text-[12px]">{{ user.text }}</code>
      </li>
    </ul>
    <p v-else class="text-muted text-sm">Use its name wherever a number is asked.</p>
  </section>
  <section v-else-if="number" :key="number.key" class="border-rule border-b p-4" data-testid="value-desk">
    <h2 class="heading mb-1">{{ number.label }}</h2>
    <p class="mb-3 font-mono text-[13px]">{{ number.text }}</p>
    <p class="mb-1">Could the customer ask to change it? Name it:</p>
    <form class="flex items-baseline gap-2" @submit.prevent="give">
      <input v-model="naming" class="field" aria-label="Name for this number" maxlength="40" required />
      <button class="verb">Name it</button>
    </form>
    <p v-if="number.step" class="mt-3">
      <button class="word-link" @click="values.show(number)">show me on the bench</button>
    </p>
  </section>
  <p v-else class="text-muted p-4">Choose a value to see what it depends on and what it drives.</p>
</template>
