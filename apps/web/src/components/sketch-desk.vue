<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import {
  closure,
  distance2,
  entityNames,
  explain,
  flawWords,
  halfAxis,
  isMendable,
  isSized,
  motionSentence,
  offerWords,
  relationKind,
  relationSentence,
  type Flaw,
  type Id,
  type FreeMotion,
  type Relation,
} from '@helb/core';
import { adviceOn } from '../editor/advice.ts';
import { setText } from '../editor/entity-edits.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';

/** The sketch on the desk: what is still free or fights, what is selected, what was guessed last. */
const bench = useWorkbench();
const model = useModel();
const editor = computed(() => bench.editor!);
const state = computed(() => bench.sketching!);
const solution = computed(() => state.value.solved.solution);
const advice = computed(() => adviceOn(editor.value, state.value.solved));

const nameOf = computed(() => {
  const { entities, patterns } = state.value.sketch;
  const named = entityNames(entities);
  const lent = (id: Id) => state.value.lends.find(({ ids }) => ids.includes(id))?.words;
  return (id: Id) => lent(id) ?? (patterns?.[id] ? 'a pattern' : named(id));
});
const sentenceOf = (relation: Relation): string => relationSentence(relation, nameOf.value);
const sentence = (id: Id): string => sentenceOf(state.value.relations[id]!);

const SHOWN = 8;
/** Each freedom as a sentence, with the first thing that would stop it. */
const free = computed(() =>
  solution.value.motions.slice(0, SHOWN).map((motion) => {
    const cure = advice.value.cureOf(motion);
    return { motion, words: motionSentence(motion, nameOf.value), cure, stop: cure ? sentenceOf(cure) : '' };
  }),
);

