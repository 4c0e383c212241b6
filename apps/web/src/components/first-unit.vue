<script setup lang="ts">
import { computed } from 'vue';
import { LENGTH_UNITS, placedExpressions, type LengthUnit } from '@helb/core';
import { useProject } from '../stores/project.ts';

/** Asks at the first number of a project in which unit its numbers are; what is being typed stays. */
const store = useProject();
const isFirst = computed(() => store.kept !== undefined && placedExpressions(store.kept).every(isNothing));
/** What stands at the origin says nothing of units. */
const isNothing = ({ text }: { readonly text: string }) => Number.parseFloat(text) === 0;
const choose = (unit: LengthUnit) => store.act([{ command: 'project.unit', input: { unit } }]);
</script>

<template>
  <p v-if="isFirst" class="bg-lit border-rule mt-1 w-max border px-2 py-0.5 text-[13px]" role="group" aria-label="Unit">
    <span class="text-muted">numbers are in</span>
    <!-- the field keeps the keys -->
    <button
      v-for="unit in LENGTH_UNITS"
      :key="unit"
      tabindex="-1"
      class="pointer-events-auto ml-2 font-mono"
      :class="unit === store.kept!.unit ? 'font-semibold' : 'text-link hover:underline'"
      :aria-pressed="unit === store.kept!.unit"
      @pointerdown.prevent
      @click="choose(unit)"
    >
      {{ unit }}
    </button>
  </p>
</template>
