import { add3, distance3, scale3, transformPoint, type Vec3 } from '../../math/index.ts';
import { nearestOf } from '../nearest.ts';
import type { CurveKind, CurvePlace } from './kind.ts';

/** A cubic Bezier curve by its control points. */
export type BezierSpan = readonly [Vec3, Vec3, Vec3, Vec3];

/** Cubic Bezier spans, end to end. */
export interface FreeCurve {
  readonly form: 'free';
  readonly spans: readonly BezierSpan[];
}

/** The place of a cubic Bezier curve at parameter t in 0..1. */
export function bezierAt([a, b, c, d]: BezierSpan, t: number): Vec3 {
  const s = 1 - t;
  return add3(
    add3(scale3(a, s * s * s), scale3(b, 3 * s * s * t)),
    add3(scale3(c, 3 * s * t * t), scale3(d, t * t * t)),
  );
}

/** The place of spans nearest to another. */
export const nearestOnSpans = (spans: readonly BezierSpan[], place: Vec3): CurvePlace =>
  spans
    .map((span) => nearestOf((t) => bezierAt(span, t), place, 0, 1))
    .reduce((a, b) => (distance3(b.at, place) < distance3(a.at, place) ? b : a));

export const free: CurveKind<FreeCurve> = {
  look: 'curve',
  words: (_, length, isClosed, told) => `curved ${told(length)}`,
  transform: ({ spans }, by) => ({
    form: 'free',
    spans: spans.map((span) => span.map((place) => transformPoint(by, place)) as unknown as BezierSpan),
  }),
  runs: ({ spans }) => spans.map((span) => (t: number) => bezierAt(span, t)),
  chords: 12,
  ends: ({ spans }) => [spans[0]![0], spans.at(-1)![3]],
  hull: ({ spans }) => spans.flat(),
  marks: ({ spans }, middle) => [spans[0]![0], middle, spans.at(-1)![3]],
  nearest: ({ spans }, place) => nearestOnSpans(spans, place),
};
