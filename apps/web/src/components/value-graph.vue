<script setup lang="ts">
import { computed } from 'vue';

/** What a value depends on, at its left, and what it drives, at its right. */
const { name, reads, drives } = defineProps<{
  name: string;
  reads: readonly string[];
  /** Shown as they are; the rest is counted. */
  drives: readonly string[];
}>();

const MOST = 8;
const LINE = 22;
const WIDTH = 268;

function listed(names: readonly string[]): string[] {
  if (names.length <= MOST) return [...names];
  return [...names.slice(0, MOST - 1), `and ${names.length - MOST + 1} more`];
}
const left = computed(() => listed(reads));
const right = computed(() => listed(drives));
const height = computed(() => LINE * Math.max(1, left.value.length, right.value.length));
/** Where the value itself stands: at the left where it depends on nothing. */
const half = computed(() => (reads.length > 0 ? 84 : 4));
const room = computed(() => Math.floor((WIDTH - half.value - 68) / 6.2));
const middle = computed(() => height.value / 2);
const at = (list: readonly string[], k: number) => middle.value + (k - (list.length - 1) / 2) * LINE;
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${height}`"
    :height="height"
    class="w-full"
    role="img"
    :aria-label="`What ${name} depends on and drives`"
  >
    <g class="graph">
      <template v-for="(text, k) in left" :key="text">
        <text :x="half - 22" :y="at(left, k) + 4" text-anchor="end">{{ cut(text, 11) }}</text>
        <path
          :d="`M ${half - 18} ${at(left, k)} C ${half - 8} ${at(left, k)} ${half - 8} ${middle} ${half} ${middle}`"
        />
      </template>
      <template v-for="(text, k) in right" :key="text">
        <path
          :d="`M ${half + 44} ${middle} C ${half + 58} ${middle} ${half + 50} ${at(right, k)} ${half + 64} ${at(right, k)}`"
        />
        <text :x="half + 68" :y="at(right, k) + 4">{{ cut(text, room) }}</text>
      </template>
      <circle :cx="half + 22" :cy="middle" r="4" />
      <path :d="`M ${half} ${middle} H ${half + 44}`" />
    </g>
  </svg>
</template>

<style scoped>
.graph text {
  font-size: 12px;
  fill: var(--ink);
}
.graph path {
  fill: none;
  stroke: var(--ink);
}
.graph circle {
  fill: var(--act);
}
</style>
