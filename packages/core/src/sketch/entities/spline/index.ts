import { z } from 'zod';
import { distance2, subD, type Dual, type DualVec, type Vec2 } from '../../../math/index.ts';
import { idSchema, type Id } from '../../../records/index.ts';
import { along, nearestParameter, stretch, type Bezier, type Piece } from '../../pieces/index.ts';
import type { FreeCurve } from '../../residuals.ts';
import type { CurveEnd, EntityKind } from '../kind.ts';
import { innerWeights } from './weights.ts';

/**
 * A smooth curve through points. `start` and `end` are the handles: from the end points they point along the curve, and
 * their distance says how stiffly it leaves. `knots` are the parameters of the through points, kept from when it was
 * drawn, so that the curve depends on its points linearly.
 */
export const splineSchema = z
  .strictObject({
    kind: z.literal('spline'),
    points: z.array(idSchema).min(2).max(100),
    start: idSchema,
    end: idSchema,
    knots: z.array(z.number().min(0).max(1e6)).min(2).max(100),
    construction: z.boolean().optional(),
  })
  .refine(({ points, knots }) => points.length === knots.length, 'a spline has one knot for each point')
  .refine(({ knots }) => knots.every((knot, k) => k === 0 || knot > knots[k - 1]!), 'knots rise');
type Spline = z.infer<typeof splineSchema>;

export const spline: EntityKind<Spline> = {
  schema: splineSchema,
  title: 'spline',
  role: 'spline',
  uses: ({ points, start, end }) => [...points, start, end],
  ends: ({ points }) => [points[0]!, points.at(-1)!],
  onto: (entity, point) => ({
    ...entity,
    points: entity.points.map(point),
    start: point(entity.start),
    end: point(entity.end),
  }),
  part: partOf,
  mirrored: (entity) => entity,
  reversed: (entity) => ({
    ...entity,
    points: entity.points.toReversed(),
    start: entity.end,
    end: entity.start,
    knots: entity.knots.map((knot) => entity.knots.at(-1)! - knot).toReversed(),
  }),
  unknowns: () => [],
  moved: (entity) => entity,
  trace: (id, { points, start, end, knots }, point) => spans(id, knots, [start, ...points, end].map(point)),
  curve: (_, entity, layout) => ({
    unknowns: [entity.start, ...entity.points, entity.end].flatMap((id) => [...layout.point(id)]),
    ...freeSpline(entity.knots),
  }),
  beyondHandle({ points, start, end, knots }, at) {
    const rows = innerWeights(knots);
    const all = [start, ...points, end];
    const first = at === points[0];
    return {
      points: all,
      weights: [...rows[first ? 1 : rows.length - 2]!],
      end: first ? 1 : all.length - 2,
      handle: first ? 0 : all.length - 1,
    };
  },
  heading: (_, { points, start, end }, at, layout) => {
    const first = at === points[0];
    return {
      unknowns: [...layout.point(first ? points[0]! : end), ...layout.point(first ? start : points.at(-1)!)],
      direction: ([ax, ay, bx, by]) => subD([bx!, by!], [ax!, ay!]),
    };
  },
};

/** The same curve between two parameters: through the points between, with handles from the Bezier points. */
function partOf(
  entity: Spline,
  from: CurveEnd,
  to: CurveEnd,
  pieces: readonly Piece[],
  make: (at: Vec2) => Id,
): Spline {
  const { points, knots } = entity;
  const knotAt = (t: number) => {
    const span = Math.min(Math.floor(t), knots.length - 2);
    return knots[span]! + (t - span) * (knots[span + 1]! - knots[span]!);
  };
  const between = points.map((point, k) => ({ point, t: k })).filter(({ t }) => t > from.t && t < to.t);
  const ends = [from, ...between, to];
  const span = (a: number, b: number): Bezier => {
    const piece = pieces[Math.min(Math.floor(a + 1e-12), pieces.length - 1)]!;
    const whole = Math.floor(a + 1e-12);
    return stretch(piece, a - whole, b - whole, along(piece, a - whole), along(piece, b - whole)) as Bezier;
  };
  const [first, last] = [span(ends[0]!.t, ends[1]!.t), span(ends.at(-2)!.t, ends.at(-1)!.t)];
  // whole first and last spans keep their handles
  const start = from.t === 0 && ends[1]!.t === 1 ? entity.start : make(first.inner[0]);
  const end = to.t === pieces.length && ends.at(-2)!.t === to.t - 1 ? entity.end : make(last.inner[1]);
  const offset = knotAt(from.t);
  return {
    ...entity,
    points: ends.map(({ point }) => point),
    knots: ends.map(({ t }) => knotAt(t) - offset),
    start,
    end,
  };
}

