<script setup lang="ts">
import { computed } from 'vue';
import {
  formatAmount,
  LENGTH,
  NUMBER,
  roundLength,
  type Id,
  type Coordinate,
  type CoordinateKey,
  coordinateKey,
  coordinateOf,
  isAngle,
  isNested,
  isTurn,
  jointOf,
} from '@helb/core';
import { JOINTS, type RatioRecord } from '@helb/core/assembly';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import ChoiceWord from './choice-word.vue';
import ContactList from './contact-list.vue';
import CoordinateDrive from './coordinate-drive.vue';
import JointCard from './joint-card.vue';
import NumberChip from './number-chip.vue';
import StudiesList from './studies-list.vue';
import RelationCard from './relation-card.vue';

/** The joints, those that move first, the relations, what goes together, and the points that are traced. */
const store = useProject();
const assemblyStore = useAssembly();

const assembly = computed(() => store.project?.assembly);
const joints = computed(() => Object.entries(assembly.value?.joints ?? {}));
const moving = computed(() => joints.value.filter(([, { kind }]) => JOINTS[kind].leaves.length > 0));
/** Joints of groups that move inside: driven here, changed where the group is made. */
const inside = computed(() => {
  const found = (assemblyStore.assembled?.mechanism.joints ?? []).filter(({ id }) => isNested(id));
  return found.flatMap(({ id, kind }) =>
    JOINTS[kind].leaves.map((name: Coordinate) => ({ path: coordinateKey(id, name), id, name })),
  );
});
const stiff = computed(() => joints.value.filter(([, { kind }]) => JOINTS[kind].leaves.length === 0));
const relations = computed(() => Object.entries(assembly.value?.relations ?? {}));
const ratios = computed(() => Object.entries(assembly.value?.ratios ?? {}));
const traces = computed(() => Object.entries(assembly.value?.traces ?? {}));

/** Everything that can go together, by joint and coordinate. */
const ends = computed(() =>
  Object.fromEntries(
    moving.value.flatMap(([id, { kind, name }]) =>
      (JOINTS[kind].leaves as readonly Coordinate[]).map((coordinate) => [
        coordinateKey(id, coordinate),
        JOINTS[kind].leaves.length > 1 ? `${name} ${coordinate}` : name,
      ]),
    ),
  ),
);
const endOf = (key: CoordinateKey): RatioRecord['first'] => ({ joint: jointOf(key), coordinate: coordinateOf(key) });
const keyOfEnd = ({ joint, coordinate }: RatioRecord['first']) => coordinateKey(joint, coordinate);
const asksOf = ({ first, second }: RatioRecord) =>
  isTurn(first.coordinate) && !isTurn(second.coordinate) ? LENGTH : NUMBER;

const factorFor = (record: RatioRecord) => (asksOf(record) === LENGTH ? roundLength(10, store.kept!.unit) : '1');

function addRatio() {
  const keys = Object.keys(ends.value) as CoordinateKey[];
  const [first, second] = [...keys].sort((a, b) => Number(isAngle(b)) - Number(isAngle(a)));
  if (!first || !second) return;
  const record: RatioRecord = {
    name: `Ratio ${ratios.value.length + 1}`,
    first: endOf(first),
    second: endOf(second),
    factor: '1',
  };
  store.act([
    {
      command: 'ratio.add',
      input: { id: newId('r'), record: { ...record, factor: factorFor(record) } },
    },
  ]);
}
const setEnd = (id: Id, record: RatioRecord, which: 'first' | 'second', key: CoordinateKey) => {
  const next = { ...record, [which]: endOf(key) };
  const factor = asksOf(next) === asksOf(record) ? record.factor : factorFor(next);
  store.act([{ command: 'ratio.set', input: { id, fields: { [which]: endOf(key), factor } } }]);
};
const partsWays = computed(
  () => assemblyStore.parting || (!assemblyStore.moved && (assemblyStore.assembled?.freedoms.parting.length ?? 0) > 0),
);
const places = computed(() => new Map(assemblyStore.tracedPlaces()));
</script>

