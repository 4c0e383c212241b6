<script setup lang="ts">
import { ref } from 'vue';
import { allowedWords, valueScope, withUnitOf } from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';
import { useValues, type Column, type ValueRow } from '../stores/values.ts';
import { useWeights } from '../stores/weights.ts';
import TypedField from './typed-field.vue';

/** The named values, group by group, with a column for each variant. */
const store = useProject();
const values = useValues();
const weights = useWeights();
const naming = ref('');

const setName =
  ({ id }: ValueRow) =>
  (name: string) =>
    store.act([{ command: 'value.rename', input: { id, name } }]);

/** Of a variant nothing means: as in the project itself. */
const setExpression =
  ({ id: value, expression: before }: ValueRow, { id }: Column) =>
  (typed: string) => {
    const { project } = store;
    const text = project ? withUnitOf(typed, before, valueScope(Object.values(project.values), project.unit)) : typed;
    return store.act([
      id === undefined
        ? { command: 'value.set', input: { id: value, expression: text } }
        : { command: 'variant.set', input: { id, value, ...(text ? { expression: text } : {}) } },
    ]);
  };

const rename =
  ({ id }: Column) =>
  (name: string) =>
    store.act([{ command: 'variant.rename', input: { ...(id === undefined ? {} : { id }), name } }]);

function addVariant() {
  const name = naming.value.trim();
  if (name === '') return;
  const id = newId('x');
  const like = store.variant === undefined ? {} : { like: store.variant };
  if (store.act([{ command: 'variant.add', input: { id, name, ...like } }]).ok) naming.value = '';
}

const isShown = ({ id }: Column) => id === store.variant;
const cell = (column: Column) => (isShown(column) ? 'bg-lit border-act border-x-2' : '');
const drives = ({ users }: ValueRow) =>
  users.length === 0 ? 'nothing' : users.length === 1 ? '1 size' : `${users.length} sizes`;
</script>

<template>
  <div class="overflow-x-auto">
    <table class="w-full border-collapse">
      <thead>
        <tr class="text-muted border-ink border-b text-left align-bottom text-sm">
          <th class="py-1 font-normal">name</th>
          <th v-for="column in values.columns" :key="column.id ?? ''" class="px-2 font-normal" :class="cell(column)">
            <span class="flex items-baseline gap-2">
              <TypedField
                class="hover:bg-chip text-ink w-24 bg-transparent font-semibold"
                :value="column.name"
                :label="`Name of the variant ${column.name}`"
                :most="60"
                :change="rename(column)"
              />
              <span v-if="isShown(column)">shown</span>
              <button
                v-else
                class="word-link"
                :aria-label="`Show ${column.name}`"
                @click="store.showVariant(column.id)"
              >
                show
              </button>
            </span>
          </th>
          <th class="pr-3 text-right font-normal">comes to</th>
          <th class="pr-3 font-normal">may be</th>
          <th class="font-normal">drives</th>
        </tr>
      </thead>
      <tbody v-for="group in values.groups" :key="group.name">
        <tr v-if="group.name" class="border-rule border-b">
          <th class="heading pt-4 pb-1 text-left" :colspan="values.columns.length + 4">{{ group.name }}</th>
        </tr>
        <tr
          v-for="row in group.rows"
          :key="row.id"
          class="border-rule border-b align-baseline"
          :class="row.id === values.selected ? 'bg-lit' : ''"
          :data-testid="`value-${row.name}`"
          @focusin="values.selected = row.id"
          @click="values.selected = row.id"
        >
          <td class="py-1">
            <TypedField
              class="hover:bg-chip w-36 bg-transparent px-1 font-semibold"
              :value="row.name"
              :label="`Name of ${row.name}`"
              :most="40"
              :change="setName(row)"
            />
          </td>
          <td v-for="(column, k) in values.columns" :key="column.id ?? ''" class="px-2" :class="cell(column)">
            <TypedField
              class="w-full min-w-24 text-right font-mono text-[13px]"
              :class="isShown(column) ? 'chip' : 'hover:bg-chip bg-transparent px-1'"
              :value="values.expressionIn(row, column)"
              :placeholder="row.expression"
              :label="
                column.id === undefined ? `Expression of ${row.name}` : `Expression of ${row.name} in ${column.name}`
              "
              :title="values.comesTo(row, k)"
              :change="setExpression(row, column)"
            />
          </td>
          <td class="pr-3 text-right font-mono text-[13px] whitespace-nowrap">{{ row.result || '?' }}</td>
          <td class="pr-3 text-sm">
            <span v-if="row.trouble" class="text-clash">{{ row.trouble }}</span>
            <span v-else class="text-muted">{{ row.allowed ? allowedWords(row.allowed) : '' }}</span>
          </td>
          <td class="text-muted text-sm whitespace-nowrap">{{ drives(row) }}</td>
        </tr>
      </tbody>
      <tfoot v-if="values.columns.length > 1">
        <tr v-for="line in weights.lines" :key="line.title" class="border-rule border-b align-baseline text-sm">
          <td class="text-muted py-1.5 pl-1">{{ line.title }}</td>
          <td
            v-for="(text, k) in line.texts"
            :key="k"
            class="px-2 text-right font-mono text-[13px]"
            :class="[cell(values.columns[k]!), line.stale[k] ? 'text-muted' : '']"
            :title="line.stale[k] ? 'before the last changes' : ''"
          >
            {{ text }}{{ text && line.stale[k] ? ' *' : '' }}
          </td>
          <td class="text-muted text-[12px]" colspan="3">
            {{ line.stale.includes(true) ? '* before the last changes' : '' }}
          </td>
        </tr>
      </tfoot>
    </table>
    <p class="mt-3 flex flex-wrap items-baseline gap-x-6 gap-y-2">
      <span class="flex items-baseline gap-2">
        <input
          v-model="naming"
          class="border-muted w-32 border-b bg-transparent text-sm"
          placeholder="new variant"
          aria-label="Name of the new variant"
          maxlength="60"
          @keydown.enter="addVariant"
        />
        <button class="word-link text-sm" :disabled="naming.trim() === ''" @click="addVariant">
          add it, like {{ values.columns.find(isShown)?.name }}
        </button>
      </span>
      <button
        v-if="store.variant !== undefined"
        class="word-link text-sm"
        @click="store.act([{ command: 'variant.remove', input: { id: store.variant } }])"
      >
        remove the variant {{ values.columns.find(isShown)?.name }}
      </button>
      <button
        v-if="values.columns.length > 1"
        class="word-link text-sm"
        :disabled="weights.busy !== undefined"
        @click="weights.weigh()"
      >
        {{ weights.busy === undefined ? 'weigh and measure all variants' : `building ${weights.busy} …` }}
      </button>
    </p>
  </div>
</template>
