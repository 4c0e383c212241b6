import {
  cross3,
  direction3,
  distance3,
  dot3,
  footOnLine3,
  heightOver,
  length3,
  sub3,
  type Vec3,
} from '../math/index.ts';
import type { Axis } from '../geometry/index.ts';
import { axisOf, planeOf, pointOf, type Reading, type Thing } from './things/index.ts';

const length = (label: string, amount: number): Reading => ({ label, amount, of: 'length' });
const angle = (amount: number): Reading => ({ label: 'angle', amount, of: 'angle' });

/**
 * What can be read off two things: between points their distance and its parts along the axes; from points, lines and
 * planes to each other the distance where they are parallel, else the angle. Lines and planes count as endless.
 */
export function readingsBetween(a: Thing, b: Thing): Reading[] {
  const [p, q] = [pointOf(a), pointOf(b)];
  if (p && q) return betweenPoints(p, q);
  const [f, g] = [planeOf(a), planeOf(b)];
  if (f && g)
    return Math.abs(dot3(f.z, g.z)) > PARALLEL
      ? [length('distance', Math.abs(heightOver(f, g.origin)))]
      : [angle(acute(f.z, g.z))];
  const [point, plane] = p ? [p, g] : [q, f];
  if (point && plane) return [length('distance', Math.abs(heightOver(plane, point)))];
  const [u, v] = [axisOf(a), axisOf(b)];
  const [axis, other] = u ? [u, { point: q, plane: g }] : [v, { point: p, plane: f }];
  if (u && v) return betweenAxes(u, v);
  if (axis && other.point)
    return [length('distance', distance3(other.point, footOnLine3(other.point, axis.origin, axis.direction)))];
  if (!axis || !other.plane) return [];
  const slope = Math.abs(dot3(axis.direction, other.plane.z));
  return slope < 1e-9
    ? [length('distance', Math.abs(heightOver(other.plane, axis.origin)))]
    : [angle(Math.asin(Math.min(1, slope)))];
}

const PARALLEL = 1 - 1e-12;

function betweenPoints(p: Vec3, q: Vec3): Reading[] {
  const [x, y, z] = sub3(q, p);
  return [length('distance', distance3(p, q)), length('along x', x), length('along y', y), length('along z', z)];
}

function betweenAxes(u: Axis, v: Axis): Reading[] {
  const normal = direction3(cross3(u.direction, v.direction));
  const join = sub3(v.origin, u.origin);
  if (!normal || Math.abs(dot3(u.direction, v.direction)) > PARALLEL)
    return [length('distance', length3(cross3(join, u.direction)))];
  return [length('distance', Math.abs(dot3(join, normal))), angle(acute(u.direction, v.direction))];
}

/** The angle between two directions, up to a right one. */
const acute = (a: Vec3, b: Vec3): number => Math.acos(Math.min(1, Math.abs(dot3(a, b))));
