import { add2, cross2, distance2, dot2, left2, scale2, sub2, type Vec2 } from '../math/index.ts';

/** An arc that is to be drawn: counter-clockwise from `a` to `b`. `turned` tells that start and end changed places. */
export interface DrawnArc {
  readonly centre: Vec2;
  readonly a: Vec2;
  readonly b: Vec2;
  readonly turned: boolean;
}

/** Radii beyond this are as good as straight, mm. */
const FLAT = 1e5;

const ordered = (centre: Vec2, start: Vec2, end: Vec2, left: boolean): DrawnArc | undefined =>
  distance2(centre, start) > FLAT
    ? undefined
    : left
      ? { centre, a: start, b: end, turned: false }
      : { centre, a: end, b: start, turned: true };

/** The centre of the circle through three places; undefined where they lie in line. */
export function circleThrough(p: Vec2, q: Vec2, r: Vec2): Vec2 | undefined {
  const [u, v] = [sub2(q, p), sub2(r, p)];
  const across = 2 * cross2(u, v);
  if (Math.abs(across) < 1e-12 * Math.max(dot2(u, u), dot2(v, v), 1)) return undefined;
  return add2(p, scale2(left2(sub2(scale2(u, dot2(v, v)), scale2(v, dot2(u, u)))), 1 / across));
}

/** The arc from start to end through a third place; undefined where the three lie in line. */
export function arcThrough(start: Vec2, end: Vec2, through: Vec2): DrawnArc | undefined {
  const centre = circleThrough(start, end, through);
  // through lies right of the chord where the arc runs counter-clockwise
  return centre && ordered(centre, start, end, cross2(sub2(end, start), sub2(through, start)) < 0);
}

/** The arc that leaves `start` in a direction and ends at `end`; undefined where it would be straight. */
export function arcLeaving(start: Vec2, direction: Vec2, end: Vec2): DrawnArc | undefined {
  const chord = sub2(end, start);
  const normal = left2(direction);
  const height = dot2(normal, chord);
  if (Math.abs(height) < 1e-9 * Math.max(dot2(chord, chord), 1)) return undefined;
  const radius = dot2(chord, chord) / (2 * height);
  return ordered(add2(start, scale2(normal, radius)), start, end, radius > 0);
}

/** The direction in which an arc ends: where `b` is its end, or, turned, its start. */
export function directionAtEnd({ centre, a, b, turned }: DrawnArc): Vec2 {
  const end = turned ? a : b;
  const out = sub2(end, centre);
  const along = turned ? scale2(left2(out), -1) : left2(out);
  return scale2(along, 1 / (Math.hypot(...along) || 1));
}