<template>
  <div class="grow overflow-y-auto" data-testid="motion-list">
    <h2 class="heading px-4 pt-3 pb-1">
      What moves
      <span v-if="assemblyStore.assembled" class="text-muted font-normal" data-testid="freedoms">{{
        assemblyStore.assembled.freedoms.count === 1
          ? '1 freedom'
          : `${assemblyStore.assembled.freedoms.count} freedoms`
      }}</span>
    </h2>
    <p v-if="partsWays" class="text-loose px-4 pb-1 text-sm" role="status">
      A dead point: from here it can go on in more than one way. Drive it on a little to choose.
    </p>
    <ul aria-label="Joints that move">
      <JointCard v-for="[id, record] in moving" :id="id" :key="id" :record="record" />
    </ul>
    <p v-if="moving.length === 0" class="text-muted px-4 pb-2 text-sm">
      No joint that moves yet. Pick a round face on one part and one on another, then join them.
    </p>
    <template v-if="inside.length > 0">
      <h2 class="heading px-4 pt-4 pb-1">What moves inside groups</h2>
      <ul aria-label="Joints of groups">
        <li v-for="{ path, id, name } in inside" :key="path" class="border-rule border-b px-4 py-1.5">
          <p class="truncate text-sm">{{ assemblyStore.nameOf(id) }}</p>
          <CoordinateDrive :path="path" :name="name" :label="`${assemblyStore.nameOf(id)} ${name}`" />
        </li>
      </ul>
    </template>
    <template v-if="ratios.length > 0 || Object.keys(ends).length > 1">
      <h2 class="heading px-4 pt-4 pb-1">What goes together</h2>
      <ul aria-label="Ratios">
        <li v-for="[id, record] in ratios" :key="id" class="border-rule border-b px-4 py-1.5">
          <ChoiceWord
            :value="keyOfEnd(record.first)"
            :options="ends"
            label="first"
            @choose="(key) => setEnd(id, record, 'first', key as CoordinateKey)"
          />
          takes
          <ChoiceWord
            :value="keyOfEnd(record.second)"
            :options="ends"
            label="second"
            @choose="(key) => setEnd(id, record, 'second', key as CoordinateKey)"
          />
          along by
          <NumberChip
            :text="record.factor"
            :asks="asksOf(record)"
            :label="`Factor of ${record.name}`"
            :change="(factor) => [{ command: 'ratio.set', input: { id, fields: { factor } } }]"
          />
          {{ asksOf(record) === LENGTH ? 'a turn' : '' }}
          <button
            class="word-link text-sm"
            :aria-label="`Remove ${record.name}`"
            @click="store.act([{ command: 'ratio.remove', input: { ids: [id] } }])"
          >
            remove
          </button>
          <p v-if="assemblyStore.troubleOf(id)" class="text-clash text-sm" role="alert">
            {{ assemblyStore.troubleOf(id) }}
          </p>
        </li>
      </ul>
      <button class="word-link px-4 py-1.5 text-sm" @click="addRatio">+ let two go together</button>
    </template>
    <ContactList v-if="assemblyStore.isPlaced" />
    <StudiesList v-if="assemblyStore.isPlaced" />
    <template v-if="traces.length > 0">
      <h2 class="heading px-4 pt-4 pb-1">Traced points</h2>
      <ul aria-label="Traces">
        <li v-for="[id, { name }] in traces" :key="id" class="border-rule border-b px-4 py-1.5 text-sm">
          <div class="flex justify-between gap-2">
            <span class="truncate">{{ name }}</span>
            <button
              class="word-link"
              :aria-label="`Remove ${name}`"
              @click="store.act([{ command: 'trace.remove', input: { ids: [id] } }])"
            >
              remove
            </button>
          </div>
          <p class="text-muted font-mono text-[13px]" :data-testid="`trace-${name}`">
            {{
              places
                .get(id)
                ?.map((c) => formatAmount(c, 2))
                .join('  ') ?? '–'
            }}
            mm
          </p>
          <p v-if="assemblyStore.troubleOf(id)" class="text-clash" role="alert">{{ assemblyStore.troubleOf(id) }}</p>
        </li>
      </ul>
    </template>
    <template v-if="relations.length > 0">
      <h2 class="heading px-4 pt-4 pb-1">Relations</h2>
      <ul aria-label="Relations of parts">
        <RelationCard v-for="[id, record] in relations" :id="id" :key="id" :record="record" />
      </ul>
    </template>
    <template v-if="stiff.length > 0">
      <h2 class="heading px-4 pt-4 pb-1">
        What holds rigidly <span class="text-muted font-normal">{{ stiff.length }}</span>
      </h2>
      <ul aria-label="Rigid joints">
        <JointCard v-for="[id, record] in stiff" :id="id" :key="id" :record="record" />
      </ul>
    </template>
  </div>
</template>
