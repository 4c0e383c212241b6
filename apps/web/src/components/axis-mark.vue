<script setup lang="ts">
import { computed } from 'vue';
import { AXIS_COLOURS } from '../view/axis-colours.ts';
import type { Screen } from '../view/nearness.ts';

/** Which way the axes run: three letters in the corner. */
const props = defineProps<{ screen: Screen }>();

const axes = computed(() => {
  const { toScreen, pixel } = props.screen;
  const [ox, oy] = toScreen([0, 0, 0]);
  const scale = pixel * 30;
  return (['x', 'y', 'z'] as const).map((name, k) => {
    const place = [0, 0, 0].map((_, c) => (c === k ? scale : 0)) as unknown as readonly [number, number, number];
    const [x, y] = toScreen(place);
    return { name, x: x - ox, y: y - oy };
  });
});
</script>

<template>
  <svg class="pointer-events-none absolute bottom-12 left-2 size-24" viewBox="-48 -48 96 96" aria-hidden="true">
    <g v-for="axis in axes" :key="axis.name">
      <line x1="0" y1="0" :x2="axis.x" :y2="axis.y" :stroke="AXIS_COLOURS[axis.name]" stroke-width="1.5" />
      <text
        v-if="Math.hypot(axis.x, axis.y) > 6"
        :x="axis.x * 1.3"
        :y="axis.y * 1.3"
        text-anchor="middle"
        dominant-baseline="central"
        class="font-mono text-[11px]"
        :fill="AXIS_COLOURS[axis.name]"
      >
        {{ axis.name }}
      </text>
    </g>
  </svg>
</template>
