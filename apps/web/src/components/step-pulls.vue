<script setup lang="ts">
import { computed, shallowRef } from 'vue';
import type { LengthUnit, Vec2 } from '@helb/core';
import { placeOver } from '../view/handle.ts';
import { drawn, pulled, type ShownPull } from '../view/pulls.ts';
import type { Screen } from '../view/nearness.ts';

/** The lengths of the step in the making, where they are: arrows to be pulled; clicked they turn the step round. */
const { pulls, screen, unit } = defineProps<{
  pulls: readonly ShownPull[];
  screen: Screen;
  unit: LengthUnit;
}>();
const emit = defineEmits<{ pull: [field: string, text: string]; turn: [] }>();

interface Drag {
  readonly pull: ShownPull;
  readonly follow: ReturnType<typeof pulled>;
  readonly start: Vec2;
  /** Was it drawn, not only clicked? */
  readonly isDrawn: boolean;
  /** Is it on the other side now? */
  readonly isTurned: boolean;
  readonly text: string;
}
const drag = shallowRef<Drag>();
/** Fewer pixels are a click. */
const CLICK = 3;

const arrows = computed(() =>
  pulls.flatMap((pull) => {
    const seen = drawn(pull, screen);
    if (!seen) return [];
    const { line, tip } = seen;
    const angle = (Math.atan2(tip[1] - line[1][1], tip[0] - line[1][0]) * 180) / Math.PI;
    return [
      {
        pull,
        length: pathOf(line),
        shaft: pathOf([line[1], tip]),
        tip,
        head: `translate(${tip[0].toFixed(1)} ${tip[1].toFixed(1)}) rotate(${angle.toFixed(1)})`,
      },
    ];
  }),
);
/** What it has been pulled to so far is written beside the arrow. */
const told = computed(() =>
  drag.value?.text ? arrows.value.find(({ pull }) => pull.field === drag.value!.pull.field) : undefined,
);
const pathOf = (line: readonly Vec2[]): string =>
  `M${line.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`;

function seize(pull: ShownPull, event: PointerEvent) {
  (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
  const start = placeOver(event);
  drag.value = { pull, follow: pulled(pull, screen, start, unit), start, isDrawn: false, isTurned: false, text: '' };
}
function move(event: PointerEvent) {
  const { value: now } = drag;
  if (!now) return;
  const at = placeOver(event);
  const isDrawn = now.isDrawn || Math.hypot(at[0] - now.start[0], at[1] - now.start[1]) >= CLICK;
  if (!isDrawn) return;
  const next = now.follow(at, event.shiftKey);
  if (!next) return void (drag.value = { ...now, isDrawn });
  if (next.isOver !== now.isTurned) emit('turn');
  if (next.text !== now.text) emit('pull', now.pull.field, next.text);
  drag.value = { ...now, isDrawn, isTurned: next.isOver, text: next.text };
}
function release() {
  const { value: now } = drag;
  drag.value = undefined;
  if (now && !now.isDrawn && now.pull.turns) emit('turn');
}
</script>

<template>
  <svg class="pointer-events-none absolute inset-0 size-full" data-testid="pulls">
    <g
      v-for="{ pull, length, shaft, head } in arrows"
      :key="pull.field"
      class="pointer-events-auto cursor-grab"
      role="button"
      :aria-label="`Pull the ${pull.label}`"
      @pointerdown.left.stop="seize(pull, $event)"
      @pointermove="move"
      @pointerup="release"
      @pointercancel="drag = undefined"
    >
      <title>{{ `${pull.label}: pull${pull.turns ? '; a click turns it round' : ''}` }}</title>
      <path :d="length" class="stroke-act pointer-events-none" fill="none" stroke-width="1" stroke-dasharray="2 3" />
      <path :d="shaft" fill="none" stroke="transparent" stroke-width="18" stroke-linecap="round" />
      <!-- what it stands before may be lit up in the same colour -->
      <path :d="shaft" class="stroke-paper" fill="none" stroke-width="6" stroke-linecap="round" />
      <path d="M2 0 L-10 -5.5 L-10 5.5 Z" class="stroke-paper" stroke-width="4" :transform="head" />
      <path :d="shaft" class="stroke-act" fill="none" stroke-width="2.5" stroke-linecap="round" />
      <path d="M2 0 L-10 -5.5 L-10 5.5 Z" class="fill-act" :transform="head" />
    </g>
  </svg>
  <p
    v-if="told"
    class="bg-lit border-ink pointer-events-none absolute border px-2 font-mono text-[13px]"
    :style="{ left: `${told.tip[0] + 14}px`, top: `${told.tip[1] - 12}px` }"
    role="status"
  >
    {{ drag!.text }}
  </p>
</template>
