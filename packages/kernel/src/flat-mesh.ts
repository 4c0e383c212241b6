import earcut from 'earcut';
import { dot3, frameOn, sub3, type Vec3 } from '@helb/core';

/** Triangles of one face; corners of neighbouring faces are not shared. */
export interface Patch {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Corners, counter-clockwise seen from outside, counted within the patch. */
  readonly triangles: Uint32Array;
}

/** Points one after the other, xyz each. */
export type Polyline = Float32Array;

const placeAt = (line: Polyline, k: number): Vec3 => [line[3 * k]!, line[3 * k + 1]!, line[3 * k + 2]!];
const pointsIn = (line: Polyline): number => line.length / 3;

/** Polylines that meet end to end, whatever their directions, as one closed loop; its last point is not the first again. */
export function loopOf(lines: readonly Polyline[]): Polyline {
  const loop = new Float32Array(3 * lines.reduce((sum, line) => sum + pointsIn(line) - 1, 0));
  const rest = [...lines];
  let next = { line: rest.shift()!, turned: false };
  for (let at = 0; ;) {
    const { line, turned } = next;
    const count = pointsIn(line);
    for (let k = 0; k < count - 1; k++, at++) loop.set(placeAt(line, turned ? count - 1 - k : k), 3 * at);
    if (rest.length === 0) return loop;
    const [index, back] = nearest(rest, placeAt(line, turned ? 0 : count - 1));
    next = { line: rest.splice(index, 1)[0]!, turned: back };
  }
}

/** Which polyline has an end nearest to a place, and whether that is its last. */
function nearest(lines: readonly Polyline[], place: Vec3): readonly [number, boolean] {
  let best: readonly [number, boolean] = [0, false];
  let least = Infinity;
  const offer = (index: number, back: boolean, end: Vec3) => {
    const off = sub3(end, place);
    const distance = dot3(off, off);
    if (distance < least) [best, least] = [[index, back], distance];
  };
  for (const [k, line] of lines.entries()) {
    offer(k, false, placeAt(line, 0));
    offer(k, true, placeAt(line, pointsIn(line) - 1));
    if (least === 0) break;
  }
  return best;
}

/** A flat face from its loops: the longest way round is the outline, the others are openings in it. */
export function flatPatch(loops: readonly Polyline[], normal: Vec3): Patch {
  const frame = frameOn(placeAt(loops[0]!, 0), normal);
  const { origin, x, y } = frame;
  const flat = (loop: Polyline): number[] => {
    const plane: number[] = [];
    for (let k = 0; k < loop.length; k += 3) {
      const off: Vec3 = [loop[k]! - origin[0], loop[k + 1]! - origin[1], loop[k + 2]! - origin[2]];
      plane.push(dot3(off, x), dot3(off, y));
    }
    return plane;
  };
  const ordered = loops
    .map((loop) => ({ loop, plane: flat(loop) }))
    .toSorted((a, b) => Math.abs(areaOf(b.plane)) - Math.abs(areaOf(a.plane)));
  const openings: number[] = [];
  let count = 0;
  for (const [k, { loop }] of ordered.entries()) {
    if (k > 0) openings.push(count);
    count += pointsIn(loop);
  }
  const plane = ordered.flatMap((entry) => entry.plane);
  const positions = new Float32Array(3 * count);
  let at = 0;
  for (const { loop } of ordered) {
    positions.set(loop, at);
    at += loop.length;
  }
  const normals = new Float32Array(3 * count);
  for (let k = 0; k < count; k++) normals.set(frame.z, 3 * k);
  const triangles = facingUp(Uint32Array.from(earcut(plane, openings)), plane);
  return { positions, normals, triangles: joined(triangles, plane, [...openings, count]) };
}

/**
 * Triangles whose edges meet whole edges of others. The triangulation passes over points that lie on a line with their
 * neighbours, as the corners of two slots in a row: the edge that it draws there instead is divided at them.
 * @param ends where each loop ends among the points
 */
function joined(triangles: Uint32Array, plane: readonly number[], ends: readonly number[]): Uint32Array {
  const count = plane.length / 2;
  const edge = (a: number, b: number) => a * count + b;
  const known = new Set<number>();
  for (const [k, end] of ends.entries()) {
    const first = k === 0 ? 0 : ends[k - 1]!;
    for (let a = first; a < end; a++) {
      const b = a + 1 < end ? a + 1 : first;
      known.add(edge(a, b)).add(edge(b, a));
    }
  }
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) known.add(edge(triangles[t + k]!, triangles[t + ((k + 1) % 3)]!));
  const made: number[] = [];
  const divide = (corners: readonly [number, number, number]): void => {
    for (const k of [0, 1, 2]) {
      const [a, b, c] = [0, 1, 2].map((n) => corners[(k + n) % 3]!) as [number, number, number];
      const along = known.has(edge(b, a)) ? [] : between(plane, a, b);
      if (along.length === 0) continue;
      [a, ...along].forEach((from, n, all) => divide([from, all[n + 1] ?? b, c]));
      return;
    }
    made.push(...corners);
  };
  for (let t = 0; t < triangles.length; t += 3) divide([triangles[t]!, triangles[t + 1]!, triangles[t + 2]!]);
  return made.length > triangles.length ? Uint32Array.from(made) : triangles;
}

/** Nearer to a line than this, mm, a point lies on it: coordinates have single precision. */
const ON_LINE = 1e-4;

/** The points that lie on the way from one to another, in their order. */
function between(plane: readonly number[], a: number, b: number): number[] {
  const [ax, ay] = [plane[2 * a]!, plane[2 * a + 1]!];
  const [dx, dy] = [plane[2 * b]! - ax, plane[2 * b + 1]! - ay];
  const length = Math.hypot(dx, dy);
  const found: { readonly k: number; readonly share: number }[] = [];
  for (let k = 0; k < plane.length / 2; k++) {
    if (k === a || k === b) continue;
    const [x, y] = [plane[2 * k]! - ax, plane[2 * k + 1]! - ay];
    const share = (x * dx + y * dy) / length;
    const isOn = Math.abs(x * dy - y * dx) / length < ON_LINE && share > ON_LINE && share < length - ON_LINE;
    if (isOn) found.push({ k, share });
  }
  return found.sort((p, q) => p.share - q.share).map(({ k }) => k);
}

/** Twice the area of a closed polygon, positive counter-clockwise. */
function areaOf(plane: readonly number[]): number {
  let sum = 0;
  for (let k = 0, before = plane.length - 2; k < plane.length; before = k, k += 2)
    sum += plane[before]! * plane[k + 1]! - plane[k]! * plane[before + 1]!;
  return sum;
}

/** The triangulation winds all of its triangles the same way: turned where that is clockwise. */
function facingUp(triangles: Uint32Array, plane: readonly number[]): Uint32Array {
  let sum = 0;
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [2 * triangles[k]!, 2 * triangles[k + 1]!, 2 * triangles[k + 2]!];
    const [dx, dy] = [plane[b]! - plane[a]!, plane[b + 1]! - plane[a + 1]!];
    sum += dx * (plane[c + 1]! - plane[a + 1]!) - dy * (plane[c]! - plane[a]!);
  }
  if (sum < 0) for (let k = 0; k < triangles.length; k += 3) triangles.subarray(k, k + 3).reverse();
  return triangles;
}
