<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue';
import { entityKind, findEntity, relationKind, type Id, distance2, type Motion, type Vec2 } from '@helb/core';
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

/** Each freedom as a sentence: "line 4 can slide along X". */
const free = computed(() =>
  solution.value.motions.map((motion) => {
    const names = motion.entities.map(nameOf);
    const who = names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
    return { motion, words: `${who} can ${LOOKS[motion.look](motion)}` };
  }),
);

const LOOKS: Readonly<Record<Motion['look'], (motion: Motion) => string>> = {
  grow: () => 'grow',
  turn: () => 'turn',
  change: () => 'change together',
  slide: ({ direction }) => `slide ${alongWords(direction!)}`,
  spread: ({ direction }) => `spread ${alongWords(direction!)}`,
};

function alongWords([x, y]: Vec2): string {
  if (Math.abs(y) < 1e-3) return 'along X';
  if (Math.abs(x) < 1e-3) return 'along Y';
  return `at ${Math.round((Math.atan2(y, x) * 180) / Math.PI)}°`;
}

/** A motion is played to and fro about the drawn place, a twelfth of the sketch far; an edit or the hand ends it. */
const playing = computed(() => (void bench.version, bench.editor?.playing));
let frame = 0;
function play(motion: Motion) {
  const same = playing.value === motion;
  stop();
  if (same) return;
  const box = editor.value.geometry.box()!;
  const far = Math.max(distance2(box.low, box.high) / 12, 0.5);
  const begun = performance.now();
  editor.value.play(motion);
  const step = () => {
    if (editor.value.playing !== motion) return;
    if (!solution.value.motions.includes(motion)) return stop();
    editor.value.play(motion, far * Math.sin((performance.now() - begun) / 350));
    frame = requestAnimationFrame(step);
  };
  step();
}
function stop() {
  cancelAnimationFrame(frame);
  if (bench.editor?.playing) bench.editor.play(undefined);
}
onBeforeUnmount(stop);

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
      <p class="mb-1">{{ solution.freedoms === 1 ? '1 freedom' : `${solution.freedoms} freedoms` }} left:</p>
      <p v-for="(freedom, k) in free.slice(0, 12)" :key="k" class="flex justify-between gap-2 py-0.5 leading-5">
        <span class="flex gap-2"
          ><span class="border-loose mt-1.5 size-2 shrink-0 rounded-full border" />{{ freedom.words }}</span
        >
        <button class="word-link shrink-0" :aria-pressed="playing === freedom.motion" @click="play(freedom.motion)">
          {{ playing === freedom.motion ? 'stop' : 'play' }}
        </button>
      </p>
      <p v-if="free.length > 12" class="text-muted">and {{ free.length - 12 }} more</p>
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
