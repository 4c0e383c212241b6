import { add3, cross3, distance3, dot3, length3, scale3, sub3, type Vec3 } from './vector.ts';

export type Triangle = readonly [Vec3, Vec3, Vec3];

/** Two places, and how far they are apart. */
export interface Nearest {
  readonly distance: number;
  readonly a: Vec3;
  readonly b: Vec3;
}

const between = (a: Vec3, b: Vec3): Nearest => ({ distance: distance3(a, b), a, b });
const EDGES = [
  [0, 1],
  [1, 2],
  [2, 0],
] as const;

/**
 * Where two triangles come nearest: at two edges, or at a corner of one and the inside of the other; 0 apart where an
 * edge of one goes through the other (Ericson 2005, 5.1.10). Written without small functions: motions ask it very often.
 */
export function nearestOfTriangles(p: Triangle, q: Triangle): Nearest {
  let best: Nearest | undefined;
  for (const [i, j] of EDGES)
    for (const [k, l] of EDGES) best = nearer(best, nearestOfSegments(p[i], p[j], q[k], q[l]));
  for (const corner of p) best = nearer(best, over(corner, q));
  for (const corner of q) best = nearer(best, mirrored(over(corner, p)));
  for (const [i, j] of EDGES) best = nearer(nearer(best, pierced(p[i], p[j], q)), pierced(q[i], q[j], p));
  return best!;
}

const nearer = (best: Nearest | undefined, found: Nearest | undefined): Nearest | undefined =>
  found && (!best || found.distance < best.distance) ? found : best;

const mirrored = (found: Nearest | undefined): Nearest | undefined =>
  found && { distance: found.distance, a: found.b, b: found.a };

const clamped = (t: number): number => (t < 0 ? 0 : t > 1 ? 1 : t);

/** Where two segments come nearest; each may be a single place (Ericson 2005, 5.1.9). */
export function nearestOfSegments(p: Vec3, p2: Vec3, q: Vec3, q2: Vec3): Nearest {
  const [d, e, r] = [sub3(p2, p), sub3(q2, q), sub3(p, q)];
  const [a, b, c, f, g] = [dot3(d, d), dot3(d, e), dot3(d, r), dot3(e, r), dot3(e, e)];
  const square = a * g - b * b;
  let s = 0;
  if (square > 1e-12 * a * g) s = clamped((b * f - c * g) / square);
  else if (g === 0 && a > 0) s = clamped(-c / a);
  let t = g > 0 ? (b * s + f) / g : 0;
  if (t < 0 || t > 1) {
    t = clamped(t);
    s = a > 0 ? clamped((b * t - c) / a) : 0;
  }
  return between(add3(p, scale3(d, s)), add3(q, scale3(e, t)));
}

/** A place against the inside of a triangle; undefined where it is not over it. */
function over(place: Vec3, triangle: Triangle): Nearest | undefined {
  const [a, b, c] = triangle;
  const normal = cross3(sub3(b, a), sub3(c, a));
  const square = dot3(normal, normal);
  if (square === 0) return undefined;
  const foot = sub3(place, scale3(normal, dot3(sub3(place, a), normal) / square));
  return isInside(foot, triangle, normal) ? between(place, foot) : undefined;
}

/**
 * Where a segment goes through a triangle; undefined where it does not.
 * @param by so far beyond it on both sides, and so far inside of its edges, at least
 */
function pierced(from: Vec3, to: Vec3, triangle: Triangle, by = 0): Nearest | undefined {
  const [a, b, c] = triangle;
  const normal = cross3(sub3(b, a), sub3(c, a));
  const [h, k] = [dot3(sub3(from, a), normal), dot3(sub3(to, a), normal)];
  if (h * k >= 0 || Math.min(Math.abs(h), Math.abs(k)) < by * length3(normal)) return undefined;
  const at = add3(from, scale3(sub3(to, from), h / (h - k)));
  return isInside(at, triangle, normal, by) ? { distance: 0, a: at, b: at } : undefined;
}

/** Does an edge of one of two triangles go through the other, by more than so much on both sides? */
export const goesThrough = (p: Triangle, q: Triangle, by: number): boolean =>
  EDGES.some(([i, j]) => pierced(p[i], p[j], q, by) !== undefined || pierced(q[i], q[j], p, by) !== undefined);

const isInside = (place: Vec3, triangle: Triangle, normal: Vec3, by = 0): boolean =>
  EDGES.every(([i, j]) => {
    const edge = sub3(triangle[j], triangle[i]);
    const over = dot3(cross3(edge, sub3(place, triangle[i])), normal);
    return by === 0 ? over >= 0 : over >= by * length3(edge) * length3(normal);
  });
