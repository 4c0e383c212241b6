<script setup lang="ts">
import { computed } from 'vue';
import {
  ANGLE,
  explain,
  formatAmount,
  LENGTH,
  NUMBER,
  roundLength,
  type Action,
  type Dimension,
  headOf,
} from '@helb/core';
import { memberPose, triple, turnsOf, freedomWords, type Placement } from '@helb/core/assembly';
import { useWorkbench } from '../stores/workbench.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import ChoiceWord from './choice-word.vue';
import NameField from './name-field.vue';
import NumberChip from './number-chip.vue';

/** A placement: what it is of, where it is drawn, where it is now, and what it can be made. */
const store = useProject();
const bench = useWorkbench();
const assemblyStore = useAssembly();
const placements = usePlacements();
const emit = defineEmits<{ edit: [] }>();

const id = computed(() => placements.only!);
const record = computed(() => placements.record!);
const AXES = ['x', 'y', 'z'] as const;

const part = computed(() => ('part' in record.value.of ? record.value.of.part : undefined));
const parts = computed(() =>
  Object.fromEntries((store.project?.partOrder ?? []).map((one) => [one, store.project!.parts[one]!.name])),
);
const group = computed(() => ('group' in record.value.of ? record.value.of : undefined));

const setting = (fields: Partial<Placement>): Action[] => [
  { command: 'placement.set', input: { id: id.value, fields } },
];
const along = (field: 'at' | 'turn', axis: (typeof AXES)[number]) => (text: string) =>
  setting({ [field]: { ...record.value[field], [axis]: text } });

const now = computed(() => {
  const [member] = placements.membersOf(id.value);
  if (!member || !assemblyStore.pose) return undefined;
  const pose = memberPose(member, assemblyStore.pose);
  return {
    at: pose.map((row) => formatAmount(row[3], 2)).join('  '),
    turn: turnsOf(pose)
      .map((angle) => formatAmount((angle * 180) / Math.PI, 2))
      .join('  '),
  };
});
const moves = computed(() => {
  const [member] = placements.membersOf(id.value);
  const ways = member && assemblyStore.assembled?.freedoms.bodies[member.body];
  return ways ? freedomWords(ways) : '';
});
const wrong = computed(() => {
  const issue = assemblyStore.assembled?.issues.get(id.value);
  return issue ? explain(issue) : '';
});
const joints = computed(() =>
  Object.values(store.project?.assembly?.joints ?? {}).filter(({ a, b }) =>
    [a.placement, b.placement].some((path) => headOf(path) === id.value),
  ),
);

function editPart() {
  if (part.value === undefined) return;
  bench.show(part.value);
  emit('edit');
}

const row = computed(() => (record.value.repeat?.layout === 'line' ? record.value.repeat : undefined));
const ring = computed(() => (record.value.repeat?.layout === 'round' ? record.value.repeat : undefined));
const REPEATS = { once: 'once', line: 'in a row', round: 'round an axis' };
const others = computed(() =>
  Object.fromEntries(placements.records.flatMap(([one, { name, of }]) => ('part' in of ? [[one, name]] : []))),
);
const AXIS_NAMES = { x: 'x axis', y: 'y axis', z: 'z axis' };
/** Round which axis of what: one that was picked otherwise is only told. */
const ringAxis = computed(() => (ring.value?.about.on.to === 'origin' ? ring.value.about.on.name : ''));
const round = (about: { placement?: string; name?: string }) =>
  placements.set(id.value, {
    repeat: {
      ...ring.value!,
      about: {
        placement: about.placement ?? ring.value!.about.placement,
        on: about.name === undefined ? ring.value!.about.on : { to: 'origin', name: about.name as 'x' | 'y' | 'z' },
      },
    },
  });
function repeat(how: string) {
  if (how === 'once') placements.set(id.value, {}, ['repeat']);
  else if (how === 'line')
    placements.set(id.value, {
      repeat: { layout: 'line', count: '2', by: triple(roundLength(20, store.kept!.unit), '0 mm', '0 mm') },
    });
  else {
    // an axis is that of a part: of another one where there is one
    const parts = placements.records.filter(([, { of }]) => 'part' in of).map(([one]) => one);
    const first = parts.find((one) => one !== id.value) ?? parts[0];
    if (first === undefined) {
      store.message = 'To stand round an axis a part has to be placed whose axis that is: place one first.';
      return;
    }
    placements.set(id.value, {
      repeat: {
        layout: 'round',
        count: '4',
        over: '360 deg',
        about: { placement: first, on: { to: 'origin', name: 'z' } },
      },
    });
  }
}
const repeating = (field: string) => (text: string) => setting({ repeat: { ...record.value.repeat!, [field]: text } });
const spacing = (axis: (typeof AXES)[number]) => (text: string) =>
  setting({ repeat: { ...row.value!, by: { ...row.value!.by, [axis]: text } } });
