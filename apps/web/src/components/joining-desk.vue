<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref } from 'vue';
import { ANGLE, LENGTH, type Action } from '@helb/core';
import {
  ASSEMBLY_RELATIONS,
  FACINGS,
  SPOTS,
  type AssemblyRelationName,
  type FacingName,
  type JointName,
  type Spot,
} from '@helb/core/assembly';
import { JOINT_TITLES, RELATION_TITLES, useJoining } from '../stores/joining.ts';
import { useAssembly } from '../stores/assembly.ts';
import ChoiceWord from './choice-word.vue';
import NumberChip from './number-chip.vue';

/** A joint or relation in the making: a sentence that asks for one thing after the other. */
const joining = useJoining();
const assemblyStore = useAssembly();
const draft = computed(() => joining.draft!);
const isJoint = computed(() => draft.value.sort === 'joint');
const relation = computed(() =>
  isJoint.value ? undefined : ASSEMBLY_RELATIONS[draft.value.kind as AssemblyRelationName],
);
const none = (): Action[] => [];
const keeping = (field: 'offset' | 'angle' | 'amount') => (text: string) => joining.change({ [field]: text });
const keepingAside = (at: 0 | 1) => (text: string) => {
  const [x, y] = draft.value.aside;
  return joining.change({ aside: at === 0 ? [text, y] : [x, text] });
};
const offset = ref<InstanceType<typeof NumberChip>>();
const amount = ref<InstanceType<typeof NumberChip>>();
joining.desk = {
  typeNumber(text) {
    if (!joining.beginNumber()) return false;
    // that of a distance is there when it has become one
    void nextTick(() => (isJoint.value ? offset : amount).value?.begin(text));
    return true;
  },
};
onBeforeUnmount(() => (joining.desk = undefined));

const prompt = computed(() => {
  if (joining.asked === undefined) return '';
  if (joining.asked === 1 && draft.value.keep) return 'Choose the other part in the view.';
  const first = joining.asked === 0;
  return `Choose ${first ? 'something of one part' : 'something of the other'} in the view: a face, an edge, a corner, a centre, a datum. Tab steps to what lies behind.`;
});
</script>

<template>
  <section class="border-rule border-b p-4" data-testid="joining">
    <h2 class="heading mb-2">
      {{ isJoint ? 'Join' : 'Relate' }}:
      <ChoiceWord
        :value="draft.kind"
        :options="isJoint ? JOINT_TITLES : RELATION_TITLES"
        label="kind"
        @choose="(kind) => joining.change({ kind: kind as JointName })"
      />
    </h2>
    <ol class="space-y-1">
      <li
        v-for="at in [0, 1] as const"
        :key="at"
        class="border-l-2 pl-2"
        :class="joining.asked === at ? 'border-act' : 'border-rule'"
      >
        <template v-if="draft.sides[at]">
          {{ assemblyStore.nameOf(draft.sides[at]!.placement) }}
          <span v-if="!(at === 1 && draft.keep && isJoint)" class="text-muted">· {{ draft.sides[at]!.words }}</span>
          <template v-if="isJoint && joining.ends(draft.sides[at]!) && !(at === 1 && draft.keep)">
            at
            <ChoiceWord
              :value="draft.sides[at]!.spot"
              :options="SPOTS"
              :label="`where on the ${at === 0 ? 'first' : 'second'}`"
              @choose="(spot) => joining.turnSpot(at, spot as Spot)"
            />
          </template>
          <button class="word-link ml-1 text-sm" @click="joining.drop(at)">drop</button>
        </template>
        <span v-else class="text-muted">{{ at === 0 ? 'the first' : 'the second' }} …</span>
      </li>
    </ol>
    <p v-if="joining.loosened" class="mt-2 text-sm">
      {{ assemblyStore.nameOf(joining.loosened) }} stands still no more: it
      {{ isJoint && draft.keep ? 'moves as the joint lets it.' : 'goes to the other.' }}
    </p>
    <p v-if="prompt" class="text-muted mt-2 text-sm" role="status">{{ prompt }}</p>
    <p v-if="joining.asked === undefined && assemblyStore.assembled" class="text-muted mt-2 text-sm">
      So all together have <span data-testid="joined-freedoms">{{ assemblyStore.assembled.freedoms.count }}</span>
      freedoms.
    </p>
    <div v-if="isJoint" class="mt-3 space-y-1">
      <ChoiceWord
        :value="draft.keep ? 'keep' : 'move'"
        :options="{ move: 'move into place', keep: 'keep where they are' }"
        label="placing"
        @choose="(how) => joining.change({ keep: how === 'keep' })"
      />
      <template v-if="!draft.keep">
        <p>
          offset
          <NumberChip
            ref="offset"
            :text="draft.offset"
            :asks="LENGTH"
            label="offset"
            :change="none"
            :keep="keeping('offset')"
            :entered="() => void joining.accept()"
          />
          angle
          <NumberChip :text="draft.angle" :asks="ANGLE" label="angle" :change="none" :keep="keeping('angle')" />
        </p>
        <p>
          along x
          <NumberChip
            :text="draft.aside[0]"
            :asks="LENGTH"
            label="offset along x"
            :change="none"
            :keep="keepingAside(0)"
          />
          along y
          <NumberChip
            :text="draft.aside[1]"
            :asks="LENGTH"
            label="offset along y"
            :change="none"
            :keep="keepingAside(1)"
          />
        </p>
        <label class="block"
          ><input type="checkbox" :checked="draft.flip" @change="joining.change({ flip: !draft.flip })" /> looking
          against each other</label
        >
      </template>
    </div>
    <p v-else-if="relation?.asks" class="mt-3">
      by
      <NumberChip
        ref="amount"
        :text="draft.amount || relation.initial!"
        :asks="relation.asks"
        label="amount"
        :change="none"
        :keep="keeping('amount')"
        :entered="() => void joining.accept()"
      />
    </p>
    <p v-else-if="joining.asked === undefined" class="text-muted mt-3 text-sm">A number keeps them so far apart.</p>
    <p v-if="joining.asked === undefined" class="text-muted mt-2 text-sm">
      Enter takes it. So does the next thing that you pick: it begins another.
    </p>
    <p v-if="joining.facing" class="mt-3">
      <ChoiceWord
        :value="joining.facing"
        :options="FACINGS"
        label="facing"
        @choose="(facing) => joining.change({ facing: facing as FacingName })"
      />
    </p>
    <p v-if="joining.wrong" class="text-clash mt-2 text-sm" role="alert">{{ joining.wrong }}</p>
    <p class="mt-3 flex gap-2">
      <button class="verb-strong" @click="joining.accept()">Accept</button>
      <button class="verb" @click="joining.leave()">Leave</button>
    </p>
  </section>
</template>
