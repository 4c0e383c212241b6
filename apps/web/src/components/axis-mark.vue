<script setup lang="ts">
import { computed } from 'vue';
import type { Vec2, Vec3 } from '@helb/core';
import type { Screen } from '../view/nearness.ts';
import AxisArms from './axis-arms.vue';

/** Which way the axes run: three letters in the corner. */
const props = defineProps<{ screen: Screen }>();

const arms = computed(() => {
  const { toScreen, pixel } = props.screen;
  const [ox, oy] = toScreen([0, 0, 0]);
  const scale = pixel * 30;
  return (['x', 'y', 'z'] as const).map((name, k) => {
    const place = [0, 0, 0].map((_, c) => (c === k ? scale : 0)) as unknown as Vec3;
    const [x, y] = toScreen(place);
    const to: Vec2 = [x - ox, y - oy];
    const letter: Vec2 = [to[0] * 1.3, to[1] * 1.3];
    return { name, from: [0, 0] as const, to, width: 1.5, letter: Math.hypot(...to) > 6 ? letter : undefined };
  });
});
</script>

<template>
  <svg class="pointer-events-none absolute bottom-12 left-2 size-24" viewBox="-48 -48 96 96" aria-hidden="true">
    <AxisArms :arms="arms" />
  </svg>
</template>
