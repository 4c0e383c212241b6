<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import {
  along,
  annotationSpace,
  entityKind,
  explain,
  filled,
  findEntity,
  findRegions,
  formatQuantity,
  isBuiltIn,
  isSized,
  relationKind,
  toSpace,
  type Annotation,
  type Id,
  type Piece,
  type SizedRelation,
  type Vec2,
} from '@helb/core';
import type { SketchEditor } from '../editor/sketch-editor.ts';
import type { Viewport } from '../view/viewport.ts';

/** The sketch in the view: drawn as drafting does, over the model, in the plane of the sketch. */
const props = defineProps<{
  editor: SketchEditor;
  viewport: Viewport;
  /** Change when the editor, or the view of it, has changed. */
  version: number;
  viewVersion: number;
  showRelations: boolean;
}>();

const REACH = 9;
const free = ref(false);
const svg = ref<SVGSVGElement>();

/** Sketch millimetres to pixels: affine, since the camera is orthographic. */
const affine = computed(() => {
  void props.viewVersion;
  const { frame } = props.editor.solved;
  const { view } = props.viewport;
  const [o, x, y] = [[0, 0], [100, 0], [0, 100]].map((place) => view.toScreen(toSpace(frame, place as unknown as Vec2))) as [Vec2, Vec2, Vec2];
  return { o, x: [(x[0] - o[0]) / 100, (x[1] - o[1]) / 100] as Vec2, y: [(y[0] - o[0]) / 100, (y[1] - o[1]) / 100] as Vec2, pixel: view.pixel };
});
const at = ([u, v]: Vec2): Vec2 => {
  const { o, x, y } = affine.value;
  return [o[0] + u * x[0] + v * y[0], o[1] + u * x[1] + v * y[1]];
};
const d = (places: readonly Vec2[]) => places.map((place, k) => `${k ? 'L' : 'M'}${at(place).map((c) => c.toFixed(2)).join(' ')}`).join('');
/** A circle as a path: it is an ellipse where the view is not square on. */
const ring = (centre: Vec2, radius: number) =>
  `${d(Array.from({ length: 73 }, (_, k) => [centre[0] + radius * Math.cos((k * Math.PI) / 36), centre[1] + radius * Math.sin((k * Math.PI) / 36)] as Vec2))}Z`;

const solution = computed(() => (void props.version, props.editor.solved.solution));
const geometry = computed(() => (void props.version, props.editor.geometry));

const clashing = computed(() => {
  const ids = new Set<Id>(solution.value.clash);
  for (const id of solution.value.clash) {
    const relation = props.editor.relations[id];
    if (relation) for (const ref of relationKind(relation.kind).refs(relation)) ids.add(ref);
  }
  return ids;
});

const stateOf = (id: Id): string =>
  clashing.value.has(id) ? 'clashing' : solution.value.loose.has(id) ? 'loose' : 'settled';

const curves = computed(() => {
  void props.version;
  return Object.entries(geometry.value.entities).flatMap(([id, entity]) => {
    if (entity.kind === 'point') return [];
    const circle = entity.kind === 'circle' ? geometry.value.circle(id) : undefined;
    const line = entity.kind === 'line' ? geometry.value.line(id) : undefined;
    return [
      {
        id,
        path: circle ? ring(circle.centre, circle.radius) : d([line!.a, line!.b]),
        construction: entity.construction === true,
        state: stateOf(id),
        selected: props.editor.selection.has(id),
        hovered: props.editor.hovered === id,
      },
    ];
  });
});

const points = computed(() => {
  void props.version;
  return Object.entries(geometry.value.entities).flatMap(([id, entity]) =>
    entity.kind === 'point'
      ? [{ id, place: at([entity.x, entity.y]), state: stateOf(id), selected: props.editor.selection.has(id), hovered: props.editor.hovered === id }]
      : [],
  );
});

