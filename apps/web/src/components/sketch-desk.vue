<script setup lang="ts">
import { computed } from 'vue';
import { entityKind, findEntity, relationKind, type Id } from '@helb/core';
import { useBench } from '../stores/bench.ts';

/** The sketch on the desk: what is still free or fights, what is selected, what was guessed last. */
const bench = useBench();
const editor = computed(() => (void bench.version, bench.editor!));
const solution = computed(() => (void bench.version, bench.editor!.solved.solution));

const numbers = computed(() => {
  const counts: Record<string, number> = {};
  return new Map(
    Object.entries(editor.value.sketch.entities).map(([id, entity]) => {
      counts[entity.kind] = (counts[entity.kind] ?? 0) + 1;
      return [id, counts[entity.kind]!];
    }),
  );
});

const BUILT_IN_NAMES: Partial<Record<Id, string>> = {
  origin: 'the origin',
  'x-axis': 'the x axis',
  'y-axis': 'the y axis',
};
function nameOf(id: Id): string {
  if (BUILT_IN_NAMES[id]) return BUILT_IN_NAMES[id];
  const entity = findEntity(editor.value.sketch.entities, id);
  return entity ? `${entityKind(entity.kind).title} ${numbers.value.get(id)}` : '?';
}

function sentence(id: Id): string {
  const relation = editor.value.relations[id]!;
  const kind = relationKind(relation.kind);
  const refs = kind.refs(relation).map(nameOf);
  const value = 'value' in relation ? ` ${relation.value}` : '';
  return `${refs.join(' and ')} ${kind.words}${value}`;
}

const free = computed(() => {
  const loose = [...solution.value.loose].filter((id) => editor.value.sketch.entities[id]);
  // points tell nothing that their curves do not
  const curves = loose.filter((id) => editor.value.sketch.entities[id]!.kind !== 'point');
  return (curves.length > 0 ? curves : loose).map((id) => ({ id, name: nameOf(id) }));
});
const clash = computed(() => solution.value.clash.filter((id) => editor.value.relations[id]));
const picked = computed(() => [...editor.value.selection].filter((id) => !editor.value.relations[id]));
const held = computed(() => {
  const ids = new Set([...editor.value.selection]);
  return Object.entries(editor.value.relations).flatMap(([id, relation]) =>
    ids.has(id) ||
    relationKind(relation.kind)
      .refs(relation)
      .some((ref) => picked.value.includes(ref))
      ? [id]
      : [],
  );
});
const guesses = computed(() => editor.value.lastGuesses.filter((id) => editor.value.relations[id]));
const regions = computed(() => (void bench.version, bench.editor!.solved.regions));
const openings = computed(() =>
  regions.value.regions.reduce((sum, region) => sum + (region.depth === 0 ? region.holes.length : 0), 0),
);

const drop = (id: Id) => editor.value.erase([id]);
const show = (id: Id) => editor.value.select([id], false);
</script>

<template>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-1 flex justify-between">
      What is still free
      <span
        v-if="solution.freedoms > 0"
        class="bg-act grid min-w-5 place-items-center rounded-full px-1.5 text-[12px] text-white"
        >{{ solution.freedoms }}</span
      >
    </h2>
    <template v-if="solution.state === 'clashing'">
      <p class="text-clash mb-1">These can't hold together. Drop or change one; the last good shape is shown.</p>
      <p v-for="id in clash" :key="id" class="flex justify-between gap-2 py-0.5 leading-5">
        {{ sentence(id) }} <button class="word-link shrink-0" @click="drop(id)">drop</button>
      </p>
    </template>
    <p v-else-if="Object.keys(editor.sketch.entities).length === 0" class="text-muted">
      Nothing is drawn yet. Press <kbd class="text-key font-mono text-[13px]">K</kbd> for a chain of lines,
      <kbd class="text-key font-mono text-[13px]">B</kbd> for a rectangle.
    </p>
    <p v-else-if="solution.state === 'settled'">Nothing: the sketch is settled.</p>
    <template v-else>
      <p class="mb-1">
        {{ solution.freedoms === 1 ? '1 freedom' : `${solution.freedoms} freedoms` }} left. Drag what is ochre to see it
        move:
      </p>
      <p class="leading-6">
        <template v-for="(entity, k) in free.slice(0, 12)" :key="entity.id">
          <button class="word-link" @click="show(entity.id)">{{ entity.name }}</button><span
            v-if="k < Math.min(free.length, 12) - 1"
            >,
          </span>
        </template>
        <span v-if="free.length > 12" class="text-muted"> and {{ free.length - 12 }} more</span>
      </p>
    </template>
  </section>
  <section v-if="editor.selection.size > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Selected</h2>
    <p v-if="picked.length > 0">{{ picked.map(nameOf).join(', ') }}</p>
    <p v-for="id in held" :key="id" class="flex justify-between gap-2 py-0.5 leading-5">
      {{ sentence(id) }} <button class="word-link shrink-0" @click="drop(id)">drop</button>
    </p>
    <p v-if="picked.length > 0 && held.length === 0" class="text-muted text-sm">No relations on it yet.</p>
  </section>
  <section v-if="guesses.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Guesses taken</h2>
    <p v-for="id in guesses" :key="id" class="flex justify-between gap-2 py-0.5 leading-5">
      {{ sentence(id) }} <button class="word-link shrink-0" @click="drop(id)">drop</button>
    </p>
    <p class="text-muted mt-1 text-sm">Hold <kbd class="text-key font-mono">Q</kbd> while drawing: no guesses.</p>
  </section>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-1">Outline</h2>
    <p v-if="regions.regions.length > 0">
      {{ regions.regions.length === 1 ? '1 closed area' : `${regions.regions.length} closed areas`
      }}{{ openings > 0 ? `, ${openings} ${openings === 1 ? 'opening' : 'openings'} inside` : '' }}.
    </p>
    <p v-else class="text-muted">No closed area yet.</p>
    <p v-if="regions.openEnds.length > 0" class="text-clash">
      {{ regions.openEnds.length }} open {{ regions.openEnds.length === 1 ? 'end' : 'ends' }}, ringed in the view.
    </p>
  </section>
</template>
