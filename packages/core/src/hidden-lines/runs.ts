import type { Vec3 } from '../math/index.ts';
import type { OccluderGrid, Interval } from './occluder-grid.ts';

/** A stretch of a line of a view that is seen, or is not. */
interface Run {
  readonly places: readonly Vec3[];
  readonly hidden: boolean;
}

/**
 * What of a line is hidden, and what is not.
 * @param places along it, straight from one to the next
 * @param turns where outlines end on it, as how many places along
 * @param shortest shorter stretches, mm, go to their neighbours
 */
export function runsOf(
  places: readonly Vec3[],
  turns: readonly number[],
  curtain: OccluderGrid,
  shortest: number,
): Run[] {
  const last = places.length - 1;
  const shadows: Interval[] = [];
  for (let k = 0; k < last; k++)
    for (const [a, b] of curtain.hidden(places[k]!, places[k + 1]!)) shadows.push([k + a, k + b]);
  if (shadows.length === 0) return [{ places, hidden: false }];
  if (shadows.length === last && shadows.every(([a, b]) => b - a === 1)) return [{ places, hidden: true }];
  const bounds = boundsOf(shadows, places, shortest);
  // triangles turn away at their corners, what they stand for a little before or after
  const exact = (t: number): number =>
    (t > 0 && t < last ? turns.find((turn) => Math.abs(turn - t) <= 1) : undefined) ?? t;
  const runs = bounds
    .map(([a, b, hidden]) => [exact(a), exact(b), hidden] as const)
    .filter(([a, b]) => b > a)
    .map(([a, b, hidden]): Run => ({ places: stretchOf(places, a, b), hidden }));
  const [first, end] = [runs[0]!, runs.at(-1)!];
  // what is closed begins nowhere
  if (runs.length < 3 || places[0] !== places[last] || first.hidden !== end.hidden) return runs;
  return [{ ...first, places: [...end.places, ...first.places.slice(1)] }, ...runs.slice(1, -1)];
}

type Bounded = readonly [from: number, to: number, hidden: boolean];

/** Where hidden and seen stretches begin and end; short ones go to their neighbours. */
function boundsOf(shadows: readonly Interval[], places: readonly Vec3[], shortest: number): Bounded[] {
  const last = places.length - 1;
  const isShort = (a: number, b: number) => {
    const [p, q] = [placeAt(places, a), placeAt(places, b)];
    return b - a < 1 && Math.hypot(p[0] - q[0], p[1] - q[1]) < shortest;
  };
  const joined: [number, number][] = [];
  for (const [a, b] of shadows.toSorted((p, q) => p[0] - q[0])) {
    const before = joined.at(-1);
    if (before && (a <= before[1] || isShort(before[1], a))) before[1] = Math.max(before[1], b);
    else joined.push([isShort(0, a) ? 0 : a, b]);
  }
  const kept = joined.filter(([a, b]) => !isShort(a, b) || (a === 0 && b === last));
  const bounds: Bounded[] = [];
  let done = 0;
  for (const [a, b] of kept) {
    if (a > done) bounds.push([done, a, false]);
    done = isShort(b, last) ? last : b;
    bounds.push([a, done, true]);
  }
  if (done < last) bounds.push([done, last, false]);
  return bounds;
}

/** A place so many places along. */
export function placeAt(places: readonly Vec3[], t: number): Vec3 {
  const k = Math.min(Math.floor(t), places.length - 2);
  const [p, q] = [places[k]!, places[k + 1]!];
  const s = t - k;
  return [p[0] + (q[0] - p[0]) * s, p[1] + (q[1] - p[1]) * s, p[2] + (q[2] - p[2]) * s];
}

function stretchOf(places: readonly Vec3[], a: number, b: number): readonly Vec3[] {
  if (a === 0 && b === places.length - 1) return places;
  const inner = places.slice(Math.floor(a) + 1, Math.ceil(b));
  return [placeAt(places, a), ...inner, placeAt(places, b)];
}
