import type { Vec3 } from './vector.ts';

// Triangles are packed here: a corner and the two edges from it, one after the other in a list. A triangle may be a segment or a
// single place. Written without small arrays and functions: motions ask all this for many thousand triangles a step.

/** Numbers of a packed triangle. */
export const PACKED = 9;

/** Two places, and how far they are apart. */
export interface Nearest {
  readonly distance: number;
  readonly a: Vec3;
  readonly b: Vec3;
}

/** Corners and edges of the two triangles that are looked at, relative to the first corner of the first. */
const [P, Q] = [new Float64Array(9), new Float64Array(9)];
const [U, V] = [new Float64Array(9), new Float64Array(9)];
/** How far the corners of the one are over the plane of the other, times the length of its normal. */
const [OVER_P, OVER_Q] = [new Float64Array(3), new Float64Array(3)];
/** Normals of both, as long as twice their areas, and their squares. */
const [NORMAL_P, NORMAL_Q] = [new Float64Array(4), new Float64Array(4)];
/** Corners beyond each edge. */
const NEXT = [3, 6, 0] as const;

function load(
  list: Float64Array,
  at: number,
  corners: Float64Array,
  edges: Float64Array,
  from: ArrayLike<number>,
): void {
  for (let axis = 0; axis < 3; axis++) {
    const c = list[at + axis]! - from[axis]!;
    const u = list[at + 3 + axis]!;
    const v = list[at + 6 + axis]!;
    corners[axis] = c;
    corners[3 + axis] = c + u;
    corners[6 + axis] = c + v;
    edges[axis] = u;
    edges[3 + axis] = v - u;
    edges[6 + axis] = -v;
  }
}

function normalOf(edges: Float64Array, normal: Float64Array): void {
  const x = edges[0]!;
  const y = edges[1]!;
  const z = edges[2]!;
  const u = -edges[6]!;
  const v = -edges[7]!;
  const w = -edges[8]!;
  const a = y * w - z * v;
  const b = z * u - x * w;
  const c = x * v - y * u;
  normal[0] = a;
  normal[1] = b;
  normal[2] = c;
  normal[3] = a * a + b * b + c * c;
}

function heights(corners: Float64Array, on: Float64Array, normal: Float64Array, over: Float64Array): void {
  for (let k = 0; k < 3; k++)
    over[k] =
      (corners[3 * k]! - on[0]!) * normal[0]! +
      (corners[3 * k + 1]! - on[1]!) * normal[1]! +
      (corners[3 * k + 2]! - on[2]!) * normal[2]!;
}

/** Makes two triangles ready to be looked at, and tells where the first corner of the first is. */
function loadBoth(p: Float64Array, i: number, q: Float64Array, j: number): Vec3 {
  const from: Vec3 = [p[i]!, p[i + 1]!, p[i + 2]!];
  load(p, i, P, U, from);
  load(q, j, Q, V, from);
  normalOf(U, NORMAL_P);
  normalOf(V, NORMAL_Q);
  heights(Q, P, NORMAL_P, OVER_P);
  heights(P, Q, NORMAL_Q, OVER_Q);
  return from;
}

/** Do all corners lie on one side of a plane, and further away than a limit? */
function isBeyond(over: Float64Array, square: number, limit: number): boolean {
  const a = over[0]!;
  const b = over[1]!;
  const c = over[2]!;
  const least = a > 0 && b > 0 && c > 0 ? Math.min(a, b, c) : a < 0 && b < 0 && c < 0 ? Math.max(a, b, c) : 0;
  return least * least > limit * limit * square;
}

/** Is a place inside the edges of a triangle, seen along its normal? */
function isInside(
  corners: Float64Array,
  edges: Float64Array,
  n: Float64Array,
  x: number,
  y: number,
  z: number,
): boolean {
  for (let e = 0; e < 9; e += 3) {
    const u = edges[e]!;
    const v = edges[e + 1]!;
    const w = edges[e + 2]!;
    const a = x - corners[e]!;
    const b = y - corners[e + 1]!;
    const c = z - corners[e + 2]!;
    if ((v * c - w * b) * n[0]! + (w * a - u * c) * n[1]! + (u * b - v * a) * n[2]! < 0) return false;
  }
  return true;
}

