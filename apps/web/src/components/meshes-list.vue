<script setup lang="ts">
import { computed } from 'vue';
import { formatAmount, type Id } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useUnits } from '../stores/units.ts';

/** Triangles that are laid under the part: how large they are, and whether they are closed. */
const bench = useWorkbench();
const model = useModel();
const units = useUnits();

/** The unit that its step tells, or the one of the file. */
const unitOf = (step: Id) => (bench.part?.steps[step] as { unit?: string } | undefined)?.unit ?? 'file';

const meshes = computed(() =>
  (model.built?.part === bench.partId ? (model.built?.meshes ?? []) : []).map(({ step, named, facts }) => {
    const { triangles, box, loose, volume } = facts;
    return {
      step,
      name: bench.part?.steps[step]?.name ?? 'a step that is gone',
      count: `${formatAmount(triangles, 0)} triangles`,
      size: units.size(box),
      whole:
        volume === undefined ? `open at ${loose} ${loose === 1 ? 'edge' : 'edges'}` : `closed, ${units.volume(volume)}`,
      isUnsure: !named && unitOf(step) === 'file',
    };
  }),
);
</script>

<template>
  <section v-if="meshes.length > 0" class="border-rule border-b p-4" data-testid="meshes">
    <h2 class="heading mb-2">Laid under</h2>
    <div v-for="mesh in meshes" :key="mesh.step" class="py-0.5">
      <label class="flex items-baseline gap-2">
        <input
          type="checkbox"
          :checked="!bench.hiddenBodies.has(mesh.step)"
          :aria-label="`Show ${mesh.name}`"
          @change="bench.toggleBody(mesh.step)"
        />
        <span class="grow truncate" :class="bench.hiddenBodies.has(mesh.step) ? 'text-muted line-through' : ''">{{
          mesh.name
        }}</span>
        <span class="text-muted text-sm">{{ mesh.count }}</span>
      </label>
      <p class="font-mono text-[13px]">{{ mesh.size }}</p>
      <p class="text-muted text-sm">{{ mesh.whole }}</p>
      <p v-if="mesh.isUnsure" class="text-loose text-sm">The file names no unit: it is taken as mm.</p>
    </div>
  </section>
</template>
