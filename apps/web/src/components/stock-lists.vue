<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { formatAmount } from '@helb/core';
import { cutList, writeCutList, writeBillOfMaterials, type BillRow } from '@helb/engine';
import { download, fileName } from '../download.ts';
import { useModel } from '../stores/model.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';

/** What all that is placed is made of, and what it is cut from: asked for when somebody wants it. */
const store = useProject();
const model = useModel();
const placements = usePlacements();
const rows = ref<readonly BillRow[]>();
const asking = ref(false);

// what was counted is not so any more
watch(
  () => store.project,
  () => (rows.value = undefined),
);
async function ask() {
  asking.value = true;
  rows.value = await model.engine.billOfMaterials(store.project!).catch(() => undefined);
  asking.value = false;
}
const groups = computed(() => cutList(rows.value ?? []));
const STOCK = { panel: 'Panels', bar: 'Bars', block: 'Blocks, and what is bent or hollow' } as const;
const mm = (sizes: readonly number[]) => sizes.map((size) => formatAmount(size, 2)).join(' × ');

const save = (what: string, table: string) =>
  download(`${fileName(`${store.kept!.name} ${what}`)}.csv`, table, 'text/csv;charset=utf-8');
const print = () => window.print();
</script>

<template>
  <section v-if="placements.records.length > 0" class="printed mb-6" aria-label="Make-up and cut list">
    <h2 class="heading mb-1">What it is made of, and cut from</h2>
    <p v-if="!rows">
      <button class="word-link" :disabled="asking" @click="ask">
        {{ asking ? `counting… ${model.progress}` : 'count and measure' }}
      </button>
    </p>
    <template v-else>
      <p class="unprinted mb-2 flex gap-5">
        <button class="word-link" @click="save('make-up', writeBillOfMaterials(rows))">make-up list as CSV</button>
        <button class="word-link" @click="save('cut list', writeCutList(groups))">cut list as CSV</button>
        <button class="word-link" @click="print">print both</button>
      </p>
      <table class="mb-4 w-full border-collapse" aria-label="Make-up list">
        <thead>
          <tr class="text-muted border-ink border-b text-left text-sm">
            <th class="py-1 font-normal">count</th>
            <th class="font-normal">part</th>
            <th class="font-normal">material</th>
            <th class="text-right font-normal">each</th>
            <th class="text-right font-normal">all</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.part" class="border-rule border-b">
            <td class="w-14 py-1 font-mono text-sm">{{ row.count }} ×</td>
            <td>{{ row.name }}</td>
            <td>{{ row.material ?? '—' }}</td>
            <td class="text-right font-mono text-sm">
              {{ row.mass_g === null ? '—' : `${formatAmount(row.mass_g, 1)} g` }}
            </td>
            <td class="text-right font-mono text-sm">
              {{ row.mass_g === null ? '—' : `${formatAmount(row.mass_g * row.count, 1)} g` }}
            </td>
          </tr>
        </tbody>
      </table>
      <table class="w-full border-collapse" aria-label="Cut list">
        <thead>
          <tr class="text-muted border-ink border-b text-left text-sm">
            <th class="py-1 font-normal">cut from</th>
            <th class="w-14 font-normal">count</th>
            <th class="font-normal">part</th>
            <th class="text-right font-normal">size, mm</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="{ stock, material, section_mm, pieces } in groups">
            <tr
              v-for="({ name, count, size_mm }, k) in pieces"
              :key="`${stock} ${material} ${mm(section_mm)} ${name}`"
              class="border-rule border-b"
            >
              <td class="py-1">
                <template v-if="k === 0"
                  >{{ STOCK[stock] }}, {{ material ?? 'no material'
                  }}<template v-if="section_mm.length > 0">, {{ mm(section_mm) }} mm</template></template
                >
              </td>
              <td class="w-14 font-mono text-sm">{{ count }} ×</td>
              <td>{{ name }}</td>
              <td class="text-right font-mono text-sm">{{ mm(size_mm) }}</td>
            </tr>
          </template>
        </tbody>
      </table>
      <p class="text-muted mt-2 text-[12px]">
        Finished sizes along the axes in which parts are drawn: add what the saw takes and what is planed off. Guards
        on, eyes protected; the machine's manual and local rules come first.
      </p>
    </template>
  </section>
</template>
