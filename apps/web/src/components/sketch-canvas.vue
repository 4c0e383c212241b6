<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { entityKind, findEntity, halfAxis, polyline, type Id, type Issue, type Vec2 } from '@helb/core';
import type { PlaneMap } from '../editor/plane-map.ts';
import type { EditorState } from '../editor/editor-state.ts';
import type { SketchEditor } from '../editor/sketch-editor.ts';
import {
  areaPaths,
  arrowPath,
  entityLooks,
  sizeLooks,
  tagLooks,
  textBoxes,
  type SizeLook,
} from '../editor/sketch-scene.ts';
import type { Viewport } from '../view/viewport.ts';
import DrawnSizes from './drawn-sizes.vue';
import FirstUnit from './first-unit.vue';
import NumberTrouble from './number-trouble.vue';

/** The sketch in the view: drawn as drafting does, over the model, in the plane of the sketch. */
const props = defineProps<{
  editor: SketchEditor;
  /** What is shown of it. */
  state: EditorState;
  viewport: Viewport;
  /** How the sketch plane lies on the screen. */
  map: PlaneMap;
  showRelations: boolean;
  /** Where the plane crosses what is laid under the model. */
  underlay: readonly (readonly Vec2[])[];
}>();

/** How near counts as on it, px. */
const REACH = 9;
const free = ref(false);
const svg = ref<SVGSVGElement>();

const entities = computed(() => entityLooks(props.state, props.map));
const underlaid = computed(() => props.underlay.map((line) => props.map.path([...line])).join(''));
const areas = computed(() => areaPaths(props.state, props.map));
const sizes = computed(() => sizeLooks(props.state, props.map, moving.value));
const tags = computed(() => tagLooks(props.state, props.map, props.showRelations, textBoxes(sizes.value, props.map)));
const openEnds = computed(() => props.state.solved.regions.openEnds.map((end) => props.map.at(end.at)));
/** Half a profile may end on its axis. */
const isHalf = computed(() => halfAxis(props.state.geometry) !== undefined);
const axes = computed(() => {
  const far = 4000 * props.map.pixel;
  return [
    {
      id: 'x-axis',
      path: props.map.path([
        [-far, 0],
        [far, 0],
      ]),
    },
    {
      id: 'y-axis',
      path: props.map.path([
        [0, -far],
        [0, far],
      ]),
    },
  ];
});

const preview = computed(() => props.state.tool.preview);

function place(event: PointerEvent | MouseEvent) {
  const box = svg.value!.getBoundingClientRect();
  return props.viewport.view.toPlane([event.clientX - box.left, event.clientY - box.top], props.state.solved.frame);
}

function pointer(kind: 'down' | 'move' | 'up', event: PointerEvent) {
  if (kind !== 'move' && event.button !== 0) return;
  const where = place(event);
  if (!where) return;
  if (kind === 'down') {
    // a number that is being typed is taken first; what can't be taken stays to be mended
    if (asked.value) return answer();
    (document.activeElement as HTMLElement | null)?.blur();
    svg.value!.setPointerCapture(event.pointerId);
  }
  props.editor.pointer(kind, {
    at: where,
    reach: REACH * props.map.pixel,
    free: free.value,
    add: event.shiftKey || event.ctrlKey,
  });
}

/** The list of what a tool offers stays, so that it can be clicked. */
function holdOffered() {
  const { offered } = props.state.tool;
  if (offered) props.editor.choose(offered.chosen, false);
}

/** Holds guesses off while its key is down; tells whether it is that key. */
function hold(event: KeyboardEvent): boolean {
  const isIts = event.key.toLowerCase() === 'q';
  if (isIts) free.value = event.type === 'keydown';
  return isIts;
}

// dragging the text of a dimension, clicking it to type
const moving = shallowRef<{ id: Id; at: Vec2; moved: boolean }>();
function grab(size: SizeLook, event: PointerEvent) {
  // who adds to what is selected means what lies under the number
  if (event.button !== 0 || size.id === undefined || event.shiftKey || event.ctrlKey) return;
  // while a number is asked for, a click on another dimension ties the two
  if (asked.value) {
    event.stopPropagation();
    const tied = props.editor.tieTo(size.id);
    wrong.value = tied.ok ? undefined : tied.issue;
    return;
  }
  if (props.state.tool.isBusy) return;
  event.stopPropagation();
  const target = event.currentTarget as Element;
  target.setPointerCapture(event.pointerId);
  moving.value = { id: size.id, at: size.annotation.text, moved: false };
  const from: Vec2 = [event.clientX, event.clientY];
  const move = (next: PointerEvent) => {
    const where = place(next);
    if (where && Math.hypot(next.clientX - from[0], next.clientY - from[1]) > 4)
      moving.value = { id: size.id!, at: where, moved: true };
  };
  const up = () => {
    target.removeEventListener('pointermove', move as EventListener);
    const end = moving.value;
    moving.value = undefined;
    if (end?.moved) props.editor.moveText(end.id, end.at);
    else {
      props.editor.select([size.id!], false);
      props.editor.ask(size.relation, size.id);
    }
  };
  target.addEventListener('pointermove', move as EventListener);
  target.addEventListener('pointerup', up, { once: true });
}

