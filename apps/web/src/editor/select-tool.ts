import {
  distance2,
  dragSketch,
  Geometry,
  isBuiltIn,
  type Drag,
  polyline,
  type Entities,
  type Entity,
  type Id,
  type Relations,
  type Sizes,
  type Vec2,
  X_AXIS,
  Y_AXIS,
} from '@helb/core';
import { curveIds, footOn, nearest, pointIds } from './snapping.ts';
import { NO_PREVIEW, type PointerAt, type Preview, type Tool, type ToolHost } from './tool.ts';

export interface SelectHost extends ToolHost {
  readonly relations: Relations;
  readonly sizes: Sizes;
  readonly selection: ReadonlySet<Id>;
  select(ids: readonly Id[], add: boolean): void;
  hover(id: Id | undefined): void;
  /** Shows places that are not kept yet; undefined ends that. */
  show(entities: Entities | undefined): void;
  /** Keeps the places of a drag. */
  place(entities: Entities): void;
}

/** What lies under the pointer: points before curves, what is drawn before the axes. */
export function hit(geometry: Geometry, { at, reach }: PointerAt): Id | undefined {
  const point = nearest(pointIds(geometry), (id) => distance2(geometry.point(id), at), reach);
  const curve = (ids: readonly Id[]) => nearest(ids, (id) => distance2(footOn(geometry, id, at), at), reach * 0.8);
  return point ?? curve(curveIds(geometry)) ?? curve([X_AXIS, Y_AXIS]);
}

/** Selects by click and by box; pulls loose geometry, which follows without breaking a relation. */
export class SelectTool implements Tool {
  readonly name = 'select';
  readonly hint = 'Click to select, Shift adds. Drag what is loose; drag on empty paper for a box.';
  preview: Preview = NO_PREVIEW;
  private pressed: { readonly at: Vec2; readonly id: Id | undefined } | undefined;
  private frame: Entities | undefined;

  constructor(private readonly host: SelectHost) {}

  down(pointer: PointerAt): void {
    this.pressed = { at: pointer.at, id: hit(this.host.geometry, pointer) };
  }

  move(pointer: PointerAt): void {
    if (!this.pressed) {
      this.host.hover(hit(this.host.geometry, pointer));
      return;
    }
    const { at, id } = this.pressed;
    if (!this.frame && !this.preview.box && distance2(at, pointer.at) < pointer.reach / 2) return;
    if (id === undefined || isBuiltIn(id)) {
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
    this.pressed = this.frame = undefined;
    this.preview = NO_PREVIEW;
    this.host.show(undefined);
    return busy;
  }

  private dragFrame(geometry: Geometry, id: Id, to: Vec2): Entities | undefined {
    const entity = geometry.entities[id];
    if (!entity) return undefined;
    const drag = DRAGS[entity.kind](geometry, id, this.pressed!.at, to, this.host.geometry);
    return dragSketch(geometry.entities, this.host.relations, this.host.sizes, drag);
  }
}

type DragOf = (geometry: Geometry, id: Id, from: Vec2, to: Vec2, before: Geometry) => Drag;

/** How each kind of entity is pulled: a point itself, a line by both ends, a circle or an arc by its rim. */
const DRAGS: Readonly<Record<Entity['kind'], DragOf>> = {
  point: (_, id, __, to) => ({ points: [{ id, to }] }),
  line(geometry, id, from, to, before) {
    const { a, b } = geometry.entities[id] as { a: Id; b: Id };
    const moved = (end: Id): Vec2 => {
      const [x, y] = before.point(end);
      return [x + to[0] - from[0], y + to[1] - from[1]];
    };
    return { points: [a, b].filter((end) => geometry.entities[end]).map((end) => ({ id: end, to: moved(end) })) };
  },
  circle: rim,
  arc: rim,
};

function rim(geometry: Geometry, id: Id, _: Vec2, to: Vec2): Drag {
  return { radius: { id, to: Math.max(distance2(geometry.circle(id).centre, to), 1e-3) } };
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