const hatches = computed(() => {
  void props.version;
  const loop = (pieces: readonly Piece[]) => {
    const places = pieces.flatMap((piece) =>
      piece.form === 'segment' ? [piece.from] : Array.from({ length: 24 }, (_, k) => along(piece, k / 24)),
    );
    return `${d(places)}Z`;
  };
  return filled(findRegions(geometry.value)).map((region) => [region.outer, ...region.holes].map(loop).join(''));
});

const openEnds = computed(() => (void props.version, props.editor.solved.regions.openEnds.map((end) => at(end.at))));

const axes = computed(() => {
  const far = 4000 * affine.value.pixel;
  return [d([[-far, 0], [far, 0]]), d([[0, -far], [0, far]])];
});

interface Drawn {
  readonly id: Id | undefined;
  readonly relation: SizedRelation;
  readonly annotation: Annotation;
  readonly text: string;
  readonly trouble: boolean;
}

/** Dimensions, the proposed one last. */
const sizes = computed<Drawn[]>(() => {
  void props.version;
  const { editor } = props;
  const box = geometry.value.box();
  if (!box) return [];
  const space = annotationSpace(box.low, box.high, 30 * affine.value.pixel);
  const all: [Id | undefined, SizedRelation][] = Object.entries(editor.relations).flatMap(([id, relation]) => {
    if (!isSized(relation)) return [];
    const moved = moving.value?.id === id ? { ...relation, at: [...moving.value.at] as [number, number] } : relation;
    return [[id, moved] as [Id, SizedRelation]];
  });
  // the shorter stand nearer to the outline
  const length = (relation: SizedRelation) => relationKind(relation.kind).dimension!.measure(relation, geometry.value);
  all.sort((a, b) => length(a[1]) - length(b[1]));
  if (editor.proposed) all.push([undefined, editor.proposed]);
  return all.map(([id, relation]) => {
    const { dimension } = relationKind(relation.kind);
    const measure = () => formatQuantity({ amount: dimension!.measure(relation, geometry.value), dimension: dimension!.asks }, 'mm', 2);
    return {
      id,
      relation,
      annotation: dimension!.annotate(relation, geometry.value, space),
      text: `${dimension!.prefix ?? ''}${id === undefined ? measure() : relation.value}`,
      trouble: id !== undefined && (clashing.value.has(id) || editor.troubleOf(id) !== undefined),
    };
  });
});

const arrow = ({ tip, pointing }: Annotation['arrows'][number]): string => {
  const [x, y] = at(tip);
  const [px, py] = at([tip[0] + pointing[0], tip[1] + pointing[1]]);
  const length = Math.hypot(px - x, py - y) || 1;
  const [ux, uy] = [(px - x) / length, (py - y) / length];
  return `M${x} ${y}L${x - 9 * ux - 2.6 * uy} ${y - 9 * uy + 2.6 * ux}L${x - 9 * ux + 2.6 * uy} ${y - 9 * uy - 2.6 * ux}Z`;
};

/** Tags of relations, those of one place side by side. */
const tags = computed(() => {
  void props.version;
  const taken: Vec2[] = [];
  const found = Object.entries(props.editor.relations).flatMap(([id, relation]) => {
    const kind = relationKind(relation.kind);
    const shown = props.showRelations || props.editor.selection.has(id) || clashing.value.has(id) || relates(id);
    if (!kind.mark || !shown) return [];
    // where a point lies on another, the point itself says so
    return kind.anchors(relation, geometry.value).map((anchor) => ({ id, mark: kind.mark!, place: at(anchor) }));
  });
  return found.map(({ id, mark, place }) => {
    let [x, y] = [place[0] + 13, place[1] - 13];
    while (taken.some((other) => Math.hypot(other[0] - x, other[1] - y) < 17)) x += 18;
    taken.push([x, y]);
    return { id, mark, x, y, state: clashing.value.has(id) ? 'clashing' : 'settled', selected: props.editor.selection.has(id) };
  });
});
const relates = (id: Id): boolean => {
  const { hovered } = props.editor;
  const relation = props.editor.relations[id]!;
  return hovered !== undefined && !isBuiltIn(hovered) && relationKind(relation.kind).refs(relation).includes(hovered);
};

