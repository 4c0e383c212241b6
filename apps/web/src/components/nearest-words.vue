<script setup lang="ts">
import { computed } from 'vue';
import { explain, LENGTH, type Id } from '@helb/core';
import { nearnessWords, tooNearWords, unsureWords, type Approach, type Nearness } from '@helb/core/study';
import { useProject } from '../stores/project.ts';
import { useStudies } from '../stores/studies.ts';
import ChoiceWord from './choice-word.vue';
import NumberChip from './number-chip.vue';

/** How near parts come in a study: which, how near they may, and which of them do; each is shown where it is. */
const props = defineProps<{ study: Id; id: Id; approach: Approach; found: readonly Nearness[] | undefined }>();
const store = useProject();
const studies = useStudies();

const setting = (looks?: Approach) => [
  { command: 'study.approach' as const, input: { id: props.study, approach: props.id, ...(looks ? { looks } : {}) } },
];
const set = (looks?: Approach) => store.act(setting(looks));

const ALL = 'all';
/** So many are told at most. */
const MOST = 8;
const placements = computed(() =>
  Object.entries(store.project?.assembly?.placements ?? {}).map(([id, { name }]) => [id, name] as const),
);
const firsts = computed(() => Object.fromEntries([[ALL, 'any two parts'], ...placements.value]));
const seconds = computed(() =>
  Object.fromEntries([[ALL, 'all else'], ...placements.value.filter(([id]) => id !== props.approach.a)]),
);
function choose(side: 'a' | 'b', chosen: string) {
  const { a, b, ...rest } = props.approach;
  const sides = { ...(a === undefined ? {} : { a }), ...(b === undefined ? {} : { b }) };
  if (chosen === ALL) delete sides[side];
  else sides[side] = chosen;
  // of any two there is no second
  if (sides.a === undefined || sides.a === sides.b) delete sides.b;
  set({ ...rest, ...sides });
}
const withLeast = (least?: string): Approach => {
  const { least: _before, ...rest } = props.approach;
  return { ...rest, ...(least === undefined ? {} : { least }) };
};
const usual = computed(() => (store.project!.unit === 'in' ? '0.05 in' : `1 ${store.project!.unit}`));

const least = computed(() => studies.leastOf(props.approach));
const rows = computed(() =>
  (props.found ?? []).map((one) => ({
    one,
    words: nearnessWords(one, studies.nameAt, store.project!.unit),
    unsure: unsureWords(one, store.project!.unit),
    wrong:
      least.value.ok && least.value.value !== undefined
        ? tooNearWords(one, least.value.value, studies.nameAt, store.project!.unit)
        : undefined,
  })),
);
</script>

<template>
  <div class="border-rule border-t py-1 text-[13px]" data-testid="nearest">
    <p class="flex flex-wrap items-baseline gap-x-1.5">
      How near come
      <ChoiceWord
        :value="approach.a ?? ALL"
        :options="firsts"
        label="What comes near"
        @choose="(chosen) => choose('a', chosen)"
      />
      <template v-if="approach.a !== undefined">
        and
        <ChoiceWord
          :value="approach.b ?? ALL"
          :options="seconds"
          label="To what it comes near"
          @choose="(chosen) => choose('b', chosen)"
        />
      </template>
      <template v-if="approach.least !== undefined">
        at least
        <NumberChip
          :text="approach.least"
          :asks="LENGTH"
          label="How near they may come"
          :change="(text) => setting(withLeast(text))"
        />
        <button class="word-link" aria-label="Take that limit off" @click="set(withLeast())">no limit</button>
      </template>
      <button v-else class="word-link" @click="set(withLeast(usual))">may not come nearer than …</button>
      <span v-if="found === undefined" class="text-muted" role="status">{{
        studies.nearestTrouble || (studies.isOld ? 'run the study again to see' : 'looked for …')
      }}</span>
      <button class="word-link ml-auto" aria-label="Look no longer how near they come" @click="set()">remove</button>
    </p>
    <p v-if="!least.ok" class="text-clash" role="alert">{{ explain(least.issue, store.project!.unit) }}</p>
    <ul v-if="found" aria-label="What comes nearest" class="max-h-24 overflow-y-auto">
      <li v-if="found.length === 0" class="text-muted">
        Nothing that could: what one joint holds together, stands still or is meant to press is left out.
      </li>
      <li v-for="{ one, words, unsure, wrong } in rows" :key="`${one.a} ${one.b}`" class="flex items-baseline gap-2">
        <span class="min-w-0 grow" :class="wrong ? 'text-clash' : ''"
          >{{ wrong ?? `${words}.` }} <span v-if="unsure && !wrong" class="text-muted">{{ unsure }}</span></span
        >
        <button class="word-link shrink-0" :aria-label="`Show ${words}`" @click="studies.lookAt(one)">show me</button>
      </li>
      <li v-if="rows.length >= MOST" class="text-muted">These are the {{ MOST }} that come nearest.</li>
    </ul>
  </div>
</template>
