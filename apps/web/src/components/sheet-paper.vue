<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { viewWords, type Handle, type Id } from '@helb/core';
import { ARROW_WAYS } from '../editor/arrow-keys.ts';
import { nearestHandle } from '../editor/handles.ts';
import { useModel } from '../stores/model.ts';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';
import SheetHandles from './sheet-handles.vue';
import SheetLines from './sheet-lines.vue';
import SheetMarks from './sheet-marks.vue';
import SheetTitle from './sheet-title.vue';
import SheetWords from './sheet-words.vue';

/**
 * The sheet as it is printed. Its views and what is written into them are dragged, by the pointer or by arrow keys; the paper
 * by the middle button. While something is written, things are picked in its views.
 */
const sheets = useSheets();
const writing = useWriting();
const model = useModel();
const svg = ref<SVGSVGElement>();

const ink = computed(() => sheets.composed?.ink);
const size = computed(() => ink.value?.size ?? ([297, 210] as const));
/** What is looked at, mm of paper from its upper left corner. */
const sight = ref({ x: 0, y: 0, zoom: 1 });
watch(
  () => [sheets.id, ...size.value].join(' '),
  () => (sight.value = { x: 0, y: 0, zoom: 1 }),
);
const PAD = 8;
const box = computed(() => {
  const { x, y, zoom } = sight.value;
  const [w, h] = size.value.map((length) => (length + 2 * PAD) / zoom) as [number, number];
  return `${x - PAD / zoom} ${y - PAD / zoom} ${w} ${h}`;
});

const views = computed(() =>
  Object.entries(sheets.composed?.views ?? {}).map(([id, { box }]) => ({
    id,
    paths: sheets.composed!.ink.views[id] ?? [],
    x: box.low[0] - 3,
    y: size.value[1] - box.high[1] - 3,
    width: box.high[0] - box.low[0] + 6,
    height: box.high[1] - box.low[1] + 6,
    words: sheets.sheet?.views[id] ? viewWords(sheets.sheet.views[id], sheets.sheet, sheets.sectionName) : '',
  })),
);

/** Where the pointer is, mm on paper, y downwards. */
function place(event: MouseEvent): [number, number] {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse());
  return [x, y];
}

const held = ref<{
  readonly id?: Id;
  readonly mark?: string;
  readonly from: readonly [number, number];
  by: [number, number];
}>();
const hovered = shallowRef<Handle>();

/** While something is written, what lies at a place of the paper. */
const handleAt = ([x, y]: readonly [number, number]): Handle | undefined =>
  nearestHandle(writing.pickable, [x, size.value[1] - y], NEAR / sight.value.zoom);

function pressMark(event: PointerEvent, mark: string) {
  const sign = sheets.composed!.signs[mark];
  if (event.button !== 0 || writing.verb || sheets.enlarging) return press(event, sign?.view);
  writing.chosen = sign ? undefined : mark;
  sheets.picked = sign?.of;
  (event.currentTarget as SVGElement).focus();
  held.value = { mark, from: place(event), by: [0, 0] };
  svg.value!.setPointerCapture(event.pointerId);
  event.preventDefault();
}
function press(event: PointerEvent, id?: Id) {
  if (event.button === 0 && id !== undefined && id === sheets.enlarging) {
    const [x, y] = place(event);
    return sheets.enlarge(id, [x, size.value[1] - y]);
  }
  const handle = handleAt(place(event));
  if (event.button === 0 && handle) return void writing.pick(handle);
  const wantsPaper = event.button === 1 || event.button === 2 || event.shiftKey || id === undefined;
  if (event.button === 0) writing.chosen = undefined;
  if (id !== undefined && !wantsPaper) sheets.picked = id;
  else if (event.button === 0 && !event.shiftKey) sheets.picked = undefined;
  held.value = { ...(wantsPaper ? {} : { id }), from: place(event), by: [0, 0] };
  svg.value!.setPointerCapture(event.pointerId);
  event.preventDefault();
}
function drag(event: PointerEvent) {
  const [x, y] = place(event);
  if (!held.value) {
    hovered.value = handleAt([x, y]);
    return;
  }
  const { id, mark, from } = held.value;
  if (id !== undefined || mark !== undefined) held.value.by = [x - from[0], y - from[1]];
  else sight.value = { ...sight.value, x: sight.value.x + from[0] - x, y: sight.value.y + from[1] - y };
}
function release() {
  const { id, mark, by } = held.value ?? {};
  held.value = undefined;
  if (mark !== undefined && by && Math.hypot(...by) > 0.5) {
    if (sheets.composed?.signs[mark]) sheets.shiftSign(mark, [by[0], -by[1]]);
    else writing.shift(mark, [by[0], -by[1]]);
  }
  if (id !== undefined && by && Math.hypot(...by) > 0.5) shift(id, by[0], -by[1]);
}