/** A motion is played to and fro about the drawn place, a twelfth of the sketch far; an edit or the hand ends it. */
const playing = computed(() => bench.sketching?.playing);
let frame = 0;
function play(motion: FreeMotion) {
  const same = playing.value === motion;
  stop();
  if (same) return;
  const box = state.value.geometry.box()!;
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

/** What was told last comes first: mostly it is that which fights with what was there. */
const clash = computed(() => {
  const fighting = new Set(solution.value.clash);
  return Object.keys(state.value.relations)
    .filter((id) => fighting.has(id))
    .reverse();
});
const refsOf = (id: Id): readonly Id[] => {
  const relation = state.value.relations[id];
  return relation ? relationKind(relation.kind).refs(relation) : [];
};
const isSize = (id: Id): boolean => isSized(state.value.relations[id]!);
const isMeasuring = (id: Id): boolean => {
  const relation = state.value.relations[id]!;
  return isSized(relation) && relation.measuring === true;
};
const twice = computed(() => solution.value.redundant.map((ids) => ids.filter((id) => state.value.relations[id])));
const picked = computed(() => [...state.value.selection].filter((id) => !state.value.relations[id]));
const held = computed(() => {
  const ids = new Set([...state.value.selection]);
  return Object.entries(state.value.relations).flatMap(([id, relation]) =>
    ids.has(id) ||
    relationKind(relation.kind)
      .refs(relation)
      .some((ref) => picked.value.includes(ref))
      ? [id]
      : [],
  );
});
const guesses = computed(() => state.value.lastGuesses.filter((id) => state.value.relations[id]));
const regions = computed(() => state.value.solved.regions);
/** The axis beside which half a profile is drawn. */
const half = computed(() => halfAxis(state.value.geometry));
const openings = computed(() =>
  regions.value.regions.reduce((sum, region) => sum + (region.depth === 0 ? region.holes.length : 0), 0),
);

/** What goes besides when the selection is erased. */
const alsoGone = computed(() => {
  const chosen = [...state.value.selection];
  const { entities, relations } = state.value.sketch;
  const gone = [...closure(state.value.sketch, chosen)].filter((id) => !chosen.includes(id));
  const sizes = gone.filter((id) => relations[id] && isSized(relations[id]));
  const curves = gone.filter((id) => entities[id] && entities[id].kind !== 'point');
  return [
    ...curves.map(nameOf.value),
    ...sizes.map((id) => `${relationKind(relations[id]!.kind).title} ${(relations[id] as { value: string }).value}`),
  ];
});

const flaws = computed(() =>
  advice.value.flaws().map((flaw) => ({ flaw, ...flawWords(flaw, nameOf.value, state.value.unit) })),
);
const drop = (id: Id) => editor.value.erase([id]);
const mend = (flaw: Flaw) => advice.value.mend(flaw);
const point = (ids: readonly Id[]) => editor.value.select(ids, false);
const hold = (cure: Relation) => advice.value.add(cure);

// what is borrowed, with what became of its sources
const loans = computed(() => {
  const { sources } = state.value.solved;
  const unsure = new Map(
    model.built?.steps
      .find(({ id }) => id === state.value.step)
      ?.references?.map((reference) => [reference.path.join('.'), reference]),
  );
  const loaned = Object.entries(state.value.sketch.loans ?? {});
  const called = offerWords(
    loaned.map(([, { source }]) => source),
    bench.nameOf,
  );
  return loaned.map(([id, { how, makes }], k) => {
    const path = ['loans', id, 'source'];
    const found = unsure.get(path.join('.'));
    const [lost, more] = [sources.lost[id], sources.more[id] ?? 0];
    return {
      id,
      path,
      words: `${HOW_WORDS[how]}${called[k]}`,
      entities: Object.values(makes),
      trouble: lost ? explain(lost) : '',
      more: more > 0 ? `It has ${more === 1 ? 'one curve' : `${more} curves`} more now: it is not all borrowed.` : '',
      hasNow: sources.now[id] !== undefined,
      offers: offerWords(found?.offers ?? [], bench.nameOf).map((words, at) => ({ words, to: found!.offers[at]! })),
      recovered: found?.fate === 'recovered',
    };
  });
});
const HOW_WORDS = { shape: '', axis: 'axis: ', crossing: 'crossing: ' } as const;

// a full set for review: nothing is added before it is accepted
const proposal = ref<Record<Id, Relation>>();
watch(
  () => bench.sketching?.sketch,
  () => (proposal.value = undefined),
);
function propose() {
  stop();
  proposal.value = advice.value.settle();
}
function strike(id: Id) {
  const { [id]: _, ...rest } = proposal.value!;
  proposal.value = rest;
}
const canAccept = computed(() => Object.keys(proposal.value ?? {}).length > 0);
function accept(): boolean {
  if (!canAccept.value) return false;
  editor.value.addRelations('settle the rest', proposal.value!);
  return leaveIt();
}
function leaveIt(): boolean {
  const wasThere = proposal.value !== undefined;
  proposal.value = undefined;
  return wasThere;
}
onMounted(() => (bench.desk = { accept, leave: leaveIt }));
onBeforeUnmount(() => (bench.desk = undefined));

const lettering = computed(() => {
  const [id, ...others] = picked.value;
  const entity = id === undefined || others.length > 0 ? undefined : state.value.sketch.entities[id];
  return entity?.kind === 'text' ? { id: id!, text: entity.text } : undefined;
});
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
      <p
        v-for="id in clash"
        :key="id"
        data-testid="fighter"
        class="py-0.5 leading-5"
        @pointerenter="editor.pointAt(refsOf(id))"
        @pointerleave="editor.pointAt([])"
      >
        {{ sentence(id) }}
        <button class="word-link" @click="drop(id)">drop</button>
        <template v-if="isSize(id)">
          · <button class="word-link" @click="editor.setMeasuring(id, true)">make it measuring</button>
        </template>
      </p>
    </template>
    <p v-else-if="Object.keys(state.sketch.entities).length === 0" class="text-muted">
      Nothing is drawn yet. Press <kbd class="text-key font-mono text-[13px]">K</kbd> for a chain of lines,
      <kbd class="text-key font-mono text-[13px]">B</kbd> for a rectangle.
    </p>
    <p v-else-if="solution.state === 'settled'">Nothing: the sketch is settled.</p>
    <template v-else-if="proposal">
      <p class="mb-1">This would settle it:</p>
      <p v-for="(relation, id) in proposal" :key="id" class="flex justify-between gap-2 py-0.5 leading-5">
        {{ sentenceOf(relation) }} <button class="word-link shrink-0" @click="strike(id)">strike off</button>
      </p>
      <p v-if="!canAccept" class="text-muted">Nothing is left to be added.</p>
      <p class="mt-2 flex gap-4">
        <button class="verb-strong" :disabled="!canAccept" @click="accept">
          Accept <kbd class="font-mono text-[12px]">Enter</kbd>
        </button>
        <button class="word-link" @click="leaveIt">leave it</button>
      </p>
    </template>
    <template v-else>
      <div
        v-for="(freedom, k) in free"
        :key="k"
        class="py-0.5 leading-5"
        @pointerenter="editor.pointAt(freedom.motion.entities)"
        @pointerleave="editor.pointAt([])"
      >
        <p class="flex justify-between gap-2">
          <span class="flex gap-2"
            ><span class="border-loose mt-1.5 size-2 shrink-0 rounded-full border" />{{ freedom.words }}</span
          >
          <button class="word-link shrink-0" :aria-pressed="playing === freedom.motion" @click="play(freedom.motion)">
            {{ playing === freedom.motion ? 'stop' : 'play' }}
          </button>
        </p>
        <p v-if="freedom.cure" class="text-muted ml-4 text-sm">
          <button class="word-link" data-testid="cure" @click="hold(freedom.cure)">hold it</button>:
          {{ freedom.stop }}
        </p>
      </div>
      <p v-if="solution.freedoms > free.length" class="text-muted">and {{ solution.freedoms - free.length }} more</p>
      <p class="mt-2"><button class="verb" @click="propose">Settle the rest</button></p>
    </template>
  </section>
  <section v-if="loans.length > 0" class="border-rule border-b p-4" data-testid="loans">
    <h2 class="heading mb-1">Borrowed</h2>
    <div
      v-for="loan in loans"
      :key="loan.id"
      class="py-0.5 leading-5"
      @pointerenter="editor.pointAt(loan.entities)"
      @pointerleave="editor.pointAt([])"
    >
      <p class="flex justify-between gap-2">
        <span>{{ loan.words }}</span>
        <button class="word-link shrink-0" @click="editor.loans.letGo(loan.id)">let go</button>
      </p>
      <p v-if="loan.trouble" class="text-clash text-sm">{{ loan.trouble }}</p>
      <p v-if="loan.more" class="text-loose text-sm">{{ loan.more }}</p>
      <p v-if="loan.hasNow" class="text-sm">
        <button class="word-link" @click="editor.loans.renew(loan.id)">take it as it is now</button>
      </p>
      <p v-for="(offer, k) in loan.offers" :key="k" class="text-sm">
        <button class="word-link text-left" @click="editor.loans.repoint(loan.path, offer.to)">
          {{ loan.recovered ? 'that is right' : `take ${offer.words} instead` }}
        </button>
      </p>
    </div>
  </section>
  <section v-if="twice.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Told twice</h2>
    <p class="text-muted mb-1 text-sm">These agree, so nothing is wrong; of each group one may go.</p>
    <div v-for="(ids, k) in twice.slice(0, 5)" :key="k" class="py-0.5">
      <p v-for="id in ids" :key="id" class="flex justify-between gap-2 leading-5">
        {{ sentence(id) }} <button class="word-link shrink-0" @click="drop(id)">drop</button>
      </p>
    </div>
  </section>
  <section v-if="flaws.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Outline</h2>
    <p v-for="({ flaw, wrong, offer }, k) in flaws.slice(0, 8)" :key="k" class="text-clash py-0.5 leading-5">
      {{ wrong }}
      <button class="word-link" @click="point(flaw.ids)">show me</button>
      <template v-if="isMendable(flaw)">
        · <button class="word-link" @click="mend(flaw)">{{ offer }}</button></template
      >
    </p>
    <p v-if="flaws.length > 8" class="text-muted">and {{ flaws.length - 8 }} more</p>
  </section>
  <section v-if="state.selection.size > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Selected</h2>
    <p v-if="picked.length > 0">{{ picked.map(nameOf).join(', ') }}</p>
    <label v-if="lettering" class="my-1 flex items-baseline gap-2">
      Text
      <input
        class="chip border-rule w-full border px-2 py-0.5"
        :value="lettering.text"
        maxlength="60"
        @change="setText(editor, lettering.id, ($event.target as HTMLInputElement).value)"
        @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
      />
    </label>
    <p
      v-for="id in held"
      :key="id"
      class="py-0.5 leading-5"
      @pointerenter="editor.pointAt(refsOf(id))"
      @pointerleave="editor.pointAt([])"
    >
      {{ sentence(id) }}
      <button class="word-link" @click="drop(id)">drop</button>
      <template v-if="isSize(id)">
        ·
        <button class="word-link" @click="editor.setMeasuring(id, !isMeasuring(id))">
          {{ isMeasuring(id) ? 'let it hold' : 'make it measuring' }}
        </button>
      </template>
    </p>
    <p v-if="picked.length > 0 && held.length === 0" class="text-muted text-sm">No relations on it yet.</p>
    <p v-if="alsoGone.length > 0" class="text-muted mt-1 text-sm">
      Erasing it takes {{ alsoGone.slice(0, 4).join(', ')
      }}{{ alsoGone.length > 4 ? ` and ${alsoGone.length - 4} more` : '' }} too.
    </p>
  </section>
  <section v-if="guesses.length > 0" class="border-rule border-b p-4">
    <h2 class="heading mb-1">Guesses taken</h2>
    <p v-for="id in guesses" :key="id" class="flex justify-between gap-2 py-0.5 leading-5">
      {{ sentence(id) }} <button class="word-link shrink-0" @click="drop(id)">drop</button>
    </p>
    <p class="text-muted mt-1 text-sm">Hold <kbd class="text-key font-mono">Q</kbd> while drawing: no guesses.</p>
  </section>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-1">Areas</h2>
    <p v-if="regions.regions.length > 0">
      {{ regions.regions.length === 1 ? '1 closed area' : `${regions.regions.length} closed areas`
      }}{{ openings > 0 ? `, ${openings} ${openings === 1 ? 'opening' : 'openings'} inside` : '' }}.
    </p>
    <p v-else-if="!half" class="text-muted">No closed area yet.</p>
    <p v-if="half">
      Half a profile, open along {{ nameOf(half) }}: turned about it or mirrored in it, it is whole. To be extruded as
      it is it needs a line there.
    </p>
    <p v-else-if="regions.openEnds.length > 0" class="text-clash">
      {{ regions.openEnds.length }} open {{ regions.openEnds.length === 1 ? 'end' : 'ends' }}, ringed in the view.
    </p>
  </section>
</template>