/**
 * How near two packed triangles come, if that is nearer than `limit`; Infinity if not. They do so at two edges, or at a corner
 * of one and the inside of the other; 0 apart where an edge of one goes through the other (Ericson 2005, 5.1.9 and 5.1.10).
 * @param places where that is on both, one after the other
 */
export function nearestOfTriangles(
  p: Float64Array,
  i: number,
  q: Float64Array,
  j: number,
  limit: number,
  places: Float64Array,
): number {
  const from = loadBoth(p, i, q, j);
  const squareP = NORMAL_P[3]!;
  const squareQ = NORMAL_Q[3]!;
  if (limit < Infinity && (isBeyond(OVER_P, squareP, limit) || isBeyond(OVER_Q, squareQ, limit))) return Infinity;
  let best = limit * limit;
  let found = false;
  // edges against edges
  for (let e = 0; e < 9; e += 3) {
    const dx = U[e]!;
    const dy = U[e + 1]!;
    const dz = U[e + 2]!;
    const a = dx * dx + dy * dy + dz * dz;
    for (let f = 0; f < 9; f += 3) {
      const ex = V[f]!;
      const ey = V[f + 1]!;
      const ez = V[f + 2]!;
      const rx = P[e]! - Q[f]!;
      const ry = P[e + 1]! - Q[f + 1]!;
      const rz = P[e + 2]! - Q[f + 2]!;
      const b = dx * ex + dy * ey + dz * ez;
      const c = dx * rx + dy * ry + dz * rz;
      const h = ex * rx + ey * ry + ez * rz;
      const g = ex * ex + ey * ey + ez * ez;
      const square = a * g - b * b;
      let s = 0;
      if (square > 1e-12 * a * g) s = Math.min(1, Math.max(0, (b * h - c * g) / square));
      else if (g === 0 && a > 0) s = Math.min(1, Math.max(0, -c / a));
      let t = g > 0 ? (b * s + h) / g : 0;
      if (t < 0 || t > 1) {
        t = t < 0 ? 0 : 1;
        s = a > 0 ? Math.min(1, Math.max(0, (b * t - c) / a)) : 0;
      }
      const x = rx + s * dx - t * ex;
      const y = ry + s * dy - t * ey;
      const z = rz + s * dz - t * ez;
      const apart = x * x + y * y + z * z;
      if (apart >= best) continue;
      best = apart;
      found = true;
      for (let axis = 0; axis < 3; axis++) {
        places[axis] = P[e + axis]! + s * U[e + axis]!;
        places[3 + axis] = Q[f + axis]! + t * V[f + axis]!;
      }
    }
  }
  // corners over the inside of the other, and edges through it
  for (let side = 0; side < 2; side++) {
    const [over, square, normal] = side === 0 ? [OVER_P, squareP, NORMAL_P] : [OVER_Q, squareQ, NORMAL_Q];
    if (square === 0) continue;
    const [corners, edges, others] = side === 0 ? [P, U, Q] : [Q, V, P];
    const [on, off] = side === 0 ? [0, 3] : [3, 0];
    for (let k = 0; k < 3; k++) {
      const h = over[k]!;
      const apart = (h * h) / square;
      if (apart < best) {
        const share = h / square;
        const x = others[3 * k]! - share * normal[0]!;
        const y = others[3 * k + 1]! - share * normal[1]!;
        const z = others[3 * k + 2]! - share * normal[2]!;
        if (isInside(corners, edges, normal, x, y, z)) {
          best = apart;
          found = true;
          places[on] = x;
          places[on + 1] = y;
          places[on + 2] = z;
          for (let axis = 0; axis < 3; axis++) places[off + axis] = others[3 * k + axis]!;
        }
      }
      const next = NEXT[k]!;
      const beyond = over[next / 3]!;
      if (h * beyond >= 0) continue;
      const t = h / (h - beyond);
      const x = others[3 * k]! + t * (others[next]! - others[3 * k]!);
      const y = others[3 * k + 1]! + t * (others[next + 1]! - others[3 * k + 1]!);
      const z = others[3 * k + 2]! + t * (others[next + 2]! - others[3 * k + 2]!);
      if (!isInside(corners, edges, normal, x, y, z)) continue;
      best = 0;
      found = limit > 0;
      for (const end of [0, 3]) {
        places[end] = x;
        places[end + 1] = y;
        places[end + 2] = z;
      }
    }
  }
  if (!found) return Infinity;
  for (let axis = 0; axis < 6; axis++) places[axis]! += from[axis % 3]!;
  return Math.sqrt(best);
}