/** Parameters by the length of the chords, as usual for splines through uneven points; equal places are set apart. */
export function chordKnots(places: readonly Vec2[]): number[] {
  const knots = [0];
  for (let k = 1; k < places.length; k++)
    knots.push(knots[k - 1]! + Math.max(distance2(places[k - 1]!, places[k]!), 1e-3));
  return knots;
}

const combined = (weights: Float64Array, places: readonly Vec2[]): Vec2 => {
  let [x, y] = [0, 0];
  weights.forEach((weight, k) => {
    x += weight * places[k]![0];
    y += weight * places[k]![1];
  });
  return [x, y];
};

/** The Bezier pieces; `places`: start handle, through points, end handle. */
export function spans(entity: string, knots: readonly number[], places: readonly Vec2[]): Bezier[] {
  const rows = innerWeights(knots);
  return Array.from({ length: knots.length - 1 }, (_, k) => ({
    form: 'bezier',
    entity,
    from: places[k + 1]!,
    to: places[k + 2]!,
    inner: [combined(rows[2 * k]!, places), combined(rows[2 * k + 1]!, places)],
  }));
}

/** Parameters count the spans: 2.3 is at 0.3 of the third. */
function freeSpline(knots: readonly number[]): Pick<FreeCurve, 'foot' | 'at'> {
  return {
    foot(v, p) {
      const places = Array.from({ length: v.length / 2 }, (_, k): Vec2 => [v[2 * k]!, v[2 * k + 1]!]);
      const feet = spans('', knots, places).map((piece) => {
        const t = nearestParameter(piece, p);
        return { t, far: distance2(along(piece, t), p) };
      });
      const nearest = feet.reduce((best, foot, k) => (foot.far < feet[best]!.far ? k : best), 0);
      return nearest + feet[nearest]!.t;
    },
    at(d, parameter) {
      const span = Math.min(Math.floor(parameter), knots.length - 2);
      const t = parameter - span;
      const s = 1 - t;
      return {
        place: weighted(spanWeights(knots, span, [s ** 3, 3 * s * s * t, 3 * s * t * t, t ** 3]), d),
        along: weighted(spanWeights(knots, span, [-3 * s * s, 3 * s * (s - 2 * t), 3 * t * (2 * s - t), 3 * t * t]), d),
      };
    },
  };
}

/** A combination of the four Bezier points of a span as weights of the handles and through points. */
function spanWeights(knots: readonly number[], span: number, factors: readonly number[]): Float64Array {
  const rows = innerWeights(knots);
  const [first, second] = [rows[2 * span]!, rows[2 * span + 1]!];
  const weights = first.map((weight, c) => factors[1]! * weight + factors[2]! * second[c]!);
  weights[span + 1]! += factors[0]!;
  weights[span + 2]! += factors[3]!;
  return weights;
}

function weighted(weights: Float64Array, d: readonly Dual[]): DualVec {
  const sum = (offset: 0 | 1): Dual =>
    Array.from(weights, (weight, k) => d[2 * k + offset]!.scaled(weight)).reduce((a, b) => a.add(b));
  return [sum(0), sum(1)];
}
