<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { MATERIALS, type Material } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useProject } from '../stores/project.ts';
import { typedDensity } from '../stores/typed-amount.ts';

/** What the part is made of: from the table, or an entry of one's own. */
const bench = useWorkbench();
const store = useProject();
const own = ref(false);
const ownName = ref('');
const ownDensity = ref('');
const ownTrouble = ref('');
const nameField = ref<HTMLInputElement>();
/** What the density that is being typed comes to. */
const comesTo = computed(() => {
  const density = typedDensity(ownDensity.value);
  return density > 0 && `${density}` !== ownDensity.value.trim() ? `= ${Number(density.toPrecision(6))} kg/m³` : '';
});

const material = computed(() => bench.part?.material);
const known = computed(() => MATERIALS.find((entry) => isSame(entry, material.value)));
const isSame = (a: Material, b: Material | undefined) => a.name === b?.name && a.density_kg_m3 === b.density_kg_m3;
/** Entries of one's own that parts of the project have, this one or others. */
const others = computed(() =>
  [bench.part, ...Object.values(store.kept?.parts ?? {})]
    .flatMap((part) => part?.material ?? [])
    .filter((entry, k, all) => all.findIndex((other) => isSame(other, entry)) === k)
    .filter((entry) => !MATERIALS.some((other) => isSame(other, entry)))
    .sort((a, b) => a.name.localeCompare(b.name)),
);
const groups = [...new Set(MATERIALS.map(({ group }) => group))].map((group) => ({
  group,
  entries: MATERIALS.filter((entry) => entry.group === group),
}));

/** Of entries of one's own there may be several of one name. */
const keyOf = ({ name, density_kg_m3 }: Material) => `own ${density_kg_m3} ${name}`;
const put = (chosen: Material | undefined) =>
  store.act([{ command: 'part.material', input: { id: bench.partId!, ...(chosen ? { material: chosen } : {}) } }]);

function choose(event: Event) {
  const name = (event.target as HTMLSelectElement).value;
  own.value = name === 'own';
  if (own.value) {
    ownName.value = material.value?.name ?? '';
    ownDensity.value = `${material.value?.density_kg_m3 ?? ''}`;
    return void nextTick(() => nameField.value?.select());
  }
  const entry = others.value.find((other) => keyOf(other) === name) ?? MATERIALS.find((other) => other.name === name);
  put(entry && { name: entry.name, density_kg_m3: entry.density_kg_m3 });
}

function setOwn() {
  const result = put({ name: ownName.value, density_kg_m3: typedDensity(ownDensity.value) });
  ownTrouble.value = result.ok ? '' : 'Give it a name and a density: 7.2 g/cm³ or 7200 kg/m³, up to 30000 kg/m³.';
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
      :value="own ? 'own' : material ? (known ? material.name : keyOf(material)) : ''"
      @change="choose"
    >
      <option value="">none</option>
      <optgroup v-if="others.length > 0" label="of this project">
        <option v-for="entry in others" :key="keyOf(entry)" :value="keyOf(entry)">
          {{ entry.name }}, {{ entry.density_kg_m3 }} kg/m³
        </option>
      </optgroup>
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
    <input
      ref="nameField"
      v-model="ownName"
      class="field"
      placeholder="name"
      aria-label="Name of the material"
      maxlength="60"
    />
    <input
      v-model="ownDensity"
      class="field"
      placeholder="density: 7.2 g/cm³, or kg/m³"
      aria-label="Density"
      maxlength="30"
    />
    <p v-if="comesTo" class="text-muted text-right text-[12px]">{{ comesTo }}</p>
    <p v-if="ownTrouble" class="text-clash text-sm" role="alert">{{ ownTrouble }}</p>
    <button class="verb">Set</button>
  </form>
</template>
