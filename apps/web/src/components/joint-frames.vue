<script setup lang="ts">
import { computed } from 'vue';
import { toSpace, type Frame, type Vec2 } from '@helb/core';
import type { Screen } from '../view/nearness.ts';
import AxisArms from './axis-arms.vue';

/** The frames in which two things are joined: three arrows each, the first bold. Its z is what they turn about or slide along. */
const props = defineProps<{ frames: readonly Frame[]; screen: Screen }>();

const [ARM_px, LETTER_px] = [34, 9];
/** Shorter than this, px, an arm looks at the eye: it has no head, and no letter. */
const SHORT_px = 8;
const arms = computed(() =>
  props.frames.flatMap((frame, k) => {
    const { toScreen, pixel } = props.screen;
    const reach = ARM_px * pixel;
    const from = toScreen(frame.origin);
    const ends = { x: toSpace(frame, [reach, 0]), y: toSpace(frame, [0, reach]), z: toSpace(frame, [0, 0], reach) };
    return (['x', 'y', 'z'] as const).map((name) => {
      const to = toScreen(ends[name]);
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const long = Math.hypot(dx, dy);
      const beyond: Vec2 = [to[0] + (dx / long) * LETTER_px, to[1] + (dy / long) * LETTER_px];
      const hasHead = long > SHORT_px;
      return { name, from, to, hasHead, width: k === 0 ? 2.5 : 1.25, letter: hasHead && k === 0 ? beyond : undefined };
    });
  }),
);
</script>

<template>
  <svg class="pointer-events-none absolute inset-0 size-full" data-testid="joint-frames" aria-hidden="true">
    <AxisArms :arms="arms" />
  </svg>
</template>
