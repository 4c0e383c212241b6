<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import {
  evaluateNode,
  explain,
  formatQuantity,
  LENGTH_UNITS,
  parse,
  readValueTable,
  valueScope,
  writeValueTable,
  type LengthUnit,
  type TableReading,
} from '@helb/core';
import NumberTable from '../components/number-table.vue';
import TableChanges from '../components/table-changes.vue';
import ValueDesk from '../components/value-desk.vue';
import ValueTable from '../components/value-table.vue';
import { download, fileName } from '../download.ts';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';
import { useValues } from '../stores/values.ts';

/** All numbers of the project: the named ones with their variants, and those without a name. */
const store = useProject();
const values = useValues();
const name = ref('');
const expression = ref('');
const incoming = shallowRef<{ readonly file: string; readonly reading: TableReading }>();

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
  values.selected = id;
}

const setUnit = (event: Event) =>
  store.act([{ command: 'project.unit', input: { unit: (event.target as HTMLSelectElement).value as LengthUnit } }]);

const toTable = () => download(`${fileName(store.kept!.name)}-values.csv`, writeValueTable(store.kept!), 'text/csv');
async function fromTable(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  const reading = readValueTable(await file.text(), store.kept!, () => newId('v'));
  store.message = reading.ok ? '' : `${file.name}: ${explain(reading.issue)}`;
  incoming.value = reading.ok ? { file: file.name, reading: reading.value } : undefined;
}
</script>

<template>
  <main class="flex room">
    <section class="bg-paper min-w-0 grow overflow-auto p-5">
      <div class="mb-4 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 class="text-lg font-semibold">Values</h1>
        <span class="text-muted">{{ values.rows.length }} named, {{ values.numbers.length }} without a name</span>
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
          v-model="values.filter"
          class="border-muted ml-auto w-32 border-b bg-transparent"
          placeholder="filter"
          aria-label="Filter values"
        />
        <button class="word-link" @click="toTable">to CSV</button>
        <label class="word-link cursor-pointer has-focus-visible:outline-2">
          from CSV
          <input type="file" class="sr-only" accept=".csv,text/csv" aria-label="Values from CSV" @change="fromTable" />
        </label>
      </div>
      <p v-if="store.message" class="text-clash mb-3" role="alert">{{ store.message }}</p>
      <TableChanges
        v-if="incoming"
        :key="incoming.file"
        :reading="incoming.reading"
        :file="incoming.file"
        @close="incoming = undefined"
      />
      <ValueTable v-if="values.rows.length > 0" />
      <p v-if="values.groups.length === 0" class="text-muted py-3">
        {{
          values.filter
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
      <NumberTable />
    </section>
    <aside class="bg-sheet border-rule w-[300px] shrink-0 overflow-y-auto border-l" aria-label="Desk">
      <ValueDesk />
    </aside>
  </main>
</template>
