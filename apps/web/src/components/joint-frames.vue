<script setup lang="ts">
import { computed } from 'vue';
import { toSpace, type Frame } from '@helb/core';
import { AXIS_COLOURS } from '../view/axis-colours.ts';
import type { Screen } from '../view/nearness.ts';

/** The frames in which two things are joined: three arrows each, the first bold. Its z is what they turn about or slide along. */
const props = defineProps<{ frames: readonly Frame[]; screen: Screen }>();

const ARM_px = 34;
const axes = computed(() =>
  props.frames.flatMap((frame, k) => {
    const { toScreen, pixel } = props.screen;
    const reach = ARM_px * pixel;
    const [x, y] = toScreen(frame.origin);
    const ends = { x: toSpace(frame, [reach, 0]), y: toSpace(frame, [0, reach]), z: toSpace(frame, [0, 0], reach) };
    return (['x', 'y', 'z'] as const).map((name) => {
      const [u, v] = toScreen(ends[name]);
      const long = Math.hypot(u - x, v - y);
      return {
        ...{ key: `${k} ${name}`, name, x, y, u, v, isFirst: k === 0 },
        // one that looks at the eye has no head, and no letter
        head:
          long > 8
            ? `translate(${u.toFixed(1)} ${v.toFixed(1)}) rotate(${((Math.atan2(v - y, u - x) * 180) / Math.PI).toFixed(1)})`
            : '',
        letter: [u + ((u - x) / (long || 1)) * 9, v + ((v - y) / (long || 1)) * 9] as const,
      };
    });
  }),
);
</script>

<template>
  <svg class="pointer-events-none absolute inset-0 size-full" data-testid="joint-frames" aria-hidden="true">
    <g v-for="axis in axes" :key="axis.key" :opacity="axis.isFirst ? 1 : 0.7">
      <line
        :x1="axis.x"
        :y1="axis.y"
        :x2="axis.u"
        :y2="axis.v"
        :stroke="AXIS_COLOURS[axis.name]"
        :stroke-width="axis.isFirst ? 2.5 : 1.25"
      />
      <path v-if="axis.head" d="M2 0 L-7 -4 L-7 4 Z" :transform="axis.head" :fill="AXIS_COLOURS[axis.name]" />
      <text
        v-if="axis.head && axis.isFirst"
        :x="axis.letter[0]"
        :y="axis.letter[1]"
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