const preview = computed(() => (void props.version, props.editor.tool.preview));

function place(event: PointerEvent | MouseEvent) {
  const box = svg.value!.getBoundingClientRect();
  return props.viewport.view.toPlane([event.clientX - box.left, event.clientY - box.top], props.editor.solved.frame);
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
  props.editor.pointer(kind, { at: where, reach: REACH * affine.value.pixel, free: free.value, add: event.shiftKey || event.ctrlKey });
}

const hold = (event: KeyboardEvent) => {
  if (event.key.toLowerCase() === 'q') free.value = event.type === 'keydown';
};

// dragging the text of a dimension, clicking it to type
const moving = shallowRef<{ id: Id; at: Vec2; moved: boolean }>();
function grab(size: Drawn, event: PointerEvent) {
  if (event.button !== 0 || size.id === undefined || props.editor.tool.name !== 'select') return;
  event.stopPropagation();
  const target = event.currentTarget as Element;
  target.setPointerCapture(event.pointerId);
  moving.value = { id: size.id, at: size.annotation.text, moved: false };
  const from: Vec2 = [event.clientX, event.clientY];
  const move = (next: PointerEvent) => {
    const where = place(next);
    if (where && Math.hypot(next.clientX - from[0], next.clientY - from[1]) > 4) moving.value = { id: size.id!, at: where, moved: true };
  };
  const up = () => {
    target.removeEventListener('pointermove', move as EventListener);
    const end = moving.value;
    moving.value = undefined;
    if (end?.moved) props.editor.moveText(end.id, end.at);
    else props.editor.ask(size.relation, size.id);
  };
  target.addEventListener('pointermove', move as EventListener);
  target.addEventListener('pointerup', up, { once: true });
}

// the number that is being typed
const asked = computed(() => {
  void props.version;
  const { asking, proposed } = props.editor;
  if (!asking) return undefined;
  const size = sizes.value.find(({ id, relation }) => (asking.id === undefined ? relation === proposed : id === asking.id));
  return size && { text: asking.text, place: at(size.annotation.text) };
});
const typed = ref('');
const wrong = ref('');
const field = ref<HTMLInputElement>();
watch(
  () => (void props.version, props.editor.asking),
  async (asking) => {
    wrong.value = '';
    if (!asking) return;
    typed.value = asking.text;
    await nextTick();
    field.value?.focus();
    field.value?.select();
  },
);
function answer() {
  const result = props.editor.answer(typed.value);
  wrong.value = result.ok ? '' : explain(result.issue);
}

const titleOf = (id: Id): string => {
  const entity = findEntity(props.editor.sketch.entities, id);
  return entity ? entityKind(entity.kind).title : '';
};

defineExpose({ hold });
</script>

