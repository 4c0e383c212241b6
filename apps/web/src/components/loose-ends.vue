<script setup lang="ts">
import { isSketch } from '@helb/core';
import { computed } from 'vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';

/** What is still free, open or unresolved in this part. */
const bench = useWorkbench();
const model = useModel();

const ends = computed(() =>
  // what is being made is spoken of on its own desk
  model.findings
    .filter(({ step }) => !bench.draft || step !== bench.draft.step.name)
    .map((finding) => ({
      ...finding,
      sketch: bench.part?.stepOrder.find(
        (id) => bench.part!.steps[id]!.name === finding.step && isSketch(bench.part!.steps[id]),
      ),
    })),
);
</script>

<template>
  <section class="border-rule border-b p-4">
    <h2 class="heading mb-2 flex justify-between">
      Loose ends
      <span
        v-if="ends.length > 0"
        class="bg-act grid min-w-5 place-items-center rounded-full px-1.5 text-[12px] text-white"
        >{{ ends.length }}</span
      >
    </h2>
    <p v-if="ends.length === 0" class="text-muted">Nothing loose, nothing open.</p>
    <ul>
      <li v-for="(end, k) in ends" :key="k" class="flex gap-2 py-1 leading-5">
        <span class="border-loose mt-1.5 size-2 shrink-0 rounded-full border" />
        <span>
          <strong v-if="end.step">{{ end.step }}</strong> {{ end.message }}
          <button
            v-if="end.sketch && !bench.part?.from && bench.editor?.step !== end.sketch"
            class="word-link"
            @click="bench.editSketch(end.sketch)"
          >
            show me
          </button>
        </span>
      </li>
    </ul>
  </section>
</template>
