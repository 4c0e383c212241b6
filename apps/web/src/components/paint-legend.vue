<script setup lang="ts">
import { ANGLE, formatQuantity, LENGTH, ok, type Result } from '@helb/core';
import { computed } from 'vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useLooking } from '../stores/looking.ts';
import { usePainting, WAYS } from '../stores/painting.ts';
import { useProject } from '../stores/project.ts';
import ChoiceWord from './choice-word.vue';
import NumberChip from './number-chip.vue';

/** What the painted faces mean, with the limits that they are painted by. */
const bench = useWorkbench();
const looking = useLooking();
const painting = usePainting();
const store = useProject();

const rows = computed(() => {
  const { words, colours, hatched } = painting.painting!;
  return words.map((text, k) => ({ text, colour: colours[k]!, hatched: k === hatched }));
});
const amount = (mm: number) => formatQuantity({ amount: mm, dimension: LENGTH }, store.project?.unit ?? 'mm', 2);
/** The limit that is looked for: nothing of the project. */
function keep(text: string): Result<void> {
  if (looking.look === 'walls') painting.thin = text;
  else painting.lean = text;
  return ok(undefined);
}
</script>

<template>
  <section
    v-if="painting.painting"
    class="bg-sheet/90 border-rule absolute top-10 left-4 border px-3 py-2 text-sm"
    aria-label="What the colours mean"
    data-testid="paint-legend"
  >
    <p v-if="looking.look === 'lean'" class="mb-1">
      The mould opens
      <ChoiceWord :value="painting.way" :options="WAYS" label="direction" @choose="(name) => (painting.way = name)" />
    </p>
    <p v-for="{ text, colour, hatched } in rows" :key="text" class="flex items-center gap-2 leading-6">
      <span
        class="border-rule size-3.5 shrink-0 border"
        :style="{
          background: hatched
            ? `repeating-linear-gradient(-45deg, ${colour} 0 3px, color-mix(in srgb, ${colour}, black 45%) 3px 4px)`
            : colour,
        }"
      />
      <span>
        {{ text }}
        <NumberChip
          v-if="hatched"
          :text="looking.look === 'walls' ? painting.thin : painting.lean"
          :asks="looking.look === 'walls' ? LENGTH : ANGLE"
          label="limit"
          :change="() => []"
          :keep="keep"
        />
      </span>
    </p>
    <template v-if="looking.look === 'walls'">
      <p v-if="painting.thinnest" class="border-rule mt-1 border-t pt-1" role="status">
        thinnest about <span class="font-mono">{{ amount(painting.thinnest.thickness_mm) }}</span>
        <button
          class="word-link ml-2"
          @mouseenter="bench.pointedAt = { to: 'face', name: painting.thinnest.face }"
          @mouseleave="bench.pointedAt = undefined"
          @focus="bench.pointedAt = { to: 'face', name: painting.thinnest.face }"
          @blur="bench.pointedAt = undefined"
        >
          show me
        </button>
      </p>
      <p v-else class="text-muted mt-1" role="status">
        {{ painting.measuring ? 'Measuring the walls …' : 'No wall was found.' }}
      </p>
    </template>
  </section>
</template>
