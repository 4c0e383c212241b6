<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  evaluateNode,
  explain,
  formatQuantity,
  LENGTH_UNITS,
  parse,
  usersOf,
  valueScope,
  type LengthUnit,
} from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';

const store = useProject();
const filter = ref('');
const name = ref('');
const expression = ref('');
const selected = ref<string>();

const rows = computed(() => {
  const { project } = store;
  if (!project) return [];
  const scope = valueScope(Object.values(project.values), project.unit);
  return project.valueOrder
    .map((id) => {
      const value = project.values[id]!;
      const result = scope.lookup(value.name);
      const users = usersOf(project, value.name);
      return {
        id,
        ...value,
        result: result.ok ? formatQuantity(result.value, project.unit, 4) : '',
        trouble: result.ok ? '' : explain(result.issue),
        users,
      };
    })
    .filter((row) =>
      `${row.name} ${row.expression} ${row.note ?? ''}`.toLowerCase().includes(filter.value.trim().toLowerCase()),
    );
});
const shown = computed(() => rows.value.find((row) => row.id === selected.value));

/** What the new expression comes to while it is typed. */
const trial = computed(() => {
  if (!store.project || expression.value.trim() === '') return '';
  const parsed = parse(expression.value);
  if (!parsed.ok) return explain(parsed.issue);
  const result = evaluateNode(parsed.value, valueScope(Object.values(store.project.values), store.project.unit));
  return result.ok ? `comes to ${formatQuantity(result.value, store.project.unit, 4)}` : explain(result.issue);
});

function add() {
  const id = newId('v');
  const result = store.act([{ command: 'value.add', input: { id, name: name.value, expression: expression.value } }]);
  if (!result.ok) return;
  name.value = expression.value = '';
  selected.value = id;
}

/** Changes one field when it is left or Enter is pressed; Esc puts the old text back. */
function change(event: Event, before: string, act: (text: string) => { ok: boolean }) {
  const input = event.target as HTMLInputElement;
  const text = input.value.trim();
  if (text === before) return;
  if (!act(text).ok) input.value = before;
}
const setName = (id: string) => (text: string) => store.act([{ command: 'value.rename', input: { id, name: text } }]);
const setExpression = (id: string) => (text: string) =>
  store.act([{ command: 'value.set', input: { id, expression: text } }]);
const setNote = (id: string) => (text: string) => store.act([{ command: 'value.note', input: { id, note: text } }]);
const leave = (event: KeyboardEvent, before: string) => {
  const input = event.target as HTMLInputElement;
  input.value = before;
  input.blur();
};
const enter = (event: Event) => (event.target as HTMLInputElement).blur();
const setUnit = (event: Event) =>
  store.act([{ command: 'project.unit', input: { unit: (event.target as HTMLSelectElement).value as LengthUnit } }]);
</script>

<template>
  <main class="flex min-h-0 grow">
    <section class="bg-paper min-w-0 grow overflow-auto p-5">
      <div class="mb-4 flex flex-wrap items-baseline gap-4">
        <h1 class="text-lg font-semibold">Values</h1>
        <span class="text-muted">{{ store.project?.valueOrder.length }} named</span>
        <label class="text-muted">
          lengths without a unit are
          <select
            class="bg-chip border-ink border-b font-mono text-[13px]"
            :value="store.project?.unit"
            @change="setUnit"
          >
            <option v-for="unit in LENGTH_UNITS" :key="unit">{{ unit }}</option>
          </select>
        </label>
        <input
          v-model="filter"
          class="border-muted ml-auto w-40 border-b bg-transparent"
          placeholder="filter"
          aria-label="Filter values"
        />
      </div>
      <p v-if="store.message" class="text-clash mb-3" role="alert">{{ store.message }}</p>
      <table class="w-full border-collapse">
        <thead>
          <tr class="text-muted border-ink border-b text-left text-sm">
            <th class="py-1 font-normal">name</th>
            <th class="font-normal">expression</th>
            <th class="pr-4 text-right font-normal">comes to</th>
            <th class="font-normal">note</th>
            <th class="font-normal">drives</th>
            <th><span class="sr-only">remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.id"
            class="border-rule border-b"
            :class="row.id === selected ? 'bg-lit' : ''"
            @focusin="selected = row.id"
            @click="selected = row.id"
          >
            <td class="py-1">
              <input
                class="hover:bg-chip w-40 bg-transparent px-1 font-semibold"
                :value="row.name"
                :aria-label="`Name of ${row.name}`"
                maxlength="40"
                @change="change($event, row.name, setName(row.id))"
                @keydown.enter="enter"
                @keydown.esc="leave($event, row.name)"
              />
            </td>
            <td>
              <input
                class="chip w-56"
                :value="row.expression"
                :aria-label="`Expression of ${row.name}`"
                maxlength="200"
                @change="change($event, row.expression, setExpression(row.id))"
                @keydown.enter="enter"
                @keydown.esc="leave($event, row.expression)"
              />
              <p v-if="row.trouble" class="text-clash text-sm">{{ row.trouble }}</p>
            </td>
            <td class="pr-4 text-right font-mono text-[13px] whitespace-nowrap">{{ row.result || '?' }}</td>
            <td>
              <input
                class="hover:bg-chip text-muted w-full bg-transparent px-1 text-sm"
                :value="row.note ?? ''"
                :aria-label="`Note on ${row.name}`"
                maxlength="200"
                @change="change($event, row.note ?? '', setNote(row.id))"
                @keydown.enter="enter"
                @keydown.esc="leave($event, row.note ?? '')"
              />
            </td>
            <td class="text-muted text-sm whitespace-nowrap">
              {{ row.users.length === 0 ? 'nothing' : row.users.length === 1 ? '1 size' : `${row.users.length} sizes` }}
            </td>
            <td class="text-right">
              <button
                class="text-muted hover:text-ink px-1 text-sm hover:underline"
                @click.stop="store.act([{ command: 'value.remove', input: { id: row.id } }])"
              >
                remove
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="rows.length === 0" class="text-muted py-3">
        {{
          filter
            ? 'No value is called that.'
            : 'No values yet. Ask: what could the customer want to change later? Name that.'
        }}
      </p>
      <form class="mt-4 flex flex-wrap items-baseline gap-2" @submit.prevent="add">
        <input
          v-model="name"
          class="field w-40!"
          placeholder="name"
          aria-label="Name of the new value"
          maxlength="40"
          required
        />
        <span>=</span>
        <input
          v-model="expression"
          class="field w-56! font-mono text-[13px]!"
          placeholder="5 mm"
          aria-label="Expression of the new value"
          maxlength="200"
          required
        />
        <button class="verb">Add value</button>
        <span class="text-muted text-sm">{{ trial }}</span>
      </form>
    </section>
    <aside class="bg-sheet border-rule w-[300px] shrink-0 overflow-y-auto border-l p-4">
      <template v-if="shown">
        <h2 class="heading mb-1">{{ shown.name }}</h2>
        <p v-if="shown.users.length === 0" class="text-muted">
          drives nothing yet. Use its name wherever a number is asked.
        </p>
        <template v-else>
          <p class="mb-2">drives</p>
          <ul>
            <li v-for="user in shown.users" :key="user.path.join('.')" class="border-rule border-l-2 py-0.5 pl-3">
              {{ user.label }} <code class="text-muted block font-mono text-[12px]">{{ user.text }}</code>
            </li>
          </ul>
        </template>
      </template>
      <p v-else class="text-muted">Choose a value to see what it drives.</p>
    </aside>
  </main>
</template>
