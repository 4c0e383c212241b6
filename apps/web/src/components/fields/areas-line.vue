<script setup lang="ts">
import { computed } from 'vue';
import { filled, resolveRegions } from '@helb/core';
import { useWorkbench } from '../../stores/workbench.ts';
import { useModel } from '../../stores/model.ts';
import { useUnits } from '../../stores/units.ts';

/** Which areas of its sketch the step in the making takes, and which of those that it took are gone. */
const bench = useWorkbench();
const model = useModel();
const units = useUnits();

interface FromAreas {
  readonly sketch?: string;
  readonly areas?: 'outline' | readonly string[];
}
const step = computed(() => bench.draft!.step as FromAreas);
const found = computed(() => model.built?.sketches[step.value.sketch ?? '']?.regions ?? []);
/** What is taken as the sketch is now: an area that was drawn over a little is the same one. */
const taken = computed(() => {
  const { areas = 'outline' } = step.value;
  const regions = { regions: found.value, openEnds: [] };
  if (areas === 'outline') return { keys: new Set(filled(regions).map(({ key }) => key)), gone: [] };
  const resolved = resolveRegions(regions, areas);
  return { keys: new Set(resolved.regions.map(({ key }) => key)), gone: resolved.gone };
});

const emit = defineEmits<{ choose: [areas: readonly string[]] }>();
const take = (keys: Iterable<string>, gone: readonly string[]) => emit('choose', [...keys, ...gone]);
function toggle(key: string) {
  const keys = new Set(taken.value.keys);
  if (!keys.delete(key)) keys.add(key);
  take(keys, taken.value.gone);
}
const drop = (key: string) =>
  take(
    taken.value.keys,
    taken.value.gone.filter((other) => other !== key),
  );
const sides = (key: string) => key.replace(/ #\d+$/, '').split(' ').length;
</script>

<template>
  <fieldset
    v-if="found.length > 1 || taken.gone.length > 0 || (found.length > 0 && taken.keys.size === 0)"
    class="border-rule mb-1 border-t py-1.5"
  >
    <legend class="text-muted float-left w-full">Areas</legend>
    <label v-for="region in found" :key="region.key" class="clear-left flex items-center gap-2 py-0.5">
      <input type="checkbox" :checked="taken.keys.has(region.key)" @change="toggle(region.key)" />
      <span class="font-mono text-[13px]">{{ units.area(region.area) }}</span>
      <span class="text-muted text-sm">{{
        region.holes.length > 0
          ? `with ${region.holes.length} ${region.holes.length === 1 ? 'opening' : 'openings'}`
          : region.depth > 0
            ? 'inside'
            : ''
      }}</span>
    </label>
    <p v-for="key in taken.gone" :key="key" class="text-clash clear-left flex items-baseline gap-2 py-0.5 text-sm">
      <span>one with {{ sides(key) }} {{ sides(key) === 1 ? 'side' : 'sides' }} that is gone</span>
      <button class="word-link" @click="drop(key)">drop it</button>
    </p>
  </fieldset>
</template>