const dims: Readonly<Record<'at' | 'turn', Dimension>> = { at: LENGTH, turn: ANGLE };
</script>

<template>
  <section class="border-rule space-y-2 border-b p-4" data-testid="placement">
    <NameField
      :value="record.name"
      label="Name of the placement"
      @change="(name) => name.trim() && placements.set(id, { name: name.trim() })"
    />
    <p v-if="part !== undefined">
      a
      <ChoiceWord
        :value="part"
        :options="parts"
        label="part"
        @choose="(next) => placements.set(id, { of: { part: next } })"
      />
      <button class="word-link ml-2 text-sm" @click="editPart">edit it</button>
    </p>
    <p v-else-if="group">
      the group {{ store.project?.groups?.[group.group]?.name }},
      <ChoiceWord
        :value="group.stiff ? 'stiff' : 'flexible'"
        :options="{ flexible: 'moving inside', stiff: 'as one stiff piece' }"
        label="group"
        @choose="(how) => placements.set(id, { of: { group: group!.group, stiff: how === 'stiff' } })"
      />
    </p>
    <p v-if="moves" class="text-sm" :class="moves === 'stands still' ? 'text-muted' : 'text-loose'">{{ moves }}</p>
    <p v-if="wrong" class="text-clash text-sm" role="alert">{{ wrong }}</p>
    <p v-for="field in ['at', 'turn'] as const" :key="field" class="flex flex-wrap items-baseline gap-1 text-sm">
      <span class="text-muted w-full">{{ field === 'at' ? 'drawn at' : 'turned about' }}</span>
      <span v-for="axis in AXES" :key="axis">
        {{ axis }}
        <NumberChip
          :text="record[field][axis]"
          :asks="dims[field]"
          :label="`${field === 'at' ? 'At' : 'Turned about'} ${axis}`"
          :change="along(field, axis)"
        />
      </span>
    </p>
    <p v-if="now" class="text-muted text-sm">
      now at <span class="font-mono text-[13px]">{{ now.at }}</span> mm, turned
      <span class="font-mono text-[13px]">{{ now.turn }}</span> °
    </p>
    <label class="block text-sm"
      ><input type="checkbox" :checked="record.held" @change="placements.set(id, { held: !record.held })" /> stands
      still</label
    >
    <div class="text-sm">
      stands there
      <ChoiceWord :value="record.repeat?.layout ?? 'once'" :options="REPEATS" label="repeat" @choose="repeat" />
      <template v-if="record.repeat">
        <NumberChip :text="record.repeat.count" :asks="NUMBER" label="count" :change="repeating('count')" />
        times<template v-if="ring"
          >, over <NumberChip :text="ring.over" :asks="ANGLE" label="over" :change="repeating('over')" />
          round the
          <ChoiceWord
            :value="ringAxis"
            :options="{ ...AXIS_NAMES, ...(ringAxis in AXIS_NAMES ? {} : { [ringAxis]: 'axis that was picked' }) }"
            label="axis"
            @choose="(name) => round({ name })" />
          of
          <ChoiceWord
            :value="ring.about.placement"
            :options="others"
            label="whose axis"
            @choose="(placement) => round({ placement })"
        /></template>
        <p v-if="row" class="pt-1">
          each further by
          <span v-for="axis in AXES" :key="axis"
            >{{ axis }}
            <NumberChip
              :text="row.by[axis]"
              :asks="LENGTH"
              :label="`apart along ${axis}`"
              :change="spacing(axis)"
            />&nbsp;</span
          >
        </p>
      </template>
    </div>
    <p v-if="joints.length > 0" class="text-muted text-sm">
      Joined by {{ joints.map(({ name }) => name).join(', ') }}.
    </p>
    <p class="flex gap-4 text-sm">
      <button class="word-link" @click="placements.place(record.of, record.name)">place again</button>
      <button class="word-link" @click="placements.remove([id])">remove</button>
    </p>
  </section>
</template>
