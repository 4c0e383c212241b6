import {
  cross2,
  distance2,
  distance3,
  dot2,
  length2,
  middle3,
  principalAxes,
  scale2,
  sub2,
  type Vec2,
  type Vec3,
} from '../math/index.ts';
import { type SpaceCurve, armsOf, bezierAt, helixSpans, nearestOf } from '../geometry/index.ts';
import { along, inTurn, stretch, type Bezier, type Piece } from '../sketch/pieces/index.ts';

type Span = readonly [Vec3, Vec3, Vec3, Vec3];

/**
 * What a curve looks like from above its plane: exact, at height 0; lines stay lines, circles become circles, ellipses or
 * lines, free curves keep their control points.
 * @param places along the stretch of it that is wanted, in the space of the curve; at least its two ends
 * @returns undefined where that is seen end-on
 */
export type FlatCurve = (places: readonly Vec3[]) => SpaceCurve | undefined;

/** Shorter than this, mm, something is seen end-on. */
const NEAR = 1e-7;

const flat = ([x, y]: Vec3): Vec2 => [x, y];
const lying = ([x, y]: Vec2): Vec3 => [x, y, 0];

type CurveOf<F extends SpaceCurve['form']> = Extract<SpaceCurve, { form: F }>;

const FLAT: { readonly [F in SpaceCurve['form']]: (curve: CurveOf<F>) => FlatCurve } = {
  line: () => (places) => lineBetween(flat(places[0]!), flat(places.at(-1)!)),
  circle: (curve) => round(curve),
  ellipse: (curve) => round(curve),
  helix: (curve) => free(helixSpans(curve)),
  free: ({ spans }) => free(spans),
};

/** How stretches of a curve look from above. */
export const flatCurve = (curve: SpaceCurve): FlatCurve => FLAT[curve.form](curve as never);

const lineBetween = (from: Vec2, to: Vec2): SpaceCurve | undefined =>
  distance2(from, to) < NEAR ? undefined : { form: 'line', from: lying(from), to: lying(to) };

function round(curve: CurveOf<'circle' | 'ellipse'>): FlatCurve {
  const centre = flat(curve.centre);
  const arms = armsOf(curve);
  const [major, other] = principalAxes(flat(arms[0]), flat(arms[1]));
  if (length2(other) < NEAR) return edgeOn(centre, major);
  // counter-clockwise as it is seen
  const minor = cross2(major, other) < 0 ? scale2(other, -1) : other;
  const [a, b] = [length2(major), length2(minor)];
  const angle = (place: Vec3): number => {
    const out = sub2(flat(place), centre);
    return Math.atan2(dot2(out, minor) / b ** 2, dot2(out, major) / a ** 2);
  };
  const at = (t: number): Vec3 => [
    centre[0] + major[0] * Math.cos(t) + minor[0] * Math.sin(t),
    centre[1] + major[1] * Math.cos(t) + minor[1] * Math.sin(t),
    0,
  ];
  const whole: SpaceCurve =
    a - b < NEAR
      ? { form: 'circle', centre: lying(centre), axis: [0, 0, 1], radius: a }
      : { form: 'ellipse', centre: lying(centre), major: lying(major), minor: lying(minor) };
  return (places) => {
    if (isClosed(places)) return whole;
    const [from, via, to] = [angle(places[0]!), angle(middleOf(places)), angle(places.at(-1)!)];
    const forwards = inTurn(via - from) < inTurn(to - from);
    return { ...whole, from: at(forwards ? from : to), to: at(forwards ? to : from) };
  };
}

/** A round curve seen as a line: from the least to the greatest place, its turning points exact. */
const edgeOn =
  (centre: Vec2, reach: Vec2): FlatCurve =>
  (places) => {
    const most = length2(reach);
    if (most < NEAR) return undefined;
    const unit = scale2(reach, 1 / most);
    const heights = places.map((place) => dot2(sub2(flat(place), centre), unit));
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    const turnsAt = (end: number) => heights.slice(1, -1).includes(end) || isClosed(places);
    const at = (height: number): Vec2 => [centre[0] + height * unit[0], centre[1] + height * unit[1]];
    return lineBetween(at(turnsAt(low) ? -most : low), at(turnsAt(high) ? most : high));
  };