/** How near to a line one picks it, mm on paper as a whole. */
const NEAR = 2;

/** Moves a view on the paper, mm; whole half millimetres are enough. */
function shift(id: Id, dx: number, dy: number) {
  const [x, y] = sheets.sheet?.views[id]?.shift ?? [0, 0];
  const half = (n: number) => Math.round(2 * n) / 2;
  sheets.setView(id, { shift: [half(x + dx), half(y + dy)] });
}
function onKey(event: KeyboardEvent, id: Id) {
  const way = ARROW_WAYS[event.key];
  if (way) shift(id, 5 * way[0], 5 * way[1]);
  else if (event.key === 'Delete' || event.key === 'Backspace') sheets.removeView(id);
  else return;
  event.preventDefault();
}

useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key !== 'Escape') return;
  writing.leave();
  sheets.enlarging = undefined;
});

function zoomBy(factor: number, at: readonly [number, number]) {
  const { x, y, zoom } = sight.value;
  const next = Math.min(Math.max(zoom * factor, 0.5), 40);
  const share = zoom / next;
  sight.value = { x: at[0] - (at[0] - x) * share, y: at[1] - (at[1] - y) * share, zoom: next };
}
const whole = () => (sight.value = { x: 0, y: 0, zoom: 1 });
const middle = (): [number, number] => [
  sight.value.x + size.value[0] / sight.value.zoom / 2,
  sight.value.y + size.value[1] / sight.value.zoom / 2,
];
</script>

<template>
  <section class="bg-paper relative min-w-0 grow" aria-label="Sheet" :data-drawn="ink !== undefined">
    <svg
      v-if="ink"
      ref="svg"
      class="absolute inset-0 size-full touch-none"
      :viewBox="box"
      @pointerdown="press($event)"
      @pointermove="drag"
      @pointerup="release"
      @pointercancel="held = undefined"
      @contextmenu.prevent
      @wheel.prevent="zoomBy(Math.exp(-$event.deltaY / 400), place($event))"
    >
      <rect :width="size[0]" :height="size[1]" fill="#fff" stroke="#ded7c9" stroke-width="0.3" />
      <g fill="none" stroke="#111" stroke-linecap="round" stroke-linejoin="round">
        <SheetLines :paths="ink.paper.paths" />
        <g
          v-for="view in views"
          :key="view.id"
          :transform="held?.id === view.id ? `translate(${held.by[0]} ${held.by[1]})` : undefined"
          class="group outline-none"
          :class="writing.verb || sheets.enlarging === view.id ? 'cursor-crosshair' : 'cursor-move'"
          tabindex="0"
          role="button"
          :aria-label="`View ${view.words}`"
          :aria-pressed="sheets.picked === view.id"
          @pointerdown.stop="press($event, view.id)"
          @focus="sheets.picked = view.id"
          @keydown="onKey($event, view.id)"
        >
          <rect
            :x="view.x"
            :y="view.y"
            :width="view.width"
            :height="view.height"
            fill="transparent"
            :stroke="sheets.picked === view.id ? '#d1432b' : 'transparent'"
            stroke-width="0.4"
            stroke-dasharray="1.5 1.5"
            class="group-hover:stroke-[#8a8273]"
          />
          <SheetLines :paths="view.paths" />
        </g>
      </g>
      <g fill="#111" font-family="'Source Sans 3', sans-serif" class="pointer-events-none">
        <SheetWords :letters="ink.paper.letters" :height="size[1]" />
      </g>
      <SheetTitle />
      <SheetMarks :held="held" @press="pressMark" />
      <SheetHandles :hovered="hovered" />
    </svg>
    <p v-else-if="sheets.sheet && !sheets.message" class="text-muted grid h-full place-items-center">
      <span>Drawing… {{ model.progress }} <button class="word-link ml-2" @click="sheets.stop()">stop</button></span>
    </p>
    <p
      v-if="sheets.message"
      class="text-clash bg-sheet absolute top-9 left-1/2 w-max max-w-9/10 -translate-x-1/2 px-3 py-1"
      role="alert"
    >
      {{ sheets.message }}
    </p>
    <nav v-if="ink" class="absolute top-2 right-3 flex gap-3 text-sm" aria-label="Looking at the sheet">
      <span v-if="sheets.busy" class="text-muted" role="status"
        >drawing… {{ model.progress }} <button class="word-link ml-1" @click="sheets.stop()">stop</button></span
      >
      <button class="text-muted hover:text-ink" title="Nearer (wheel)" @click="zoomBy(1.5, middle())">Nearer</button>
      <button class="text-muted hover:text-ink" title="Farther (wheel)" @click="zoomBy(1 / 1.5, middle())">
        Farther
      </button>
      <button class="text-muted hover:text-ink" @click="whole">Whole sheet</button>
    </nav>
  </section>
</template>