/** A tag is picked by the selecting hand alone: while something is drawn or cut it lies in no one's way. */
function pickTag(id: Id, event: PointerEvent) {
  if (props.state.tool.name !== 'select') return;
  event.stopPropagation();
  props.editor.select([id], event.shiftKey);
}

// the number that is being typed
const asked = computed(() => {
  const { asking, proposed } = props.state;
  if (!asking) return undefined;
  if (asking.place) return { prompt: asking.prompt, place: props.map.at(asking.place) };
  const size = sizes.value.find(({ id, relation }) =>
    asking.id === undefined ? relation === proposed : id === asking.id,
  );
  return size && { prompt: asking.prompt, place: props.map.at(size.annotation.text) };
});
const typed = ref('');
const wrong = shallowRef<Issue>();
const field = ref<HTMLInputElement>();
watch(
  () => props.state.asking,
  async (asking) => {
    wrong.value = undefined;
    if (!asking) return;
    typed.value = asking.text;
    await nextTick();
    field.value?.focus();
    if (!asking.begun) field.value?.select();
  },
);
/** Half as wide as the field and what stands under it, px: none of it is cut off. */
const half = computed(() => Math.max(wrong.value ? 132 : 0, (Math.max(10, typed.value.length + 1) * 8) / 2 + 14));
function answer() {
  const result = props.editor.answer(typed.value);
  wrong.value = result.ok ? undefined : result.issue;
}

/** Two links of a chain. */
const chainMark = ([x, y]: Vec2): string =>
  `M${x - 5} ${y}a3 3 0 1 1 6 0a3 3 0 1 1 -6 0M${x - 1} ${y}a3 3 0 1 1 6 0a3 3 0 1 1 -6 0`;

const titleOf = (id: Id): string => {
  const entity = findEntity(props.state.sketch.entities, id);
  return entity ? entityKind(entity.kind).title : '';
};

