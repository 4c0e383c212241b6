<script setup lang="ts">
import { computed, ref } from 'vue';
import { headOf, type Id } from '@helb/core';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useWorkbench } from '../stores/workbench.ts';
import JointCard from './joint-card.vue';
import RelationCard from './relation-card.vue';

/** Where the part on the bench is placed: whether it stands still there, and what holds it to others, changed here. */
const emit = defineEmits<{
  /** To this placement, among all parts. */
  whole: [placement: Id];
}>();
const store = useProject();
const bench = useWorkbench();
const placements = usePlacements();

/** The joint or relation that is open, of a placement. */
const open = ref('');
const toggle = (key: string) => (open.value = open.value === key ? '' : key);

const rows = computed(() => {
  const { joints = {}, relations = {}, placements: all = {} } = store.project?.assembly ?? {};
  const named = (member: string) => all[headOf(member)]?.name ?? 'something that is gone';
  return placements.ofPart(bench.partId).map(({ id, name, held }) => ({
    ...{ id, name, held },
    joins: [...Object.entries(joints), ...Object.entries(relations)].flatMap(([join, { name, a, b }]) => {
      const [one, two] = [a.placement, b.placement];
      const other = headOf(one) === id ? two : headOf(two) === id ? one : undefined;
      return other === undefined
        ? []
        : [
            {
              id: join,
              key: `${id} ${join}`,
              name,
              with: named(other),
              joint: joints[join],
              relation: relations[join],
            },
          ];
    }),
  }));
});
</script>

<template>
  <section v-if="rows.length > 0" class="border-rule border-b p-4" aria-label="Where it is placed">
    <h2 class="heading mb-1">
      Placed <span class="text-muted font-normal">{{ rows.length }}</span>
    </h2>
    <div v-for="row in rows" :key="row.id" class="py-0.5 leading-6">
      <p class="flex items-baseline gap-2">
        <button
          class="min-w-0 truncate text-left hover:underline"
          title="Among all parts"
          @click="emit('whole', row.id)"
        >
          {{ row.name }}
        </button>
        <span class="text-muted grow text-sm">{{
          row.held ? 'stands still' : row.joins.length > 0 ? 'joined' : 'free to move'
        }}</span>
        <button
          class="word-link shrink-0 text-sm"
          :aria-label="`${row.held ? 'Let go' : 'Hold still'}: ${row.name}`"
          @click="placements.hold([row.id], !row.held)"
        >
          {{ row.held ? 'let go' : 'hold still' }}
        </button>
      </p>
      <template v-for="join in row.joins" :key="join.key">
        <p class="text-muted ml-3 text-sm">
          {{ join.name }}, with {{ join.with }} ·
          <button class="word-link" :aria-expanded="open === join.key" @click="toggle(join.key)">
            {{ open === join.key ? 'close' : 'open' }}
          </button>
          ·
          <button class="word-link" :aria-label="`Show ${join.name}`" @click="emit('whole', row.id)">show</button>
        </p>
        <ul v-if="open === join.key" class="-mx-1">
          <JointCard v-if="join.joint" :id="join.id" :record="join.joint" />
          <RelationCard v-else-if="join.relation" :id="join.id" :record="join.relation" />
        </ul>
      </template>
    </div>
  </section>
</template>
