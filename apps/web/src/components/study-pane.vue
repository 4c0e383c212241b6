<script setup lang="ts">
import { computed, ref } from 'vue';
import { formatAmount, coordinateKey, isAngle } from '@helb/core';
import { studyCsv, touchSpans } from '@helb/core/study';
import { download, fileName } from '../download.ts';
import { newId } from '../stores/ids.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useProject } from '../stores/project.ts';
import { useStudies } from '../stores/studies.ts';
import ChartWords from './chart-words.vue';
import NearestWords from './nearest-words.vue';
import StudyChart from './study-chart.vue';

/** What came of the study that is shown: played, stepped through, and as charts that go with the view. */
const store = useProject();
const assembly = useAssembly();
const studies = useStudies();
const isFolded = ref(false);

const frames = computed(() => studies.outcome?.frames ?? []);
const now = computed(() => frames.value[studies.frame]);
const last = computed(() => frames.value.at(-1)?.time ?? 0);
const spans = computed(() => touchSpans(frames.value));
/** Where what is driven stands now, as typed. */
const driven = computed(() => {
  const [drive] = studies.study?.drives ?? [];
  if (!drive || !now.value) return '';
  const key = coordinateKey(drive.joint, drive.coordinate);
  const value = now.value.pose.coordinates.get(key) ?? 0;
  return assembly.typed(key, value, isAngle(key) ? 2 : 3);
});

function addChart() {
  const { joint, coordinate } = studies.study!.drives[0]!;
  const { shown: id } = studies;
  const end = { joint, coordinate };
  store.act([
    { command: 'study.chart', input: { id: id!, chart: newId('c'), shows: { of: 'coordinate', end, shown: 'speed' } } },
  ]);
}
function addNearest() {
  store.act([{ command: 'study.approach', input: { id: studies.shown!, approach: newId('n'), looks: {} } }]);
}
function save() {
  const { outcome, charts, study } = studies;
  const text = studyCsv(charts, frames.value, outcome!.input.plan, studies.nameAt, store.project!.unit);
  download(`${fileName(`${store.kept!.name} ${study!.name}`)}.csv`, text, 'text/csv;charset=utf-8');
}
const shareOf = (time: number) => `${(100 * time) / (last.value || 1)}%`;
</script>

<template>
  <section
    v-if="studies.study && frames.length > 0"
    class="border-rule bg-sheet shrink-0 border-t px-3 py-1.5"
    aria-label="What came of the study"
    data-testid="study-pane"
  >
    <div class="flex items-center gap-3 text-sm">
      <button
        class="word-link w-12 text-left"
        :aria-pressed="studies.isPlaying"
        @click="studies.isPlaying ? studies.pause() : studies.play()"
      >
        {{ studies.isPlaying ? 'pause' : 'play' }}
      </button>
      <button class="word-link" aria-label="One pose back" @click="studies.seek(studies.frame - 1)">◂</button>
      <input
        type="range"
        class="min-w-0 grow"
        min="0"
        :max="frames.length - 1"
        step="1"
        :value="studies.frame"
        aria-label="Time of the study"
        :aria-valuetext="`${formatAmount(now?.time ?? 0, 2)} s`"
        @input="studies.seek(Number(($event.target as HTMLInputElement).value))"
      />
      <button class="word-link" aria-label="One pose on" @click="studies.seek(studies.frame + 1)">▸</button>
      <span class="w-40 shrink-0 text-right whitespace-nowrap font-mono text-[13px]" data-testid="study-now"
        >{{ formatAmount(now?.time ?? 0, 3) }} s · {{ driven }}</span
      >
      <span v-if="studies.isOld" class="text-loose whitespace-nowrap">out of date</span>
      <button class="word-link" @click="save">CSV</button>
      <button class="word-link whitespace-nowrap" @click="addChart">+ chart</button>
      <button class="word-link whitespace-nowrap" @click="addNearest">+ how near</button>
      <button class="word-link" :aria-expanded="!isFolded" @click="isFolded = !isFolded">
        {{ isFolded ? 'unfold' : 'fold' }}
      </button>
      <button class="word-link" aria-label="Close the study" @click="studies.show(undefined)">close</button>
    </div>
    <template v-if="!isFolded">
      <div v-if="studies.charts.length > 0" class="flex gap-4 overflow-x-auto pt-1">
        <div v-for="one in studies.charts" :key="one.id" class="flex h-44 min-w-64 flex-1 flex-col">
          <ChartWords :id="one.id" :study="studies.shown!" :chart="one.chart" />
          <StudyChart :shown="one" />
        </div>
      </div>
      <NearestWords
        v-for="(approach, id) in studies.study.approaches"
        :id="id"
        :key="id"
        :study="studies.shown!"
        :approach="approach"
        :found="studies.nearest.get(id)"
      />
      <div
        v-for="pair in spans.slice(0, 6)"
        :key="`${pair[0]!.a} ${pair[0]!.b}`"
        class="flex items-center gap-2 text-[12px]"
      >
        <span class="text-muted w-48 shrink-0 truncate"
          >{{ assembly.nameOf(pair[0]!.a) }} – {{ assembly.nameOf(pair[0]!.b) }}</span
        >
        <span class="bg-chip relative h-2 grow">
          <span
            v-for="{ from, to } in pair"
            :key="from"
            class="bg-link absolute inset-y-0 min-w-0.5"
            :style="{ left: shareOf(from), width: shareOf(to - from) }"
            :title="`touch from ${formatAmount(from, 3)} to ${formatAmount(to, 3)} s`"
          ></span>
          <span class="bg-act absolute inset-y-0 w-px" :style="{ left: shareOf(now?.time ?? 0) }"></span>
        </span>
      </div>
      <p v-if="spans.length > 6" class="text-muted text-[12px]">and {{ spans.length - 6 }} more pairs that touch</p>
      <p class="text-muted pt-0.5 text-[12px]">
        Motion by shape: without friction, mass and bounce. Fingers, guards and loads are for a qualified person to
        judge.
      </p>
    </template>
  </section>
</template>
