<script setup lang="ts">
import { computed } from 'vue';
import { coordinateKey, type CoordinateKey, type Id } from '@helb/core';
import { SHOWN, type Chart, type Shown } from '@helb/core/study';
import { useProject } from '../stores/project.ts';
import { endOfKey, useStudies } from '../stores/studies.ts';
import ChoiceWord from './choice-word.vue';
import CoordinateWords from './coordinate-words.vue';

/** What a chart shows, as words that are changed where they stand. */
const props = defineProps<{ study: Id; id: Id; chart: Chart }>();
const store = useProject();
const studies = useStudies();

const set = (shows?: Chart) =>
  store.act([{ command: 'study.chart', input: { id: props.study, chart: props.id, ...(shows ? { shows } : {}) } }]);

const placements = computed(() =>
  Object.fromEntries(Object.entries(store.project?.assembly?.placements ?? {}).map(([id, { name }]) => [id, name])),
);
const traces = computed(() =>
  Object.fromEntries(
    Object.entries(store.project?.assembly?.traces ?? {}).map(([id, { name }]) => [`trace ${id}`, name]),
  ),
);
/** What can be shown at all: a distance needs two placements. */
const kinds = computed((): Record<string, string> => ({
  ...SHOWN,
  ratio: 'ratio',
  ...(Object.keys(placements.value).length > 1 ? { distance: 'distance' } : {}),
  holding: 'what holds it',
}));
const kind = computed(() => ('shown' in props.chart ? props.chart.shown : props.chart.of));

/** The first coordinate that is driven, and another where there is one. */
const ends = computed(() => {
  const [drive] = store.project?.studies?.[props.study]?.drives ?? [];
  const first = { joint: drive!.joint, coordinate: drive!.coordinate };
  const keys = Object.keys(studies.coordinates) as CoordinateKey[];
  const other = keys.find((key) => key !== coordinateKey(first.joint, first.coordinate));
  return { first, second: other ? endOfKey(other) : first };
});
function choose(what: string) {
  const { first, second } = ends.value;
  const { chart } = props;
  const [a, b] = Object.keys(placements.value) as [string, string];
  if (what === 'ratio') set({ of: 'ratio', first, second });
  else if (what === 'distance') set({ of: 'distance', a, b });
  else if (what === 'holding') set({ of: 'holding' });
  else if (chart.of === 'point') set({ ...chart, shown: what as Shown });
  else set({ of: 'coordinate', end: chart.of === 'coordinate' ? chart.end : first, shown: what as Shown });
}

const things = computed(() => ({ ...studies.coordinates, ...traces.value }));
const thing = computed(() =>
  props.chart.of === 'coordinate'
    ? coordinateKey(props.chart.end.joint, props.chart.end.coordinate)
    : props.chart.of === 'point'
      ? `trace ${props.chart.trace}`
      : '',
);
function chooseThing(chosen: string) {
  const { chart } = props;
  if (!('shown' in chart)) return;
  const { shown } = chart;
  if (chosen.startsWith('trace ')) set({ of: 'point', trace: chosen.slice('trace '.length), shown });
  else set({ of: 'coordinate', end: endOfKey(chosen as CoordinateKey), shown });
}
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-1 text-[13px]">
    <ChoiceWord :value="kind" :options="kinds" label="What the chart shows" @choose="choose" />
    <template v-if="'shown' in chart">
      of <ChoiceWord :value="thing" :options="things" label="Of what it is shown" @choose="chooseThing" />
    </template>
    <template v-else-if="chart.of === 'ratio'">
      of
      <CoordinateWords :end="chart.second" label="What goes" @choose="(second) => set({ ...chart, second } as Chart)" />
      by
      <CoordinateWords
        :end="chart.first"
        label="By what it goes"
        @choose="(first) => set({ ...chart, first } as Chart)"
      />
    </template>
    <template v-else-if="chart.of === 'distance'">
      from
      <ChoiceWord
        :value="chart.a"
        :options="placements"
        label="From what"
        @choose="(a) => set({ ...chart, a } as Chart)"
      />
      to
      <ChoiceWord
        :value="chart.b"
        :options="placements"
        label="To what"
        @choose="(b) => set({ ...chart, b } as Chart)"
      />
    </template>
    <span v-else class="text-muted">against its weight</span>
    <button class="word-link ml-auto" aria-label="Take the chart off" @click="set()">remove</button>
  </p>
</template>
