import { z } from 'zod';
import {
  cross2,
  direction2,
  distance2,
  dot2,
  left2,
  middle2,
  scale2,
  add2,
  sub2,
  type Vec2,
} from '../../../math/index.ts';
import { expressionSchema, idSchema, placeSchema, type Id } from '../../../records/index.ts';
import { LENGTH } from '../../../units/index.ts';
import { linearAnnotation, type AnnotationSpace } from '../../annotation.ts';
import type { Geometry } from '../../geometry.ts';
import { lineDistance, pointDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/**
 * A distance from point `a` to `b`: a point (aligned, horizontal or vertical) or a line (square to it). `sense` keeps
 * the side that was drawn: 1 where b lies right of or above a, or a left of the line.
 */
export const distanceSchema = z.strictObject({
  kind: z.literal('distance'),
  a: idSchema,
  b: idSchema,
  direction: z.enum(['aligned', 'horizontal', 'vertical']),
  sense: z.union([z.literal(1), z.literal(-1)]),
  value: expressionSchema,
  at: placeSchema.optional(),
});
export type Distance = z.infer<typeof distanceSchema>;

const PARALLEL = 1e-6;

export const distance: RelationKind<Distance> = {
  schema: distanceSchema,
  title: 'Size',
  words: 'are apart by',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b, direction }) => ({ [b]: direction === 'aligned' ? ['point', 'line'] : ['point'], [a]: ['point'] }),
  fit(picks, geometry) {
    const ends = endsOf(picks, geometry);
    if (!ends) return undefined;
    const [a, b] = ends;
    if (geometry.roleOf(b) === 'line') {
      const sense = offLine(geometry, a, b) >= 0 ? 1 : -1;
      return { kind: 'distance', a, b, direction: 'aligned', sense, value: '1' };
    }
    return { kind: 'distance', a, b, direction: 'aligned', sense: 1, value: '1' };
  },
  equations({ a, b, direction, sense }, { id, layout, value }) {
    const p = layout.point(a);
    if (layout.roleOf(b) === 'line') return { blocks: [lineDistance(id, layout.line(b), p, sense, value)] };
    const q = layout.point(b);
    if (direction === 'aligned') return { blocks: [pointDistance(id, p, q, value)] };
    const k = direction === 'horizontal' ? 0 : 1;
    return { substitutions: [{ owner: id, a: q[k], b: p[k], offset: sense * value }] };
  },
  dimension: {
    asks: LENGTH,
    measure({ a, b, direction, sense }, geometry) {
      if (geometry.roleOf(b) === 'line') return sense * offLine(geometry, a, b);
      const [p, q] = [geometry.point(a), geometry.point(b)];
      if (direction === 'aligned') return distance2(p, q);
      return sense * (direction === 'horizontal' ? q[0] - p[0] : q[1] - p[1]);
    },
    annotate(relation, geometry, space) {
      const [p, q] = measured(relation, geometry);
      const along = alongOf(relation, p, q);
      const through = relation.at ?? besideSketch(p, q, along, space);
      return linearAnnotation(p, q, along, through, space.gap);
    },
  },
  anchors: ({ a }, geometry) => [geometry.point(a)],
};

/** The way of measuring two points that the place of the text asks for: beside the pair, or above or below it. */
export function directionAt(geometry: Geometry, a: Id, b: Id, text: Vec2): Pick<Distance, 'direction' | 'sense'> {
  if (geometry.roleOf(b) === 'line') return { direction: 'aligned', sense: offLine(geometry, a, b) >= 0 ? 1 : -1 };
  const [p, q] = [geometry.point(a), geometry.point(b)];
  const inside = (k: 0 | 1) => text[k] >= Math.min(p[k], q[k]) && text[k] <= Math.max(p[k], q[k]);
  const [dx, dy] = [Math.abs(q[0] - p[0]), Math.abs(q[1] - p[1])];
  const flat = dy < 1e-6 * dx;
  const steep = dx < 1e-6 * dy;
  if (flat || (!steep && inside(0) && !inside(1))) return { direction: 'horizontal', sense: q[0] >= p[0] ? 1 : -1 };
  if (steep || (!flat && inside(1) && !inside(0))) return { direction: 'vertical', sense: q[1] >= p[1] ? 1 : -1 };
  return { direction: 'aligned', sense: 1 };
}

