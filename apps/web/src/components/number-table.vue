<script setup lang="ts">
import { replacing, useValues } from '../stores/values.ts';
import NumberChip from './number-chip.vue';

/** All numbers that have no name: sizes of sketches, numbers of steps. */
const values = useValues();
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
          <td class="pr-3 text-right">
            <NumberChip
              :text="row.text"
              :asks="row.asks!"
              :label="`Expression of ${row.label}`"
              :change="replacing(row)"
              bare
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
