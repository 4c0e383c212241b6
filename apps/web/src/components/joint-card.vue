<script setup lang="ts">
import { computed, ref } from 'vue';
import { ANGLE, LENGTH, type Action, type Id, type Coordinate, coordinateKey } from '@helb/core';
import { JOINTS, type JointName, type JointRecord } from '@helb/core/assembly';
import { JOINT_TITLES } from '../stores/joining.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import ChoiceWord from './choice-word.vue';
import CoordinateDrive from './coordinate-drive.vue';
import NameField from './name-field.vue';
import NumberChip from './number-chip.vue';
import TypedField from './typed-field.vue';

/** A joint: what it holds, where it may go, where it is. */
const props = defineProps<{ id: Id; record: JointRecord }>();
const store = useProject();
const assemblyStore = useAssembly();
const open = ref(false);

const leaves = computed((): readonly Coordinate[] => JOINTS[props.record.kind].leaves);
const works = computed(() => assemblyStore.assembled?.mechanism.joints.some(({ id }) => id === props.id) ?? false);
const wrong = computed(() => assemblyStore.troubleOf(props.id));
const twice = computed(
  () => assemblyStore.assembled?.freedoms.redundant.some((set) => set.includes(props.id)) ?? false,
);

const setting = (fields: Partial<JointRecord>, without?: string[]): Action[] => [
  { command: 'joint.set', input: { id: props.id, fields, ...(without ? { without } : {}) } },
];
/** Another kind has other coordinates: of bounds and rest values those stay that it has too. */
function become(kind: string) {
  const next = JOINTS[kind as JointName].leaves as readonly Coordinate[];
  const kept = <T,>(record: Partial<Record<Coordinate, T>> | undefined) =>
    Object.fromEntries(Object.entries(record ?? {}).filter(([key]) => next.includes(key as Coordinate)));
  store.act(setting({ kind: kind as JointName, limits: kept(props.record.limits), rest: kept(props.record.rest) }));
}

/** What bounds and rest values are set; an empty text takes one away. */
function bound(coordinate: Coordinate, which: 'least' | 'most' | 'rest', text: string) {
  const { limits = {}, rest = {} } = props.record;
  if (which === 'rest') {
    const { [coordinate]: _, ...others } = rest;
    return store.act(setting({ rest: text ? { ...others, [coordinate]: text } : others }));
  }
  const { [which]: __, ...range } = limits[coordinate] ?? {};
  const next = text ? { ...range, [which]: text } : range;
  return store.act(setting({ limits: { ...limits, [coordinate]: next } }));
}
const textOf = (coordinate: Coordinate, which: 'least' | 'most' | 'rest') =>
  (which === 'rest' ? props.record.rest?.[coordinate] : props.record.limits?.[coordinate]?.[which]) ?? '';

/** How the second stands off the first and is turned; as it was drawn only what was told otherwise. */
const numbers = computed(() => {
  const { name, offset, angle, aside = ['0 mm', '0 mm'], b } = props.record;
  const [x, y] = aside;
  const all = [
    { words: 'offset', text: offset, asks: LENGTH, initial: '0 mm', fields: (text: string) => ({ offset: text }) },
    {
      words: 'along x',
      text: x,
      asks: LENGTH,
      initial: '0 mm',
      fields: (text: string) => ({ aside: [text, y] as [string, string] }),
    },
    {
      words: 'along y',
      text: y,
      asks: LENGTH,
      initial: '0 mm',
      fields: (text: string) => ({ aside: [x, text] as [string, string] }),
    },
    { words: 'angle', text: angle, asks: ANGLE, initial: '0 deg', fields: (text: string) => ({ angle: text }) },
  ];
  return all
    .filter(({ text, initial }) => 'on' in b || text !== initial)
    .map((one) => ({ ...one, label: `${one.words.charAt(0).toUpperCase()}${one.words.slice(1)} of ${name}` }));
});

/** Both parts light up. */
const point = () => (assemblyStore.lit = [props.record.a.placement, props.record.b.placement]);
</script>

<template>
  <li
    class="border-rule border-b px-4 py-2"
    :aria-label="record.name"
    @mouseenter="point"
    @mouseleave="assemblyStore.lit = []"
  >
    <div class="flex items-baseline gap-2">
      <NameField
        class="min-w-0 grow"
        :value="record.name"
        :label="`Name of ${record.name}`"
        @change="(name) => name.trim() && store.act(setting({ name: name.trim() }))"
      />
      <ChoiceWord :value="record.kind" :options="JOINT_TITLES" label="kind" @choose="become" />
      <button class="word-link text-sm" :aria-expanded="open" @click="open = !open">
        {{ open ? 'less' : 'more' }}
      </button>
    </div>
    <p class="text-muted truncate text-sm">
      {{ assemblyStore.nameOf(record.a.placement) }} – {{ assemblyStore.nameOf(record.b.placement)
      }}{{ 'on' in record.b ? '' : ', as drawn' }}
    </p>
    <template v-if="works">
      <CoordinateDrive
        v-for="coordinate in leaves"
        :key="coordinate"
        :path="coordinateKey(id, coordinate)"
        :name="coordinate"
        :label="`${record.name} ${coordinate}`"
      />
    </template>
    <p v-if="wrong" class="text-clash text-sm" role="alert">{{ wrong }}</p>
    <p v-else-if="twice && open" class="text-muted text-sm">Tells something that others tell too: that does no harm.</p>
    <div v-if="open" class="flex flex-wrap items-baseline gap-x-3 gap-y-1 pt-1 text-sm">
      <span v-for="{ words, text, asks, label, fields } in numbers" :key="words"
        >{{ words }} <NumberChip :text="text" :asks="asks" :label="label" :change="(typed) => setting(fields(typed))"
      /></span>
      <label v-if="'on' in record.b"
        ><input type="checkbox" :checked="record.flip" @change="store.act(setting({ flip: !record.flip }))" /> looking
        against each other</label
      >
      <template v-for="coordinate in leaves" :key="coordinate">
        <span v-for="which in ['least', 'most', 'rest'] as const" :key="which" class="flex items-baseline gap-1">
          {{ leaves.length > 1 ? `${coordinate} ` : '' }}{{ which === 'rest' ? 'at rest' : which }}
          <TypedField
            class="chip focus:border-act w-20 outline-none"
            :value="textOf(coordinate, which)"
            :placeholder="which === 'rest' ? 'as drawn' : 'none'"
            :label="`${which} ${coordinate} of ${record.name}`"
            :most="120"
            :change="(text) => bound(coordinate, which, text)"
          />
          <button
            v-if="which === 'rest' && assemblyStore.moved && works"
            class="word-link"
            :aria-label="`Rest ${record.name} ${coordinate} where it is`"
            @click="bound(coordinate, 'rest', assemblyStore.reading(coordinateKey(id, coordinate)))"
          >
            here
          </button>
        </span>
      </template>
      <button class="word-link" @click="store.act([{ command: 'joint.remove', input: { ids: [id] } }])">remove</button>
    </div>
  </li>
</template>
