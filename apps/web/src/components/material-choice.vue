<script setup lang="ts">
import { computed, ref } from 'vue';
import { MATERIALS, type Material } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useProject } from '../stores/project.ts';
import { typedNumber } from '../stores/typed-amount.ts';

/** What the part is made of: from the table, or an entry of one's own. */
const bench = useWorkbench();
const store = useProject();
const own = ref(false);
const ownName = ref('');
const ownDensity = ref('');
const ownTrouble = ref('');

const material = computed(() => bench.part?.material);
const known = computed(() => MATERIALS.find((entry) => isSame(entry, material.value)));
const isSame = (a: Material, b: Material | undefined) => a.name === b?.name && a.density_kg_m3 === b.density_kg_m3;
const groups = [...new Set(MATERIALS.map(({ group }) => group))].map((group) => ({
  group,
  entries: MATERIALS.filter((entry) => entry.group === group),
}));

const put = (chosen: Material | undefined) =>
  store.act([{ command: 'part.material', input: { id: bench.partId!, ...(chosen ? { material: chosen } : {}) } }]);

function choose(event: Event) {
  const name = (event.target as HTMLSelectElement).value;
  own.value = name === 'own';
  if (own.value) {
    ownName.value = material.value?.name ?? '';
    ownDensity.value = `${material.value?.density_kg_m3 ?? ''}`;
    return;
  }
  const entry = MATERIALS.find((other) => other.name === name);
  put(entry && { name: entry.name, density_kg_m3: entry.density_kg_m3 });
}

function setOwn() {
  const result = put({ name: ownName.value, density_kg_m3: typedNumber(ownDensity.value) });
  ownTrouble.value = result.ok ? '' : 'Give it a name and a density from 1 to 30000 kg/m³.';
  if (!result.ok) store.message = '';
  own.value = !result.ok;
}
</script>

<template>
  <div class="mb-1 flex items-baseline justify-between gap-3">
    <label class="text-muted" for="material">Material</label>
    <select
      id="material"
      class="bg-sheet hover:bg-chip max-w-44 text-right"
      :value="own ? 'own' : (material?.name ?? '')"
      @change="choose"
    >
      <option value="">none</option>
      <option v-if="material && !known" :value="material.name">{{ material.name }}</option>
      <optgroup v-for="{ group, entries } in groups" :key="group" :label="group">
        <option v-for="entry in entries" :key="entry.name" :value="entry.name">{{ entry.name }}</option>
      </optgroup>
      <option value="own">own entry…</option>
    </select>
  </div>
  <p v-if="material && !own" class="text-muted mb-1 text-right text-[12px] leading-4" data-testid="density">
    {{ material.density_kg_m3 }} kg/m³{{ known ? `, ${known.source}` : ', own entry' }}
  </p>
  <form v-if="own" class="mb-2 space-y-1" @submit.prevent="setOwn">
    <input v-model="ownName" class="field" placeholder="name" aria-label="Name of the material" maxlength="60" />
    <input
      v-model="ownDensity"
      class="field"
      placeholder="density, kg/m³"
      aria-label="Density in kg per cubic metre"
      inputmode="decimal"
    />
    <p v-if="ownTrouble" class="text-clash text-sm" role="alert">{{ ownTrouble }}</p>
    <button class="verb">Set</button>
  </form>
</template>