/**
 * How far a place is from a packed triangle (Ericson 2005, 5.1.5).
 * @param foot where it is nearest
 */
export function awayFromTriangle(place: ArrayLike<number>, q: Float64Array, j: number, foot: Float64Array): number {
  load(q, j, Q, V, place);
  normalOf(V, NORMAL_Q);
  const square = NORMAL_Q[3]!;
  let best = Infinity;
  if (square > 0) {
    const share = (Q[0]! * NORMAL_Q[0]! + Q[1]! * NORMAL_Q[1]! + Q[2]! * NORMAL_Q[2]!) / square;
    const x = share * NORMAL_Q[0]!;
    const y = share * NORMAL_Q[1]!;
    const z = share * NORMAL_Q[2]!;
    if (isInside(Q, V, NORMAL_Q, x, y, z)) {
      best = share * share * square;
      foot[0] = x;
      foot[1] = y;
      foot[2] = z;
    }
  }
  if (best === Infinity)
    for (let e = 0; e < 9; e += 3) {
      const long = V[e]! * V[e]! + V[e + 1]! * V[e + 1]! + V[e + 2]! * V[e + 2]!;
      const along = -(Q[e]! * V[e]! + Q[e + 1]! * V[e + 1]! + Q[e + 2]! * V[e + 2]!);
      const t = long > 0 ? Math.min(1, Math.max(0, along / long)) : 0;
      const x = Q[e]! + t * V[e]!;
      const y = Q[e + 1]! + t * V[e + 1]!;
      const z = Q[e + 2]! + t * V[e + 2]!;
      const apart = x * x + y * y + z * z;
      if (apart >= best) continue;
      best = apart;
      foot[0] = x;
      foot[1] = y;
      foot[2] = z;
    }
  for (let axis = 0; axis < 3; axis++) foot[axis]! += place[axis]!;
  return Math.sqrt(best);
}

/** Does an edge of one of two packed triangles go through the other, by so much on both sides and inside of its edges? */
export function goesThrough(p: Float64Array, i: number, q: Float64Array, j: number, by: number): boolean {
  loadBoth(p, i, q, j);
  return isPierced(Q, OVER_P, P, U, NORMAL_P, by) || isPierced(P, OVER_Q, Q, V, NORMAL_Q, by);
}

function isPierced(
  others: Float64Array,
  over: Float64Array,
  corners: Float64Array,
  edges: Float64Array,
  normal: Float64Array,
  by: number,
): boolean {
  const long = Math.sqrt(normal[3]!);
  for (let k = 0; k < 3; k++) {
    const next = NEXT[k]!;
    const h = over[k]!;
    const beyond = over[next / 3]!;
    if (h * beyond >= 0 || Math.min(Math.abs(h), Math.abs(beyond)) < by * long) continue;
    const t = h / (h - beyond);
    const at = [0, 1, 2].map((axis) => others[3 * k + axis]! + t * (others[next + axis]! - others[3 * k + axis]!));
    let least = Infinity;
    for (let e = 0; e < 9; e += 3) {
      const u = edges[e]!;
      const v = edges[e + 1]!;
      const w = edges[e + 2]!;
      const a = at[0]! - corners[e]!;
      const b = at[1]! - corners[e + 1]!;
      const c = at[2]! - corners[e + 2]!;
      const inside = (v * c - w * b) * normal[0]! + (w * a - u * c) * normal[1]! + (u * b - v * a) * normal[2]!;
      least = Math.min(least, inside - by * Math.hypot(u, v, w) * long);
    }
    if (least >= 0) return true;
  }
  return false;
}
