<script setup lang="ts">
import { computed } from 'vue';
import { stepOfFace } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useUnits } from '../stores/units.ts';

/** The bodies of the part, each with its volume; those that are not shown are not touched by new steps either. */
const bench = useWorkbench();
const model = useModel();
const units = useUnits();

const bodies = computed(() => (model.built?.part === bench.partId ? (model.built?.bodies ?? []) : []));
const nameOf = (body: string) => {
  const number = / ?#?(\d+)$/.exec(body.replace(stepOfFace(body), ''))?.[1];
  return `${bench.part?.steps[stepOfFace(body)]?.name ?? body}${number ? ` · ${number}` : ''}`;
};
</script>

<template>
  <section v-if="bodies.length > 1" class="border-rule border-b p-4" data-testid="bodies">
    <h2 class="heading mb-2">Bodies</h2>
    <label v-for="{ name, measures } in bodies" :key="name" class="flex items-baseline gap-2 py-0.5">
      <input
        type="checkbox"
        :checked="!bench.hiddenBodies.has(name)"
        :aria-label="`Show the body of ${nameOf(name)}`"
        @change="bench.toggleBody(name)"
      />
      <span class="grow truncate" :class="bench.hiddenBodies.has(name) ? 'text-muted line-through' : ''">{{
        nameOf(name)
      }}</span>
      <span class="font-mono text-[13px]">{{ units.volume(measures.volume_mm3, measures.off.volume_mm3) }}</span>
    </label>
    <p v-if="bodies.some(({ name }) => bench.hiddenBodies.has(name))" class="text-muted mt-1 text-sm">
      New steps leave alone what is not shown.
    </p>
  </section>
</template>
