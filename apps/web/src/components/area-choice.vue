<script setup lang="ts">
import { computed } from 'vue';
import { useBench } from '../stores/bench.ts';
import { useModel } from '../stores/model.ts';

/** Which areas of its sketch the step in the making takes. */
const bench = useBench();
const model = useModel();

interface FromAreas {
  readonly sketch?: string;
  readonly areas?: 'outline' | readonly string[];
}
const step = computed(() => bench.draft!.step as FromAreas);
const regions = computed(() => model.built?.sketches[step.value.sketch ?? '']?.regions ?? []);
const taken = computed(() => {
  const { areas = 'outline' } = step.value;
  return new Set(
    areas === 'outline' ? regions.value.filter((region) => region.depth % 2 === 0).map((region) => region.key) : areas,
  );
});

function toggle(key: string) {
  const next = new Set(taken.value);
  if (!next.delete(key)) next.add(key);
  if (next.size > 0) bench.setField('areas', [...next]);
}
</script>

<template>
  <fieldset v-if="regions.length > 1" class="border-rule mb-1 border-t py-1.5">
    <legend class="text-muted float-left w-full">Areas</legend>
    <label v-for="region in regions" :key="region.key" class="clear-left flex items-center gap-2 py-0.5">
      <input type="checkbox" :checked="taken.has(region.key)" @change="toggle(region.key)" />
      <span class="font-mono text-[13px]">{{ region.area.toFixed(1) }} mm²</span>
      <span class="text-muted text-sm">{{
        region.holes.length > 0
          ? `with ${region.holes.length} ${region.holes.length === 1 ? 'opening' : 'openings'}`
          : region.depth > 0
            ? 'inside'
            : ''
      }}</span>
    </label>
  </fieldset>
</template>
