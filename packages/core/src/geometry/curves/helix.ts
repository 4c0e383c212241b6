import { add3, cross3, distance3, scale3, transformDirection, transformPoint, type Vec3 } from '../../math/index.ts';
import { nearestOnSpans, type BezierSpan } from './free.ts';
import type { CurveKind } from './kind.ts';

/** About an axis, beginning over `x`; it closes in by `taper` (rad) on the way. */
export interface Helix {
  readonly form: 'helix';
  readonly origin: Vec3;
  readonly axis: Vec3;
  readonly x: Vec3;
  readonly radius: number;
  readonly pitch: number;
  readonly turns: number;
  readonly left: boolean;
  readonly taper: number;
}

/** The place of a helix at a share of its way along the axis, from 0 to 1. */
export function helixAt(helix: Helix, t: number): Vec3 {
  const { origin, axis, x, pitch, turns, taper } = helix;
  const height = pitch * turns * t;
  const radius = helix.radius - height * Math.tan(taper);
  const angle = angleAt(helix, t);
  const out = add3(scale3(x, radius * Math.cos(angle)), scale3(cross3(axis, x), radius * Math.sin(angle)));
  return add3(origin, add3(scale3(axis, height), out));
}

const angleAt = ({ turns, left }: Helix, t: number): number => (left ? -1 : 1) * 2 * Math.PI * turns * t;

/** How it goes on there: the derivative by t. */
function helixAlong(helix: Helix, t: number): Vec3 {
  const { axis, x, pitch, turns, taper, left } = helix;
  const rise = pitch * turns;
  const radius = helix.radius - rise * t * Math.tan(taper);
  const closing = -rise * Math.tan(taper);
  const turning = (left ? -1 : 1) * 2 * Math.PI * turns;
  const [c, s] = [Math.cos(angleAt(helix, t)), Math.sin(angleAt(helix, t))];
  return add3(
    scale3(axis, rise),
    add3(scale3(x, closing * c - radius * turning * s), scale3(cross3(axis, x), closing * s + radius * turning * c)),
  );
}

/** Spans in a turn: a cubic over a 16th of a circle is off by a ten-millionth of the radius. */
const SPANS = 16;

/** A helix as cubic spans with its places and directions: for drawing it, and for what is seen of it on a plane. */
export function helixSpans(helix: Helix): BezierSpan[] {
  const count = Math.max(1, Math.ceil(helix.turns * SPANS));
  return Array.from({ length: count }, (_, k): BezierSpan => {
    const [from, to] = [k / count, (k + 1) / count];
    const [a, d] = [helixAt(helix, from), helixAt(helix, to)];
    const third = 1 / (3 * count);
    return [a, add3(a, scale3(helixAlong(helix, from), third)), add3(d, scale3(helixAlong(helix, to), -third)), d];
  });
}

/** The length of a helix, mm; with a taper by chords. */
export function helixLength(helix: Helix): number {
  const { radius, pitch, turns, taper } = helix;
  if (taper === 0) return turns * Math.hypot(2 * Math.PI * radius, pitch);
  const count = Math.ceil(turns * 256);
  return Array.from({ length: count }, (_, k) =>
    distance3(helixAt(helix, k / count), helixAt(helix, (k + 1) / count)),
  ).reduce((sum, length) => sum + length, 0);
}

export const helix: CurveKind<Helix> = {
  look: 'helix',
  words: (_, length, isClosed, told) => `curved ${told(length)}`,
  transform: (curve, by) => ({
    ...curve,
    origin: transformPoint(by, curve.origin),
    axis: transformDirection(by, curve.axis),
    x: transformDirection(by, curve.x),
  }),
  // turn by turn, so that places on it are found by a search
  runs(curve) {
    const count = Math.ceil(curve.turns);
    return Array.from({ length: count }, (_, k) => (t: number) => helixAt(curve, (k + t) / count));
  },
  chords: 72,
  ends: (curve) => [helixAt(curve, 0), helixAt(curve, 1)],
  hull: (curve) => helixSpans(curve).map(([from]) => from),
  marks: (_, middle) => [middle],
  nearest: (curve, place) => nearestOnSpans(helixSpans(curve), place),
};