const isClosed = (places: readonly Vec3[]): boolean =>
  places.length > 2 && distance3(places[0]!, places.at(-1)!) < NEAR;

/** A place between the ends. */
const middleOf = (places: readonly Vec3[]): Vec3 =>
  places.length > 2 ? places[Math.floor(places.length / 2)]! : middle3(places[0]!, places[1]!);

const free = (spans: readonly Span[]): FlatCurve => {
  const at = (t: number): Vec3 => {
    const k = Math.min(Math.max(Math.floor(t), 0), spans.length - 1);
    return bezierAt(spans[k]!, t - k);
  };
  const parameterAt = (place: Vec3) => nearestOf(at, place, 0, spans.length, spans.length * SAMPLES).t;
  return (places) => {
    if (isClosed(places)) return flatSpans(spans);
    const [p, q] = [parameterAt(places[0]!), parameterAt(places.at(-1)!)].sort((a, b) => a - b) as [number, number];
    const via = parameterAt(middleOf(places));
    // of a closed curve the stretch may go on over its beginning
    const isOver = via < p || via > q;
    return flatSpans(
      isOver ? [...stretched(spans, q, spans.length), ...stretched(spans, 0, p)] : stretched(spans, p, q),
    );
  };
};
const SAMPLES = 8;

function flatSpans(spans: readonly Span[]): SpaceCurve | undefined {
  const all = spans.map((span) => span.map((place) => lying(flat(place))) as unknown as Span);
  const isPoint = all.every((span) => span.every((place) => distance3(place, all[0]![0]) < NEAR));
  return isPoint ? undefined : { form: 'free', spans: all };
}

/** What of spans lies between two places of theirs, as it is seen. */
function stretched(spans: readonly Span[], from: number, to: number): Span[] {
  return spans.flatMap((span, k): Span[] => {
    const [a, b] = [Math.max(0, from - k), Math.min(1, to - k)];
    if (b - a <= 1e-6) return [];
    const [start, first, second, end] = span.map(flat) as [Vec2, Vec2, Vec2, Vec2];
    const whole: Piece = { form: 'bezier', entity: '', from: start, inner: [first, second], to: end };
    const part = stretch(whole, a, b, along(whole, a), along(whole, b)) as Bezier;
    return [[part.from, ...part.inner, part.to].map(lying) as unknown as Span];
  });
}

/** A smooth line through places, as one sees it: a cubic from each to the next (Catmull and Rom 1974, centripetal). */
export const flatThrough: FlatCurve = (places) => {
  const seen = places.map(flat).filter((place, k, all) => k === 0 || distance2(place, all[k - 1]!) > NEAR);
  if (seen.length < 3) return seen.length < 2 ? undefined : lineBetween(seen[0]!, seen[1]!);
  const closed = distance2(seen[0]!, seen.at(-1)!) < NEAR;
  const at = (k: number): Vec2 | undefined =>
    seen[k] ?? (closed ? seen.at(k < 0 ? k - 1 : k + 1 - seen.length) : undefined);
  const spans = seen.slice(1).map((to, k): Span => {
    const from = seen[k]!;
    const step = Math.sqrt(distance2(from, to));
    const tangent = (before: Vec2 | undefined, here: Vec2, after: Vec2 | undefined): Vec2 => {
      if (!before || !after) return scale2(sub2(after ?? here, before ?? here), 1 / step);
      const [p, q] = [Math.sqrt(distance2(before, here)), Math.sqrt(distance2(here, after))];
      const along = (i: 0 | 1) =>
        (here[i] - before[i]) / p - (after[i] - before[i]) / (p + q) + (after[i] - here[i]) / q;
      return [along(0), along(1)];
    };
    const [m, n] = [tangent(at(k - 1), from, to), tangent(from, to, at(k + 2))];
    const third = step / 3;
    return [
      lying(from),
      lying([from[0] + m[0] * third, from[1] + m[1] * third]),
      lying([to[0] - n[0] * third, to[1] - n[1] * third]),
      lying(to),
    ];
  });
  return { form: 'free', spans };
};
