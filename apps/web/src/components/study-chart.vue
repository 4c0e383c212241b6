<script setup lang="ts">
import { computed, markRaw, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { formatAmount } from '@helb/core';
import { extremesOf, unitOf, type ShownChart } from '@helb/core/study';
import { download, fileName } from '../download.ts';
import { useProject } from '../stores/project.ts';
import { useStudies } from '../stores/studies.ts';
import { TimeChart } from '../view/line-chart.ts';

/** A chart of a study over its time, with a line where one stands in it. */
const props = defineProps<{ shown: ShownChart }>();
const store = useProject();
const studies = useStudies();

const element = ref<HTMLElement>();
const chart = shallowRef<TimeChart>();
const cursor = shallowRef<ReturnType<TimeChart['at']>>();

const ROUNDING = 1e-9;
const frames = computed(() => studies.outcome?.frames ?? []);
const lines = computed(() =>
  props.shown.series.map((one) => {
    const { symbol, scale } = unitOf(one.unit, store.project?.unit ?? 'mm');
    const most = Math.max(0, ...one.values.map((value) => Math.abs(value ?? 0)));
    // rounding would stretch the axis
    const rounded = (value: number) => (Math.abs(value) < ROUNDING * most ? 0 : value * scale);
    return {
      name: one.name,
      unit: symbol,
      values: one.values.map((value) => (value === null ? null : rounded(value))),
    };
  }),
);
const unit = computed(() => lines.value[0]?.unit ?? '');
const isEmpty = computed(() => lines.value.every(({ values }) => values.every((value) => value === null)));
/** What it is now, and the least and the most. */
const now = computed(() =>
  lines.value.map(({ name, values }) => {
    const value = values[studies.frame];
    return `${name} ${value == null ? '–' : formatAmount(value, 3)}`.trim();
  }),
);
const words = computed(() =>
  lines.value
    .map(({ name, values }) => {
      const found = extremesOf(values, frames.value);
      if (!found) return `${name} not told`.trim();
      const at = ({ value, time }: { value: number | null; time: number }) =>
        `${formatAmount(value!, 3)} at ${formatAmount(time, 2)} s`;
      return `${name} ${at(found.least)} to ${at(found.most)}`.trim();
    })
    .join('; '),
);

const place = () => (cursor.value = chart.value?.at(frames.value[studies.frame]?.time ?? 0));
async function draw() {
  chart.value?.show(
    frames.value.map(({ time }) => time),
    lines.value,
    unit.value,
  );
  await nextTick();
  place();
}
onMounted(() => {
  chart.value = markRaw(new TimeChart(element.value!, studies.seekTime, place));
  void draw();
});
onBeforeUnmount(() => chart.value?.end());
watch(lines, draw);
watch(() => studies.frame, place);

async function save() {
  const bytes = await (await fetch(chart.value!.png())).blob();
  download(`${fileName(`${store.kept!.name} ${props.shown.title}`)}.png`, bytes, 'image/png');
}
</script>

<template>
  <figure class="flex min-h-0 grow flex-col" :data-testid="`chart-${shown.title}`">
    <div class="relative min-h-0 grow" role="img" :aria-label="`${shown.title} over the time: ${words}`">
      <div ref="element" class="absolute inset-0"></div>
      <div
        v-if="cursor"
        class="bg-act pointer-events-none absolute w-px"
        :style="{ left: `${cursor.x}px`, top: `${cursor.top}px`, height: `${cursor.bottom - cursor.top}px` }"
      ></div>
      <p v-if="isEmpty" class="text-muted absolute inset-0 grid place-items-center text-center text-[13px]">
        {{ studies.isOld ? 'Run the study again.' : 'Not told: something has no material, or no body.' }}
      </p>
    </div>
    <figcaption class="text-muted flex gap-2 text-[12px]">
      <span class="min-w-0 grow truncate font-mono" :title="words">{{ now.join('  ') }} {{ unit }}</span>
      <button class="word-link" :aria-label="`Picture of ${shown.title}`" @click="save">PNG</button>
    </figcaption>
  </figure>
</template>
