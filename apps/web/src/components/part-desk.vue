<script setup lang="ts">
import { computed, ref } from 'vue';
import { ANGLE, formatAmount, formatQuantity, LENGTH, readingsBetween, readingsOf } from '@helb/core';
import { useBench } from '../stores/bench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';

/** Common materials, kg/m^3, rounded as engineering handbooks give them. */
const MATERIALS = [
  ['Aluminium 6082', 2700],
  ['Steel S235', 7850],
  ['Stainless steel 1.4301', 7900],
  ['Brass CW614N', 8470],
  ['Beech', 720],
  ['Birch plywood', 680],
  ['PLA', 1240],
  ['POM', 1410],
] as const;

const bench = useBench();
const store = useProject();
const model = useModel();
const own = ref(false);
const ownName = ref('');
const ownDensity = ref('');
const ownTrouble = ref('');

const totals = computed(() => (model.built?.part === bench.partId ? model.built?.totals : undefined));
const figures = computed(() => {
  const t = totals.value;
  if (!t || t.bodies === 0) return [];
  const size = t.box_mm!.high.map((high, k) => formatAmount(high - t.box_mm!.low[k]!, 2));
  return [
    ['Mass', t.mass_g === null ? 'no material' : `${formatAmount(t.mass_g, 2)} g`],
    ['Volume', `${formatAmount(t.volume_mm3, 1)} mm³`],
    ['Area', `${formatAmount(t.area_mm2, 1)} mm²`],
    ['Centre', t.centre_mm!.map((c) => formatAmount(c, 2)).join('  ')],
    ['Size', `${size.join(' × ')} mm`],
    ['Bodies', `${t.bodies} with ${t.faces} faces`],
  ];
});

function choose(event: Event) {
  const name = (event.target as HTMLSelectElement).value;
  own.value = name === 'own';
  const entry = MATERIALS.find(([title]) => title === name);
  if (own.value) return;
  store.act([
    {
      command: 'part.material',
      input: { id: bench.partId!, ...(entry ? { material: { name: entry[0], density_kg_m3: entry[1] } } : {}) },
    },
  ]);
}

function setOwn() {
  const density = Number(ownDensity.value.replace(',', '.'));
  const result = store.act([
    {
      command: 'part.material',
      input: { id: bench.partId!, material: { name: ownName.value, density_kg_m3: density } },
    },
  ]);
  ownTrouble.value = result.ok ? '' : 'Give it a name and a density from 1 to 30000 kg/m³.';
  if (!result.ok) store.message = '';
  own.value = !result.ok;
}

/** What can be read off what is picked: off one thing, or between two. */
const UNITS = { length: LENGTH, angle: ANGLE } as const;
const readings = computed(() => {
  const [a, b, ...more] = bench.picked.map(({ thing }) => thing);
  const read = !a || more.length > 0 ? [] : b ? readingsBetween(a, b) : readingsOf(a);
  const unit = store.kept?.unit ?? 'mm';
  return read.map(({ label, amount, of }) => ({
    label,
    text: of === 'area' ? `${formatAmount(amount, 2)} mm²` : formatQuantity({ amount, dimension: UNITS[of] }, unit, 3),
  }));
});

const copy = (text: string) => void navigator.clipboard?.writeText(text);
</script>

<template>
  <section v-if="bench.picked.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Picked</h2>
    <p v-for="pick in bench.picked" :key="pick.body + pick.name" class="leading-5">
      {{ pick.kind === 'guide' ? '' : `${pick.kind} · ` }}{{ pick.words }}<span v-if="pick.kind === 'edge'"> mm</span>
    </p>
    <dl class="mt-1">
      <div v-for="reading in readings" :key="reading.label" class="flex items-baseline justify-between gap-3 py-0.5">
        <dt class="text-muted first-letter:uppercase">{{ reading.label }}</dt>
        <dd>
          <button
            class="hover:bg-chip font-mono text-[13px]"
            :title="`Copy ${reading.label}`"
            :data-testid="`reading-${reading.label}`"
            @click="copy(reading.text)"
          >
            {{ reading.text }}
          </button>
        </dd>
      </div>
    </dl>
    <p v-if="bench.picked.length === 1" class="text-muted mt-1 text-sm">Shift-click something else to measure to it.</p>
  </section>
  <section v-if="bench.part" class="border-rule border-b p-4">
    <h2 class="heading mb-2">This part</h2>
    <div class="mb-1 flex items-baseline justify-between gap-3">
      <label class="text-muted" for="material">Material</label>
      <select
        id="material"
        class="bg-sheet hover:bg-chip max-w-44 text-right"
        :value="own ? 'own' : (bench.part.material?.name ?? '')"
        @change="choose"
      >
        <option value="">none</option>
        <option v-for="[title] in MATERIALS" :key="title" :value="title">{{ title }}</option>
        <option
          v-if="bench.part.material && !MATERIALS.some(([title]) => title === bench.part!.material!.name)"
          :value="bench.part.material.name"
        >
          {{ bench.part.material.name }}
        </option>
        <option value="own">another…</option>
      </select>
    </div>
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
    <dl>
      <div v-for="[title, text] in figures" :key="title" class="flex items-baseline justify-between gap-3 py-0.5">
        <dt class="text-muted">{{ title }}</dt>
        <dd>
          <button
            class="hover:bg-chip font-mono text-[13px] whitespace-pre"
            :title="`Copy ${title!.toLowerCase()}`"
            :data-testid="`figure-${title}`"
            @click="copy(text!)"
          >
            {{ text }}
          </button>
        </dd>
      </div>
    </dl>
    <p v-if="figures.length === 0" class="text-muted">No body yet. Draw a closed outline, then extrude it.</p>
  </section>
</template>
