<script setup lang="ts">
import { computed } from 'vue';
import type { Vec2 } from '@helb/core';
import { AXIS_COLOURS } from '../view/axis-colours.ts';

/** Arms along axes in the drawing round them: in their colours, with a head or a letter where that is asked. */
const props = defineProps<{
  arms: readonly {
    readonly name: keyof typeof AXIS_COLOURS;
    readonly from: Vec2;
    readonly to: Vec2;
    readonly width: number;
    readonly hasHead?: boolean;
    /** Where its letter stands. */
    readonly letter?: Vec2 | undefined;
  }[];
}>();

const drawn = computed(() =>
  props.arms.map((arm) => {
    const { from, to } = arm;
    const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
    return {
      ...arm,
      colour: AXIS_COLOURS[arm.name],
      head: arm.hasHead ? `translate(${to[0].toFixed(1)} ${to[1].toFixed(1)}) rotate(${turn.toFixed(1)})` : '',
    };
  }),
);
</script>

<template>
  <g v-for="({ name, from, to, width, head, letter, colour }, k) in drawn" :key="k">
    <line :x1="from[0]" :y1="from[1]" :x2="to[0]" :y2="to[1]" :stroke="colour" :stroke-width="width" />
    <path v-if="head" d="M2 0 L-7 -4 L-7 4 Z" :transform="head" :fill="colour" />
    <text
      v-if="letter"
      :x="letter[0]"
      :y="letter[1]"
      text-anchor="middle"
      dominant-baseline="central"
      class="font-mono text-[11px]"
      :fill="colour"
    >
      {{ name }}
    </text>
  </g>
</template>
