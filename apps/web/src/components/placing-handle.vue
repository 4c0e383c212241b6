<script setup lang="ts">
import { computed, shallowRef } from 'vue';
import { transformPoint, IDENTITY, type RigidTransform, type Vec2, type Vec3 } from '@helb/core';
import { gripName, gripsAt, placeOver, take, type Grip } from '../view/handle.ts';
import type { Screen } from '../view/nearness.ts';
import { AXIS_COLOURS } from '../view/axis-colours.ts';
import { useUnits } from '../stores/units.ts';

/** By which something that is placed is shifted and turned: arrows and arcs over the view. */
const props = defineProps<{ at: Vec3; screen: Screen }>();
const emit = defineEmits<{ move: [by: RigidTransform]; done: [by: RigidTransform] }>();

interface Drag {
  readonly grip: Grip;
  readonly follow: ReturnType<typeof take>;
  readonly told: ReturnType<ReturnType<typeof take>> | undefined;
  readonly pointer: Vec2;
  /** Where the handle was when it was taken. */
  readonly start: Vec3;
}
const drag = shallowRef<Drag>();
const { unit } = useUnits();

const COLOURS = Object.values(AXIS_COLOURS);
/** Shifted it goes along; turned it stays. */
const at = computed(() => (drag.value ? transformPoint(drag.value.told?.by ?? IDENTITY, drag.value.start) : props.at));
const grips = computed(() => {
  return gripsAt(at.value, props.screen).map(({ grip, line }) => {
    const [tip, before] = [line.at(-1)!, line.at(-2)!];
    const angle = (Math.atan2(tip[1] - before[1], tip[0] - before[0]) * 180) / Math.PI;
    return {
      grip,
      name: gripName(grip),
      path: `M${line.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`,
      head: `translate(${tip[0].toFixed(1)} ${tip[1].toFixed(1)}) rotate(${angle.toFixed(1)})`,
      colour: COLOURS[grip.axis]!,
    };
  });
});
const middle = computed(() => props.screen.toScreen(at.value));

function press(grip: Grip, event: PointerEvent) {
  (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
  const pointer = placeOver(event);
  drag.value = {
    grip,
    follow: take(grip, props.at, props.screen, pointer, unit.value),
    told: undefined,
    pointer,
    start: props.at,
  };
}
function move(event: PointerEvent) {
  if (!drag.value) return;
  const pointer = placeOver(event);
  const told = drag.value.follow(pointer, event.shiftKey);
  drag.value = { ...drag.value, told, pointer };
  emit('move', told.by);
}
function release() {
  const told = drag.value?.told;
  drag.value = undefined;
  if (told) emit('done', told.by);
}
</script>

<template>
  <svg class="pointer-events-none absolute inset-0 size-full" data-testid="handle">
    <g
      v-for="{ grip, name, path, head, colour } in grips"
      :key="name"
      class="pointer-events-auto cursor-grab"
      :class="drag && drag.grip.sort + drag.grip.axis !== grip.sort + grip.axis ? 'opacity-30' : ''"
      role="button"
      :aria-label="name"
      @pointerdown.left.stop="press(grip, $event)"
      @pointermove="move"
      @pointerup="release"
      @lostpointercapture="release"
    >
      <title>{{ name }}</title>
      <path :d="path" fill="none" stroke="transparent" stroke-width="16" />
      <path :d="path" fill="none" :stroke="colour" stroke-width="2.5" stroke-linecap="round" />
      <path v-if="grip.sort === 'shift'" d="M2 0 L-9 -5 L-9 5 Z" :transform="head" :fill="colour" />
    </g>
    <circle :cx="middle[0]" :cy="middle[1]" r="3" class="fill-ink" />
  </svg>
  <p
    v-if="drag?.told"
    class="bg-lit border-ink pointer-events-none absolute border px-2 font-mono text-[13px]"
    :style="{ left: `${drag.pointer[0] + 16}px`, top: `${drag.pointer[1] + 12}px` }"
    role="status"
  >
    {{ drag.told.words }}
  </p>
</template>