<template>
  <div class="pointer-events-none absolute inset-0 overflow-hidden">
    <svg
      ref="svg"
      class="pointer-events-auto absolute inset-0 size-full touch-none"
      :class="editor.tool.name === 'select' ? 'cursor-default' : 'cursor-crosshair'"
      role="img"
      aria-label="Sketch"
      data-testid="sketch-canvas"
      @pointerdown="pointer('down', $event)"
      @pointermove="pointer('move', $event)"
      @pointerup="pointer('up', $event)"
      @mousedown.prevent
      @contextmenu.prevent
    >
      <defs>
        <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="9" class="hatch" />
        </pattern>
      </defs>
      <path v-for="(hatch, k) in hatches" :key="`h${k}`" :d="hatch" class="area" fill-rule="evenodd" data-testid="region" />
      <path v-for="(axis, k) in axes" :key="`a${k}`" :d="axis" class="axis" :class="{ hovered: editor.hovered === (k ? 'y-axis' : 'x-axis'), selected: editor.selection.has(k ? 'y-axis' : 'x-axis') }" />
      <g v-for="curve in curves" :key="curve.id" :class="['curve', curve.state, { construction: curve.construction, selected: curve.selected, hovered: curve.hovered }]">
        <path v-if="curve.state === 'clashing'" :d="curve.path" class="teeth" />
        <path :d="curve.path" class="stroke" :data-entity="curve.id" :data-state="curve.state"><title>{{ titleOf(curve.id) }}</title></path>
      </g>
      <g v-for="point in points" :key="point.id" :class="['point', point.state, { selected: point.selected, hovered: point.hovered }]">
        <circle v-if="point.state === 'loose'" :cx="point.place[0]" :cy="point.place[1]" r="3.6" />
        <path v-else-if="point.state === 'clashing'" :d="`M${point.place[0] - 4} ${point.place[1] - 4}l8 8m0 -8l-8 8`" />
        <rect v-else :x="point.place[0] - 2.5" :y="point.place[1] - 2.5" width="5" height="5" />
      </g>
      <g class="origin" :class="{ hovered: editor.hovered === 'origin', selected: editor.selection.has('origin') }">
        <circle :cx="affine.o[0]" :cy="affine.o[1]" r="5" />
        <path :d="`M${affine.o[0] - 8} ${affine.o[1]}h16M${affine.o[0]} ${affine.o[1] - 8}v16`" />
      </g>
      <circle v-for="(end, k) in openEnds" :key="`o${k}`" :cx="end[0]" :cy="end[1]" r="8" class="open-end"><title>The outline is open here</title></circle>
      <g v-for="(size, k) in sizes" :key="size.id ?? `new${k}`" class="size" :class="{ trouble: size.trouble, proposed: size.id === undefined }">
        <path v-for="(stroke, s) in size.annotation.strokes" :key="s" :d="d(stroke)" class="thin" />
        <path v-for="(tip, s) in size.annotation.arrows" :key="`t${s}`" :d="arrow(tip)" class="arrow" />
        <g :transform="`translate(${at(size.annotation.text).join(' ')}) rotate(${size.annotation.upright ? -90 : 0})`" class="number" @pointerdown="grab(size, $event)">
          <rect :x="-size.text.length * 4 - 4" y="-9" :width="size.text.length * 8 + 8" height="18" class="back" />
          <text text-anchor="middle" dominant-baseline="central" :data-size="size.id">{{ size.text }}</text>
        </g>
      </g>
      <g v-for="(tag, k) in tags" :key="`${tag.id}${k}`" class="tag" :class="[tag.state, { selected: tag.selected }]" @pointerdown.stop="editor.select([tag.id], $event.shiftKey)">
        <circle :cx="tag.x" :cy="tag.y" r="8" />
        <text :x="tag.x" :y="tag.y" text-anchor="middle" dominant-baseline="central">{{ tag.mark }}</text>
      </g>
      <g class="preview">
        <path v-for="(line, k) in preview.lines" :key="`l${k}`" :d="d(line)" />
        <path v-for="(circle, k) in preview.circles" :key="`c${k}`" :d="ring(circle.centre, circle.radius)" />
        <path v-if="preview.box" class="box" :d="`${d([preview.box[0], [preview.box[1][0], preview.box[0][1]], preview.box[1], [preview.box[0][0], preview.box[1][1]]])}Z`" />
        <g v-for="(tag, k) in preview.tags" :key="`t${k}`" class="tag guess">
          <circle :cx="at(tag.at)[0] + 14" :cy="at(tag.at)[1] - 14" r="8" />
          <text :x="at(tag.at)[0] + 14" :y="at(tag.at)[1] - 14" text-anchor="middle" dominant-baseline="central">{{ tag.mark }}</text>
        </g>
      </g>
    </svg>
    <div v-if="asked" class="pointer-events-auto absolute z-10 -translate-x-1/2 -translate-y-1/2" :style="{ left: `${asked.place[0]}px`, top: `${asked.place[1]}px` }">
      <input
        ref="field"
        v-model="typed"
        class="chip border-act bg-lit border px-2 py-1 text-center outline-none"
        :size="Math.max(10, typed.length + 1)"
        aria-label="Size"
        :aria-invalid="wrong !== ''"
        maxlength="240"
        @keydown.enter.stop.prevent="answer"
        @keydown.esc.stop="editor.escape()"
      />
      <p v-if="wrong" class="bg-lit border-clash text-clash mt-1 w-64 border px-2 py-1 text-sm" role="alert">{{ wrong }}</p>
    </div>
  </div>
