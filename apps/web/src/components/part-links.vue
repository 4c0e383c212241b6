<script setup lang="ts">
import { computed, ref } from 'vue';
import { buildOrder, partLinks, type Id } from '@helb/core';
import { useProject } from '../stores/project.ts';

/** Which part takes from which: in the order in which they are built, an arrow from what gives to what takes. */
const emit = defineEmits<{ edit: [id: Id] }>();
const store = useProject();
const pointed = ref<Id>();

const LINE = 24;
const LEFT = 56;

const links = computed(() => (store.project ? partLinks(store.project) : []));
const rows = computed(() => {
  const { project } = store;
  const taking = new Set(links.value.flatMap(({ part, from }) => [part, from]));
  if (!project || taking.size === 0) return [];
  return buildOrder(project, project.partOrder).filter((id) => taking.has(id));
});
const middle = (id: Id): number => (rows.value.indexOf(id) + 0.5) * LINE;
/** The arrow bulges the more the farther the two are apart. */
const arrows = computed(() =>
  links.value.map(({ part, from }) => {
    const [start, end] = [middle(from), middle(part)];
    const out = LEFT - Math.min(LEFT - 6, 14 + Math.abs(end - start) / 4);
    return {
      key: `${from} ${part}`,
      ends: [part, from],
      path: `M ${LEFT} ${start} C ${out} ${start} ${out} ${end} ${LEFT - 5} ${end}`,
      head: `${LEFT},${end} ${LEFT - 7},${end - 4} ${LEFT - 7},${end + 4}`,
    };
  }),
);
const nameOf = (id: Id): string => store.project?.parts[id]?.name ?? '?';
const told = (id: Id): string => {
  const taken = links.value.filter(({ part }) => part === id);
  if (taken.length === 0) return `${nameOf(id)} takes from no other part`;
  const words = taken.map(({ from, steps }) => {
    const names = steps.map((step) => store.project?.parts[id]?.steps[step]?.name ?? '?');
    return `${nameOf(from)} by ${names.join(', ')}`;
  });
  return `${nameOf(id)} takes from ${words.join('; ')}`;
};
const isLit = (ends: readonly Id[]): boolean => pointed.value !== undefined && ends.includes(pointed.value);
</script>

<template>
  <section v-if="rows.length > 0" aria-label="What takes from what">
    <h2 class="heading px-4 pt-3 pb-1">What takes from what</h2>
    <div class="relative mx-4 mb-2" :style="{ height: `${rows.length * LINE}px` }">
      <svg class="absolute inset-0 h-full w-14" aria-hidden="true">
        <g v-for="arrow in arrows" :key="arrow.key" :class="isLit(arrow.ends) ? 'lit' : 'arrow'">
          <path :d="arrow.path" />
          <polygon :points="arrow.head" />
        </g>
      </svg>
      <ul>
        <li v-for="id in rows" :key="id" class="flex h-6 items-center pl-16">
          <button
            class="min-w-0 truncate text-left hover:underline"
            :title="told(id)"
            @click="emit('edit', id)"
            @mouseenter="pointed = id"
            @mouseleave="pointed = undefined"
            @focus="pointed = id"
            @blur="pointed = undefined"
          >
            {{ nameOf(id) }}
          </button>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.arrow path,
.lit path {
  fill: none;
  stroke: var(--muted);
}
.arrow polygon {
  fill: var(--muted);
}
.lit path {
  stroke: var(--act);
  stroke-width: 2;
}
.lit polygon {
  fill: var(--act);
}
</style>
