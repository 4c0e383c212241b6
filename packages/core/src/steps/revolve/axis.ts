import { dot2, left2, sub2, toPlane, type Frame, type Vec2, type Vec3 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import {
  entityKind,
  findRegions,
  Geometry,
  X_AXIS,
  Y_AXIS,
  type Entities,
  type Entity,
  type Regions,
} from '../../sketch/index.ts';

// What half a profile is turned about, and closed along.

/** Nearer to a line than this (mm) a place lies on it. */
const NEAR = 1e-6;

/**
 * The line of a sketch about which somebody most likely wants to turn what is drawn: the only construction line; else the
 * axis of the sketch on which an open outline ends; else the only line; else the only side that lies on an axis of the
 * sketch with all the rest on one side of it.
 */
export function likelyAxis(geometry: Geometry): Id | undefined {
  const all = Object.entries(geometry.entities).filter(([, { kind }]) => kind === 'line');
  const construction = all.filter(([, line]) => isConstruction(line));
  if (construction.length === 1) return construction[0]![0];
  const ends = findRegions(geometry).openEnds;
  const open = AXES.filter(([, across]) => ends.length === 2 && ends.every(({ at }) => Math.abs(at[across]) < NEAR));
  if (open.length === 1) return open[0]![0];
  const lines = (construction.length > 0 ? construction : all).map(([id]) => id);
  if (lines.length === 1) return lines[0];
  const sides = lines.filter((id) => isSideOnAxis(geometry, id));
  return sides.length === 1 ? sides[0] : undefined;
}

/** The axes of a sketch, with the coordinate that is 0 on each. */
const AXES = [
  [X_AXIS, 1],
  [Y_AXIS, 0],
] as const;

/** Does a line lie on an axis of the sketch, and all that is drawn on one side of it? */
function isSideOnAxis(geometry: Geometry, id: Id): boolean {
  const { a, b } = geometry.line(id);
  if (!AXES.some(([, across]) => Math.abs(a[across]) < NEAR && Math.abs(b[across]) < NEAR)) return false;
  const normal = left2(sub2(b, a));
  const heights = Object.values(geometry.entities).flatMap((entity) =>
    entity.kind === 'point' ? [dot2(sub2([entity.x, entity.y], a), normal)] : [],
  );
  return heights.every((height) => height > -NEAR) || heights.every((height) => height < NEAR);
}

const isConstruction = (entity: Entity): boolean => 'construction' in entity && entity.construction === true;

/**
 * The areas of an outline that is open along an axis, both its ends lying on that: closed there, as what is turned about the
 * axis has no side on it. Undefined where it is not so.
 */
export function closedAlong(
  axis: { readonly origin: Vec3; readonly direction: Vec3 },
  frame: Frame,
  { entities }: Geometry,
  { openEnds }: Regions,
): Regions | undefined {
  const origin = toPlane(frame, axis.origin);
  const far = toPlane(frame, axis.origin.map((c, k) => c + axis.direction[k]!) as unknown as Vec3);
  const normal = left2(sub2(far, origin));
  const areOnAxis = openEnds.every(({ at }) => Math.abs(dot2(sub2(at, origin), normal)) < NEAR);
  if (openEnds.length !== 2 || !areOnAxis) return undefined;
  const ends = openEnds.map(({ at, entity }) => endAt(entities, entity, at));
  if (!ends[0] || !ends[1]) return undefined;
  return findRegions(new Geometry({ ...entities, [CLOSING]: { kind: 'line', a: ends[0], b: ends[1] } }));
}
const CLOSING = 'closing';

/** The point at which a curve ends there. */
function endAt(entities: Entities, curve: Id, at: Vec2): Id | undefined {
  const entity = entities[curve]!;
  return entityKind(entity.kind)
    .uses(entity)
    .find((id) => {
      const point = entities[id];
      return point?.kind === 'point' && Math.hypot(point.x - at[0], point.y - at[1]) < NEAR;
    });
}
