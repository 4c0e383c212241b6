<script setup lang="ts">
import {
  explain,
  LENGTH,
  ORIGIN_WORDS,
  referenceWords,
  type Action,
  type Id,
  type Reference,
  type Section,
} from '@helb/core';
import { computed } from 'vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useLooking } from '../stores/looking.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import ChoiceWord from './choice-word.vue';
import NameField from './name-field.vue';
import NumberChip from './number-chip.vue';

/** Sections of the part by name: open one or several, move their planes, turn them round. */
const bench = useWorkbench();
const looking = useLooking();
const model = useModel();
const store = useProject();

const ORIGIN_PLANES = ['front', 'top', 'right'] as const;
/** Where it can lie: the planes that every part has, its datum planes and frames, and where it lies now. */
const planes = computed((): readonly Reference[] => [
  ...ORIGIN_PLANES.map((name): Reference => ({ to: 'origin', name })),
  ...Object.entries(model.built?.datums ?? {}).flatMap(([step, { form }]): Reference[] =>
    form === 'plane' || form === 'frame' ? [{ to: 'datum', step }] : [],
  ),
]);
const optionsFor = ({ plane }: Section): Record<string, string> => {
  const all = planes.value.some((other) => keyOf(other) === keyOf(plane)) ? planes.value : [plane, ...planes.value];
  return Object.fromEntries(all.map((reference) => [keyOf(reference), words(reference)]));
};
const keyOf = (reference: Reference) => JSON.stringify(reference);
const words = (reference: Reference) =>
  reference.to === 'origin' ? ORIGIN_WORDS[reference.name] : referenceWords(reference, bench.nameOf);

const change = (id: Id, fields: Partial<Section>): Action => ({
  command: 'section.set',
  input: { part: bench.partId!, section: id, fields },
});
const set = (id: Id, fields: Partial<Section>) => store.act([change(id, fields)]);
const keep = (id: Id) => (offset: string, naming: readonly Action[]) => store.act([...naming, change(id, { offset })]);
const trouble = (id: Id): string => {
  const found = model.built?.sections[id];
  return found && !found.ok ? explain(found.issue) : '';
};
</script>

<template>
  <section v-if="looking.sections.length > 0" class="border-rule border-b p-4" data-testid="sections">
    <h2 class="heading mb-2">Sections</h2>
    <div
      v-for="[id, section] in looking.sections"
      :key="id"
      class="border-rule border-t py-1.5 first-of-type:border-t-0"
    >
      <label class="flex items-baseline gap-2">
        <input
          type="checkbox"
          :checked="looking.open.has(id)"
          :aria-label="`Cut open at ${section.name}`"
          @change="looking.toggleSection(id)"
        />
        <NameField :value="section.name" :label="`Name of ${section.name}`" @change="(name) => set(id, { name })" />
      </label>
      <p class="leading-7">
        cut
        <NumberChip
          :text="section.offset"
          :asks="LENGTH"
          label="offset"
          :change="(text: string) => [change(id, { offset: text })]"
          :keep="keep(id)"
        />
        off
        <ChoiceWord
          :value="keyOf(section.plane)"
          :options="optionsFor(section)"
          label="plane"
          @choose="(key) => set(id, { plane: JSON.parse(key) as Reference })"
        />
      </p>
      <p class="flex gap-4 text-sm">
        <button class="word-link" @click="set(id, { turned: !section.turned })">show the other side</button>
        <button class="word-link" @click="looking.remove(id)">remove</button>
      </p>
      <p v-if="trouble(id)" class="text-clash text-sm" role="alert">{{ trouble(id) }}</p>
    </div>
  </section>
</template>