/** From one line, two points, a point and a line, two parallel lines or circles (their centres): what is measured. */
function endsOf(picks: readonly Id[], geometry: Geometry): readonly [Id, Id] | undefined {
  const one = picked(picks, geometry, ['line']);
  const drawn = one && geometry.entities[one[0]!];
  if (drawn?.kind === 'line') return [drawn.a, drawn.b];
  const centred = picks.map((id) => {
    const entity = geometry.entities[id];
    return entity && 'centre' in entity ? entity.centre : id;
  });
  const lines = picked(centred, geometry, ['line', 'line']);
  if (lines) return parallelLines(lines as [Id, Id], geometry);
  const found = picked(centred, geometry, ['point', 'point']) ?? picked(centred, geometry, ['point', 'line']);
  return found as [Id, Id] | undefined;
}

function parallelLines(lines: readonly [Id, Id], geometry: Geometry): readonly [Id, Id] | undefined {
  // the drawn line gives the point; at most one of the two is an axis
  const [first, second] = geometry.entities[lines[0]] ? lines : [lines[1], lines[0]];
  const [u, v] = [first, second].map((id) => {
    const { a, b } = geometry.line(id);
    return direction2(sub2(b, a));
  });
  const drawn = geometry.entities[first];
  if (!u || !v || drawn?.kind !== 'line' || Math.abs(cross2(u, v)) > PARALLEL) return undefined;
  return [drawn.a, second];
}

function offLine(geometry: Geometry, point: Id, line: Id): number {
  const { a, b } = geometry.line(line);
  const u = direction2(sub2(b, a)) ?? [1, 0];
  return cross2(u, sub2(geometry.point(point), a));
}

/** The two places between which the dimension stands; on a line the foot of the point. */
function measured({ a, b }: Distance, geometry: Geometry): readonly [Vec2, Vec2] {
  const p = geometry.point(a);
  if (geometry.roleOf(b) !== 'line') return [p, geometry.point(b)];
  const line = geometry.line(b);
  const u = direction2(sub2(line.b, line.a)) ?? [1, 0];
  return [p, add2(line.a, scale2(u, dot2(sub2(p, line.a), u)))];
}

function alongOf({ direction }: Distance, p: Vec2, q: Vec2): Vec2 {
  if (direction === 'horizontal') return [1, 0];
  if (direction === 'vertical') return [0, 1];
  return direction2(sub2(q, p)) ?? [1, 0];
}

/** A free place outside the sketch: below for flat dimensions, left for upright ones, beside the pair for slanting. */
function besideSketch(p: Vec2, q: Vec2, along: Vec2, space: AnnotationSpace): Vec2 {
  const middle = middle2(p, q);
  const centre = middle2(space.low, space.high);
  if (Math.abs(along[1]) < 1e-6) {
    const side = middle[1] > centre[1] + 1e-6 ? 'above' : 'below';
    const out = space.gap * (1 + space.lane(side, p[0], q[0]));
    return [middle[0], side === 'above' ? space.high[1] + out : space.low[1] - out];
  }
  if (Math.abs(along[0]) < 1e-6) {
    const side = middle[0] > centre[0] + 1e-6 ? 'right' : 'left';
    const out = space.gap * (1 + space.lane(side, p[1], q[1]));
    return [side === 'right' ? space.high[0] + out : space.low[0] - out, middle[1]];
  }
  const across = left2(along);
  const outwards = dot2(sub2(middle, centre), across) >= 0 ? 1 : -1;
  return add2(middle, scale2(across, outwards * space.gap));
}
