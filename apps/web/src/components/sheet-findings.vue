<script setup lang="ts">
import { computed } from 'vue';
import { explain, markReferences, nothingFound } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';

/** What is to be mended before the sheet goes out: shown where it is, and done where that can be. */
const sheets = useSheets();
const writing = useWriting();

const findings = computed(() => sheets.composed?.findings ?? []);
const placeable = computed(() => findings.value.flatMap(({ place }) => place ?? []));
const shows = (k: number) => {
  const { mark, view, place } = findings.value[k]!;
  return mark !== undefined || view !== undefined || place !== undefined;
};
function show(k: number) {
  const finding = findings.value[k]!;
  const about = finding.place ?? (finding.mark === undefined ? undefined : writing.marks[finding.mark]);
  writing.show(finding, about ? markReferences(about) : []);
}
</script>

<template>
  <section class="border-rule border-b p-4" aria-label="Before it goes out">
    <h2 class="heading mb-1 flex justify-between">
      Before it goes out
      <span
        v-if="findings.length > 0"
        class="bg-act grid min-w-5 place-items-center rounded-full px-1.5 text-[12px] text-white"
        >{{ findings.length }}</span
      >
    </h2>
    <p v-if="findings.length === 0" class="text-muted">{{ nothingFound(sheets.sheet!) }}</p>
    <p v-if="placeable.length > 1" class="pb-1">
      <button class="word-link" :disabled="sheets.busy" @click="writing.addAll(placeable)">
        tell all {{ placeable.length }} that are missing
      </button>
    </p>
    <ul class="max-h-60 overflow-y-auto">
      <li v-for="({ issue, place, mark }, k) in findings" :key="k" class="flex gap-2 py-1 leading-5">
        <span class="border-loose mt-1.5 size-2 shrink-0 rounded-full border" />
        <span>
          {{ explain(issue) }}
          <button v-if="shows(k)" class="word-link ml-1.5" @click="show(k)">show me</button>
          <button v-if="place" class="word-link ml-2.5" :disabled="sheets.busy" @click="writing.add(place)">
            tell it
          </button>
          <button v-if="mark !== undefined" class="word-link ml-2.5" @click="writing.remove(mark)">take it off</button>
        </span>
      </li>
    </ul>
  </section>
</template>
