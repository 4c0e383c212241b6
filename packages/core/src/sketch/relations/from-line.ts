import { offLine2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Geometry } from '../geometry.ts';
import { halfAxis, isAxisLike, ON_LINE } from '../half-profile.ts';

// What the distance of a point from a line can mean: how far it is, or how wide what is mirrored or turned there will be.

/** How far a point lies left of a line, mm. */
export function offAxis(geometry: Geometry, point: Id, axis: Id): number {
  const { a, b } = geometry.line(axis);
  return offLine2(geometry.point(point), a, b);
}

const senseOf = (geometry: Geometry, point: Id, line: Id) => (offAxis(geometry, point, line) >= 0 ? 1 : -1);

/** Twice the distance of a point from an axis. */
export const acrossLine = (geometry: Geometry, point: Id, axis: Id) =>
  ({ kind: 'across', point, axis, sense: senseOf(geometry, point, axis), value: '1' }) as const;

/** Both that can be meant between a point and a line; nothing to choose where nothing is turned about the line. */
export function waysFromLine(geometry: Geometry, point: Id, line: Id) {
  if (!isAxisLike(geometry, line)) return [];
  const sense = senseOf(geometry, point, line);
  return [
    {
      title: 'from the axis',
      relation: { kind: 'distance', a: point, b: line, direction: 'aligned', sense, value: '1' },
    },
    { title: 'across the axis', relation: acrossLine(geometry, point, line) },
  ] as const;
}

/** Across the axis of half a profile, where both points are as far off it; nothing where they are not. */
export function waysAcross(geometry: Geometry, a: Id, b: Id) {
  const axis = halfAxis(geometry);
  if (axis === undefined) return [];
  const [one, other] = [a, b].map((point) => offAxis(geometry, point, axis)) as [number, number];
  if (Math.abs(one) < ON_LINE || Math.abs(one - other) > ON_LINE) return [];
  return [{ title: 'across the axis', relation: acrossLine(geometry, a, axis) }] as const;
}