defineExpose({ hold });
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <svg
      ref="svg"
      class="pointer-events-auto absolute inset-0 size-full touch-none"
      :class="state.tool.name === 'select' ? 'cursor-default' : 'cursor-crosshair'"
      role="img"
      aria-label="Sketch"
      data-testid="sketch-canvas"
      :data-frame="JSON.stringify(state.solved.frame)"
      @pointerdown="pointer('down', $event)"
      @pointermove="pointer('move', $event)"
      @pointerup="pointer('up', $event)"
      @mousedown.prevent
      @contextmenu.prevent="holdOffered"
    >
      <defs>
        <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="9" class="hatch" />
        </pattern>
      </defs>
      <path v-if="underlaid" :d="underlaid" class="underlay" data-testid="underlay" />
      <path
        v-for="(hatch, k) in areas"
        :key="`h${k}`"
        :d="hatch"
        class="area"
        fill-rule="evenodd"
        data-testid="region"
      />
      <path
        v-for="axis in axes"
        :key="axis.id"
        :d="axis.path"
        class="axis"
        :class="{ hovered: state.hovered === axis.id, selected: state.selection.has(axis.id) }"
      />
      <g
        v-for="curve in entities.curves"
        :key="curve.id"
        :class="[
          'curve',
          curve.state,
          { construction: curve.construction, selected: curve.selected, hovered: curve.hovered },
        ]"
      >
        <path v-if="curve.state === 'clashing'" :d="curve.path" class="teeth" />
        <path v-if="curve.state === 'borrowed'" :d="curve.path" class="rails" />
        <path :d="curve.path" class="stroke" :data-entity="curve.id" :data-state="curve.state">
          <title>{{ titleOf(curve.id) }}</title>
        </path>
      </g>
      <g
        v-for="point in entities.points"
        :key="point.id"
        :class="['point', point.state, { selected: point.selected, hovered: point.hovered }]"
      >
        <path v-if="point.arrows && point.state === 'loose'" :d="point.arrows" class="slide" />
        <circle v-if="point.state === 'loose'" :cx="point.place[0]" :cy="point.place[1]" r="3.6" />
        <path
          v-else-if="point.state === 'clashing'"
          :d="`M${point.place[0] - 4} ${point.place[1] - 4}l8 8m0 -8l-8 8`"
        />
        <path
          v-else-if="point.state === 'borrowed'"
          class="chain"
          :d="chainMark(point.place)"
          data-testid="borrowed-point"
        />
        <rect v-else :x="point.place[0] - 2.5" :y="point.place[1] - 2.5" width="5" height="5" />
      </g>
      <g class="origin" :class="{ hovered: state.hovered === 'origin', selected: state.selection.has('origin') }">
        <circle :cx="map.origin[0]" :cy="map.origin[1]" r="5" />
        <path :d="`M${map.origin[0] - 8} ${map.origin[1]}h16M${map.origin[0]} ${map.origin[1] - 8}v16`" />
      </g>
      <circle
        v-for="(end, k) in openEnds"
        :key="`o${k}`"
        :cx="end[0]"
        :cy="end[1]"
        r="8"
        class="open-end"
        :class="{ half: isHalf }"
      >
        <title>The outline is open here</title>
      </circle>
      <g
        v-for="(size, k) in sizes"
        :key="size.id ?? `new${k}`"
        class="size"
        :class="{ trouble: size.trouble, proposed: size.id === undefined, selected: size.selected }"
      >
        <path v-for="(stroke, s) in size.annotation.strokes" :key="s" :d="map.path(stroke)" class="thin" />
        <path v-for="(tip, s) in size.annotation.arrows" :key="`t${s}`" :d="arrowPath(map, tip)" class="arrow" />
        <g
          :transform="`translate(${map.at(size.annotation.text).join(' ')}) rotate(${size.annotation.upright ? -90 : 0})`"
          class="number"
          @pointerdown="grab(size, $event)"
        >
          <rect :x="-size.text.length * 4 - 4" y="-9" :width="size.text.length * 8 + 8" height="18" class="back" />
          <text text-anchor="middle" dominant-baseline="central" :data-size="size.id">{{ size.text }}</text>
        </g>
      </g>
      <g
        v-for="(tag, k) in tags"
        :key="`${tag.id}${k}`"
        class="tag"
        :class="[tag.state, { selected: tag.selected }]"
        @pointerdown="pickTag(tag.id, $event)"
      >
        <circle :cx="tag.x" :cy="tag.y" r="8" />
        <text :x="tag.x" :y="tag.y" text-anchor="middle" dominant-baseline="central">{{ tag.mark }}</text>
      </g>
      <g class="preview">
        <path v-for="(guide, k) in preview.guides" :key="`g${k}`" :d="map.path(polyline(guide))" class="guide" />
        <path v-for="(piece, k) in preview.pieces" :key="`l${k}`" :d="map.path(polyline(piece))" />
        <path
          v-if="preview.box"
          class="box"
          :d="
            map.closed([
              preview.box[0],
              [preview.box[1][0], preview.box[0][1]],
              preview.box[1],
              [preview.box[0][0], preview.box[1][1]],
            ])
          "
        />
        <g v-for="(tag, k) in preview.tags" :key="`t${k}`" class="tag guess">
          <circle :cx="map.at(tag.at)[0] + 14" :cy="map.at(tag.at)[1] - 14" r="8" />
          <text
            :x="map.at(tag.at)[0] + 14"
            :y="map.at(tag.at)[1] - 14"
            text-anchor="middle"
            dominant-baseline="central"
          >
            {{ tag.mark }}
          </text>
        </g>
      </g>
    </svg>
    <DrawnSizes
      v-if="state.tool.sizes.length > 0 && (state.tool.isBusy || state.entry) && state.at && !asked"
      :editor="editor"
      :state="state"
      :at="map.at(state.at)"
    />
    <div
      v-if="asked"
      class="pointer-events-auto absolute z-10 -translate-x-1/2 -translate-y-1/2"
      :style="{ left: `clamp(${half}px, ${asked.place[0]}px, 100% - ${half}px)`, top: `${asked.place[1]}px` }"
    >
      <input
        ref="field"
        v-model="typed"
        class="chip border-act bg-lit border px-2 py-1 text-center outline-none"
        :size="Math.max(10, typed.length + 1)"
        :aria-label="asked.prompt"
        :aria-invalid="wrong !== undefined"
        maxlength="240"
        @keydown.enter.stop.prevent="answer"
        @keydown.esc.stop="editor.escape()"
      />
      <FirstUnit />
      <NumberTrouble
        v-if="wrong && state.asking"
        class="mt-1 w-64"
        :issue="wrong"
        :asks="state.asking.asks"
        @named="answer"
        @left="editor.escape()"
      />
    </div>
  </div>
</template>

<style scoped src="./sketch-canvas.css"></style>