</template>

<style scoped>
.hatch {
  stroke: var(--muted);
  stroke-width: 1;
  opacity: 0.28;
}
path,
circle {
  fill: none;
}
.area {
  fill: url(#hatch);
}
.axis {
  stroke: var(--muted);
  stroke-width: 1;
  stroke-dasharray: 14 4 2 4;
  opacity: 0.55;
}
.origin {
  stroke: var(--muted);
}
.settled .stroke {
  stroke: var(--ink);
  stroke-width: 2;
}
.loose .stroke {
  stroke: var(--loose);
  stroke-width: 1.4;
}
.clashing .stroke {
  stroke: var(--clash);
  stroke-width: 2;
}
.teeth {
  stroke: var(--clash);
  stroke-width: 8;
  stroke-dasharray: 1.6 5;
}
.construction .stroke {
  stroke-width: 1;
  stroke-dasharray: 14 4 2 4;
}
.construction.settled .stroke {
  stroke: var(--muted);
}
.hovered .stroke,
.axis.hovered {
  stroke-width: 3.2;
  opacity: 1;
}
.selected .stroke,
.axis.selected,
.origin.selected {
  stroke: var(--act);
  stroke-width: 3;
  opacity: 1;
}
.point {
  stroke: var(--ink);
}
.point.settled rect {
  fill: var(--ink);
}
.point.loose circle {
  stroke: var(--loose);
  stroke-width: 1.6;
  fill: var(--paper);
}
.point.clashing path {
  stroke: var(--clash);
  stroke-width: 2;
}
.point.hovered :is(circle, rect),
.origin.hovered {
  stroke: var(--link);
  stroke-width: 3;
}
.point.selected :is(circle, rect) {
  stroke: var(--act);
  stroke-width: 3;
}
.open-end {
  stroke: var(--clash);
  stroke-width: 1.5;
  stroke-dasharray: 3 2;
}
.size .thin {
  stroke: var(--ink);
  stroke-width: 1;
}
.size .arrow {
  fill: var(--ink);
}
.size text {
  font: 13px var(--font-mono, monospace);
  fill: var(--ink);
  user-select: none;
}
.size .back {
  fill: var(--paper);
  opacity: 0.7;
}
.number {
  cursor: text;
}
.number:hover .back {
  fill: var(--chip);
  opacity: 1;
}
.trouble .thin {
  stroke: var(--clash);
}
.trouble .arrow,
.trouble text {
  fill: var(--clash);
}
.proposed {
  opacity: 0.6;
}
.tag {
  cursor: pointer;
}
.tag circle {
  fill: var(--sheet);
  stroke: var(--muted);
}
.tag text {
  font: 10.5px var(--font-mono, monospace);
  fill: var(--ink);
  user-select: none;
}
.tag.clashing circle {
  stroke: var(--clash);
  stroke-width: 2;
}
.tag.selected circle {
  stroke: var(--act);
  stroke-width: 2;
}
.tag.guess circle {
  stroke: var(--link);
  stroke-dasharray: 2 1.5;
}
.preview {
  pointer-events: none;
}
.preview > path {
  stroke: var(--link);
  stroke-width: 1.5;
}
.preview > .box {
  stroke-dasharray: 4 3;
  fill: var(--link);
  fill-opacity: 0.08;
}
</style>
