<script setup lang="ts">
import { computed } from 'vue';
import { coordinateOf, jointOf } from '@helb/core';
import type { ContactRecord } from '@helb/core/assembly';
import { typedAs, useAssembly } from '../stores/assembly.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useTouching } from '../stores/touching.ts';

/** What is kept out of each other while it moves, and where it stopped. */
const store = useProject();
const assemblyStore = useAssembly();
const placements = usePlacements();
const touching = useTouching();

function words({ a, b }: ContactRecord): string {
  const [one, other] = [a, b].map((path) => (path === undefined ? undefined : assemblyStore.nameOf(path)));
  if (one === undefined && other === undefined) return 'everything that can meet';
  return `${one ?? other} and ${one !== undefined && other !== undefined ? other : 'all else'}`;
}

const isAll = computed(() => touching.records.some(([, { a, b }]) => a === undefined && b === undefined));
/** One or two placements that are picked, and are not told yet. */
const offered = computed(() => {
  const [a, b, ...more] = placements.chosen;
  if (a === undefined || more.length > 0) return undefined;
  const isTold = touching.records.some(
    ([, pair]) => (pair.a === a && pair.b === b) || (pair.a === b && pair.b === a && b !== undefined),
  );
  return isTold ? undefined : { a, b };
});

/** What was driven against something, where its joint is one of this assembly. */
const limit = computed(() => {
  const { blocked, pose } = assemblyStore;
  const id = blocked && jointOf(blocked.key);
  const record = id === undefined ? undefined : store.project?.assembly?.joints[id];
  const value = blocked && pose?.coordinates.get(blocked.key);
  if (!blocked || !record || value === undefined) return undefined;
  return { id: id!, record, ...blocked, text: typedAs(blocked.key, value, store.project!.unit, 4) };
});
function makeLimit() {
  const { id, record, key, side, text } = limit.value!;
  const coordinate = coordinateOf(key);
  const limits = { ...record.limits, [coordinate]: { ...record.limits?.[coordinate], [side]: text } };
  store.act([{ command: 'joint.set', input: { id, fields: { limits } } }]);
}
</script>

<template>
  <section data-testid="contacts">
    <h2 class="heading px-4 pt-4 pb-1">
      What touches
      <span v-if="touching.isPreparing" class="text-muted font-normal" role="status">is made ready …</span>
    </h2>
    <ul aria-label="What touches">
      <li
        v-for="[id, record] in touching.records"
        :key="id"
        class="border-rule flex items-baseline justify-between gap-2 border-b px-4 py-1.5 text-sm"
      >
        <label class="min-w-0 grow truncate">
          <input
            type="checkbox"
            class="mr-1"
            :checked="record.on"
            :aria-label="`Let ${words(record)} touch`"
            @change="touching.set(id, { ...record, on: !record.on })"
          />
          {{ words(record) }}
        </label>
        <button class="word-link" :aria-label="`Forget ${words(record)}`" @click="touching.set(id)">remove</button>
      </li>
    </ul>
    <p v-if="touching.records.length === 0" class="text-muted px-4 text-sm">
      Parts pass through each other until they are told to touch. Then they stop each other, or push what is free.
    </p>
    <button
      v-if="offered"
      class="word-link block px-4 py-1 text-left text-sm"
      @click="touching.add(offered.a, offered.b)"
    >
      + let {{ assemblyStore.nameOf(offered.a) }} and
      {{ offered.b === undefined ? 'all else' : assemblyStore.nameOf(offered.b) }} touch
    </button>
    <button v-if="!isAll" class="word-link block px-4 py-1 text-left text-sm" @click="touching.add()">
      + let everything touch
    </button>
    <p v-for="[a, b] in touching.overlaps" :key="`${a} ${b}`" class="text-clash px-4 py-1 text-sm" role="alert">
      {{ assemblyStore.nameOf(a) }} and {{ assemblyStore.nameOf(b) }} stand in each other at rest: there they pass
      through. Move them apart, or say that they press (Look, on the right).
    </p>
    <p v-if="limit" class="px-4 py-1 text-sm">
      {{ limit.record.name }} goes no further than {{ limit.text }}.
      <button class="word-link" @click="makeLimit">make it the limit</button>
    </p>
    <p v-if="touching.records.length > 0" class="text-muted px-4 pt-1 pb-2 text-[12px]">
      By shape alone: without friction, weight and bounce; flat and round faces exactly, free ones to 0.01 mm. Fingers,
      guards and loads are for a qualified person to judge.
    </p>
  </section>
</template>
