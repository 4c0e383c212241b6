import {
  add2,
  distance2,
  entityKind,
  Geometry,
  isBuiltIn,
  ORIGIN,
  polyline,
  SketchDrag,
  sub2,
  X_AXIS,
  Y_AXIS,
  type Drag,
  type Entities,
  type Id,
  type Relations,
  type Role,
  type Sizes,
  type Vec2,
} from '@helb/core';
import { curveIds, footOn, nearest, pointIds } from './snapping.ts';
import { NO_PREVIEW, type PointerAt, type Preview, type Tool, type ToolHost } from './tool.ts';

interface SelectHost extends ToolHost {
  /** The pattern one of whose repetitions lies under the pointer. */
  patternAt(pointer: PointerAt): Id | undefined;
  readonly relations: Relations;
  readonly sizes: Sizes;
  /** Entities that follow something outside and can't be dragged. */
  readonly borrowed: Entities;
  readonly selection: ReadonlySet<Id>;
  select(ids: readonly Id[], add: boolean): void;
  hover(id: Id | undefined): void;
  /** Shows places that are not kept yet; undefined ends that. */
  show(entities: Entities | undefined): void;
  /** Keeps the places of a drag. */
  place(entities: Entities): void;
}

/**
 * What lies under the pointer: points before curves, what is drawn before the axes; or curves alone. Who points along a
 * short curve, well off its ends, means the curve.
 */
export function hit(geometry: Geometry, { at, reach }: PointerAt, what: 'all' | 'curves' = 'all'): Id | undefined {
  const toPoint = (id: Id) => distance2(geometry.point(id), at);
  const toCurve = (id: Id) => distance2(footOn(geometry, id, at), at);
  const point = what === 'all' ? nearest(pointIds(geometry), toPoint, reach) : undefined;
  const curve = nearest(curveIds(geometry), toCurve, reach * 0.8);
  if (point === undefined) return curve ?? nearest([X_AXIS, Y_AXIS], toCurve, reach * 0.8);
  const isOff = toPoint(point) > reach * POINT_SHARE && curve !== undefined && toCurve(curve) < toPoint(point) / 2;
  return isOff ? curve : point;
}
/** Nearer than this share of the reach a point is meant, whatever runs through it. */
const POINT_SHARE = 0.55;

/** That of what is drawn; where only an axis or nothing is, what of the model could be borrowed. */
export function reached({ geometry, reachable }: ToolHost, pointer: PointerAt): Id | undefined {
  const own = hit(geometry, pointer);
  if (own !== undefined && (own === ORIGIN || !isBuiltIn(own))) return own;
  const lent = hit(reachable, pointer);
  return lent !== undefined && !isBuiltIn(lent) ? lent : own;
}

/** Selects by click and by box; pulls loose geometry, which follows without breaking a relation. */
export class SelectTool implements Tool {
  readonly name = 'select';
  readonly hint = 'Click to select, Shift adds. Drag what is loose; drag on empty paper for a box.';
  preview: Preview = NO_PREVIEW;
  private pressed: { readonly at: Vec2; readonly id: Id | undefined } | undefined;
  private frame: Entities | undefined;
  private drag: SketchDrag | undefined;

  constructor(private readonly host: SelectHost) {}

  down(pointer: PointerAt): void {
    this.pressed = { at: pointer.at, id: this.under(pointer) };
  }

  move(pointer: PointerAt): void {
    if (!this.pressed) {
      this.host.hover(this.under(pointer));
      return;
    }
    const { at, id } = this.pressed;
    if (!this.frame && !this.preview.box && distance2(at, pointer.at) < pointer.reach / 2) return;
    if (id === undefined || isBuiltIn(id) || !this.host.geometry.entities[id]) {
      this.preview = { ...NO_PREVIEW, box: [at, pointer.at] };
      return;
    }
    const geometry = this.frame ? new Geometry(this.frame) : this.host.geometry;
    const moved = this.dragFrame(geometry, id, pointer.at);
    if (!moved) return;
    this.frame = moved;
    this.host.show(moved);
  }

  up(pointer: PointerAt): void {
    const { pressed, frame } = this;
    const { box } = this.preview;
    this.escape();
    if (frame) this.host.place(frame);
    else if (box) this.host.select(inBox(this.host.geometry, box), pointer.add);
    else if (pressed) this.host.select(pressed.id === undefined ? [] : [pressed.id], pointer.add);
  }

  escape(): boolean {
    const busy = this.pressed !== undefined;
    this.pressed = this.frame = this.drag = undefined;
    this.preview = NO_PREVIEW;
    this.host.show(undefined);
    return busy;
  }

  private under(pointer: PointerAt): Id | undefined {
    const found = reached(this.host, pointer);
    return found !== undefined && this.host.geometry.entities[found] ? found : (this.host.patternAt(pointer) ?? found);
  }

  private dragFrame(geometry: Geometry, id: Id, to: Vec2): Entities | undefined {
    const entity = geometry.entities[id];
    if (!entity) return undefined;
    const drag = DRAGS[entityKind(entity.kind).role](geometry, id, this.pressed!.at, to, this.host.geometry);
    this.drag ??= new SketchDrag(geometry.entities, this.host.relations, this.host.sizes, this.host.borrowed);
    return this.drag.frame(drag);
  }
}

type DragOf = (geometry: Geometry, id: Id, from: Vec2, to: Vec2, before: Geometry) => Drag;

/** How what is pulled moves: a point itself, what is round by its rim, all else with all its points. */
const DRAGS: Readonly<Record<Role, DragOf>> = {
  point: (_, id, __, to) => ({ points: [{ id, to }] }),
  circle: (geometry, id, _, to) => ({
    radius: { id, to: Math.max(distance2(geometry.circle(id).centre, to), 1e-3) },
  }),
  line: whole,
  ellipse: whole,
  spline: whole,
  text: whole,
};

function whole(geometry: Geometry, id: Id, from: Vec2, to: Vec2, before: Geometry): Drag {
  const entity = geometry.entities[id]!;
  const points = entityKind(entity.kind)
    .uses(entity)
    .filter((point) => geometry.entities[point])
    .map((point) => ({ id: point, to: add2(before.point(point), sub2(to, from)) }));
  return { points };
}

/** Drawn from left to right the box takes what lies in it whole; points do not count where a curve was taken. */
function inBox(geometry: Geometry, [p, q]: readonly [Vec2, Vec2]): Id[] {
  const inside = ([x, y]: Vec2) =>
    x >= Math.min(p[0], q[0]) && x <= Math.max(p[0], q[0]) && y >= Math.min(p[1], q[1]) && y <= Math.max(p[1], q[1]);
  return Object.entries(geometry.entities).flatMap(([id, entity]) => {
    if (entity.kind === 'point') return inside([entity.x, entity.y]) ? [id] : [];
    return geometry.pieces(id).flatMap(polyline).every(inside) ? [id] : [];
  });
}
