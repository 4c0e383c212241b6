<script setup lang="ts">
import { useProject } from '../stores/project.ts';
import { useValues, type NumberRow } from '../stores/values.ts';
import TypedField from './typed-field.vue';

/** All numbers that have no name: sizes of sketches, numbers of steps. */
const store = useProject();
const values = useValues();

function set({ path }: NumberRow, expression: string, refused: () => void) {
  const done = store.act([{ command: 'expression.set', input: { path: [...path], expression } }]);
  if (!done.ok) refused();
}
</script>

<template>
  <section class="mt-8" data-testid="numbers">
    <h2 class="heading border-ink border-b pb-1">
      Without a name <span class="text-muted font-normal">{{ values.numbers.length }}</span>
    </h2>
    <table v-if="values.shownNumbers.length > 0" class="w-full border-collapse">
      <tbody>
        <tr
          v-for="row in values.shownNumbers"
          :key="row.key"
          class="border-rule border-b align-baseline"
          :class="row.key === values.selected ? 'bg-lit' : ''"
          @focusin="values.selected = row.key"
          @click="values.selected = row.key"
        >
          <td class="py-1 pr-3">{{ row.label }}</td>
          <td class="pr-3">
            <TypedField
              class="chip w-40 text-right"
              :value="row.text"
              :label="`Expression of ${row.label}`"
              @change="(text, refused) => set(row, text, refused)"
            />
          </td>
          <td class="text-muted pr-3 text-right font-mono text-[13px] whitespace-nowrap">{{ row.result }}</td>
          <td class="text-right">
            <button class="word-link text-sm" :aria-label="`Show ${row.label}`" @click.stop="values.show(row)">
              show me
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="text-muted py-2 text-sm">
      {{ values.filter ? 'None is called that.' : 'Every number has a name.' }}
    </p>
  </section>
</template>
