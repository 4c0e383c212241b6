import { z } from 'zod';
import {
  add2,
  cross2,
  direction2,
  distance2,
  dot2,
  footOnLine2,
  middle2,
  offLine2,
  scale2,
  sub2,
  type Vec2,
} from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema, type Id } from '../../../records/index.ts';
import { LENGTH } from '../../../units/index.ts';
import { linearAnnotation, linearPlaces } from '../../annotation.ts';
import type { Geometry } from '../../geometry.ts';
import type { Role } from '../../entities/index.ts';
import { lineDistance, pointDistance, spanDistance } from '../../residuals.ts';
import { waysAcross, waysFromLine } from '../from-line.ts';
import type { RelationKind } from '../kind.ts';
import { parallelLines, picked } from '../picking.ts';

/**
 * A distance from `a` to `b`: a point (aligned, horizontal or vertical) or a line (square to it). Either may be a circle,
 * measured from its near rim (`rimA`, `rimB` 1) or its far one (-1). `sense` keeps the side that was drawn: 1 where b lies
 * right of or above a, or a left of the line.
 */
const signSchema = z.union([z.literal(1), z.literal(-1)]);

const distanceSchema = z.strictObject({
  kind: z.literal('distance'),
  a: idSchema,
  b: idSchema,
  direction: z.enum(['aligned', 'horizontal', 'vertical']),
  sense: signSchema,
  rimA: signSchema.optional(),
  rimB: signSchema.optional(),
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type Distance = z.infer<typeof distanceSchema>;

const opposite = (sense: 1 | -1): 1 | -1 => (sense === 1 ? -1 : 1);

export const distance: RelationKind<Distance> = {
  schema: distanceSchema,
  title: 'Size',
  words: 'are apart by',
  way: ({ direction }) => WAYS[direction],
  carried: (relation, { angle }) => (relation.direction !== 'aligned' && Math.abs(angle) > 1e-9 ? undefined : relation),
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b, direction, rimA, rimB }) => {
    const otherEnd: Role[] = direction === 'aligned' ? ['point', 'line'] : ['point'];
    return { [b]: rimB ? ['circle'] : otherEnd, [a]: rimA ? ['circle'] : ['point'] };
  },
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
  equations(relation, { id, layout, value }) {
    const { a, b, direction, sense, rimA, rimB } = relation;
    const place = (end: Id) => (layout.roleOf(end) === 'circle' ? layout.centre(end) : layout.point(end));
    const rims = [
      { end: a, sign: rimA },
      { end: b, sign: rimB },
    ].flatMap(({ end, sign }) => (sign ? [{ at: layout.circle(end)[2], factor: sign }] : []));
    const p = place(a);
    if (layout.roleOf(b) === 'line') {
      const [rim] = rims;
      return { blocks: [lineDistance(id, layout.line(b), p, sense, value, rim?.at, rim?.factor)] };
    }
    const q = place(b);
    if (direction === 'aligned') return { blocks: [pointDistance(id, p, q, value, rims)] };
    const k = direction === 'horizontal' ? 0 : 1;
    if (rims.length > 0) return { blocks: [spanDistance(id, p[k], q[k], sense, value, rims)] };
    return { substitutions: [{ owner: id, a: q[k], b: p[k], offset: sense * value }] };
  },
  spans({ a, b, direction }, layout) {
    if (direction !== 'aligned' || layout.roleOf(b) === 'line') return undefined;
    const [at, to] = [a, b].map((end) => (layout.roleOf(end) === 'circle' ? layout.centre(end) : layout.point(end)));
    return [at!, to!];
  },
  turned: (relation, line) => (relation.b === line ? { ...relation, sense: opposite(relation.sense) } : relation),
  dimension: {
    asks: LENGTH,
    turn: 1,
    toText: (relation, geometry, at) => ({ ...relation, ...directionAt(geometry, relation.a, relation.b, at) }),
    toRims,
    ways(relation, geometry) {
      const { a, b } = relation;
      const arePoints = [a, b].every((id) => geometry.roleOf(id) === 'point');
      if (geometry.roleOf(b) === 'line') return geometry.roleOf(a) === 'point' ? waysFromLine(geometry, a, b) : [];
      const [p, q] = [placeOf(a, geometry), placeOf(b, geometry)];
      return [
        { title: 'true length', relation: { ...relation, direction: 'aligned', sense: 1 } },
        { title: 'level', relation: { ...relation, direction: 'horizontal', sense: q[0] >= p[0] ? 1 : -1 } },
        { title: 'upright', relation: { ...relation, direction: 'vertical', sense: q[1] >= p[1] ? 1 : -1 } },
        ...(arePoints ? waysAcross(geometry, a, b) : []),
      ];
    },
    measure(relation, geometry) {
      const { a, b, direction, sense, rimA, rimB } = relation;
      const radius = (end: Id, sign: number | undefined) => (sign ? sign * geometry.circle(end).radius : 0);
      const rims = radius(a, rimA) + radius(b, rimB);
      if (geometry.roleOf(b) === 'line') return sense * offLine(geometry, a, b) - rims;
      const [p, q] = [placeOf(a, geometry), placeOf(b, geometry)];
      if (direction === 'aligned') return distance2(p, q) - rims;
      return sense * (direction === 'horizontal' ? q[0] - p[0] : q[1] - p[1]) - rims;
    },
    places(relation, geometry, space) {
      const [p, q] = measured(relation, geometry);
      return linearPlaces(p, q, alongOf(relation, p, q), space);
    },
    annotate(relation, geometry, space, at) {
      const [p, q] = measured(relation, geometry);
      return linearAnnotation(p, q, alongOf(relation, p, q), at, space);
    },
  },
  anchors: ({ a }, geometry) => [placeOf(a, geometry)],
};

/**
 * The way of measuring two points that the place of the text asks for: square off the line between them its true length,
 * else beside the pair, or above or below it. Points that no line joins are mostly meant upright or level: always where they
 * stand nearly over or beside each other, else wherever the text does not stand square off their middle.
 */
export function directionAt(geometry: Geometry, a: Id, b: Id, text: Vec2): Pick<Distance, 'direction' | 'sense'> {
  if (geometry.roleOf(b) === 'line') return { direction: 'aligned', sense: offLine(geometry, a, b) >= 0 ? 1 : -1 };
  const [p, q] = [placeOf(a, geometry), placeOf(b, geometry)];
  const [dx, dy] = [Math.abs(q[0] - p[0]), Math.abs(q[1] - p[1])];
  const least = 1e-6 * (dx + dy);
  const inside = (k: 0 | 1) => text[k] > Math.min(p[k], q[k]) - least && text[k] < Math.max(p[k], q[k]) + least;
  const joined = isDrawn(geometry, a, b);
  const slack = joined ? 1e-6 : LEANING;
  const flat = dy < slack * dx;
  const steep = dx < slack * dy;
  const share = dot2(sub2(text, p), sub2(q, p)) / distance2(p, q) ** 2;
  const isSquareOff = joined ? share > 0 && share < 1 : isOffMiddle(p, q, text);
  if (!flat && !steep && isSquareOff) return { direction: 'aligned', sense: 1 };
  const above = dx > least && inside(0) && !inside(1);
  const beside = dy > least && inside(1) && !inside(0);
  if (above || (flat && !beside)) return { direction: 'horizontal', sense: q[0] >= p[0] ? 1 : -1 };
  if (beside || steep) return { direction: 'vertical', sense: q[1] >= p[1] ? 1 : -1 };
  return { direction: 'aligned', sense: 1 };
}

/** What is measured, where it is not the true length. */
const WAYS = { aligned: undefined, horizontal: 'level', vertical: 'upright' } as const;

/** The slope up to which two points that no line joins are taken to be level. */
const LEANING = 0.3;

/** Is a place seen from the middle of two others square to them, rather than above or beside? */
function isOffMiddle(p: Vec2, q: Vec2, place: Vec2): boolean {
  const [x, y] = [Math.abs(q[0] - p[0]), Math.abs(q[1] - p[1])];
  const off = sub2(place, middle2(p, q));
  const leaning = Math.atan2(Math.abs(dot2(off, sub2(q, p))), Math.abs(cross2(off, sub2(q, p))));
  return leaning < Math.min(OFF_MIDDLE, Math.atan2(y, x) / 2, Math.atan2(x, y) / 2);
}
const OFF_MIDDLE = 0.25;

const isDrawn = ({ entities }: Geometry, a: Id, b: Id): boolean =>
  Object.values(entities).some(
    (entity) => entity.kind === 'line' && ((entity.a === a && entity.b === b) || (entity.a === b && entity.b === a)),
  );

/** The distance measured from the near (1) or far (-1) rims of the picked circles instead of their centres. */
function toRims(relation: Distance, picks: readonly Id[], geometry: Geometry, sign: 1 | -1): Distance {
  const circleAt = (end: Id) =>
    picks.find((id) => {
      const entity = geometry.entities[id];
      return entity && 'radius' in entity && entity.centre === end;
    });
  const [a, b] = [circleAt(relation.a), circleAt(relation.b)];
  return {
    ...relation,
    ...(a === undefined ? {} : { a, rimA: sign }),
    ...(b === undefined ? {} : { b, rimB: sign }),
  };
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

/** The place of a point, or the centre of a circle. */
const placeOf = (id: Id, geometry: Geometry): Vec2 =>
  geometry.roleOf(id) === 'circle' ? geometry.circle(id).centre : geometry.point(id);

function offLine(geometry: Geometry, point: Id, line: Id): number {
  const { a, b } = geometry.line(line);
  return offLine2(placeOf(point, geometry), a, b);
}

/** The two places between which the dimension stands; on a line the foot of the point, on a circle its rim. */
function measured({ a, b, direction, rimA, rimB }: Distance, geometry: Geometry): readonly [Vec2, Vec2] {
  const p = placeOf(a, geometry);
  const line = geometry.roleOf(b) === 'line' ? geometry.line(b) : undefined;
  const q = line ? footOnLine2(p, line.a, line.b) : placeOf(b, geometry);
  const towards = sub2(q, p);
  const along: Vec2 =
    direction === 'horizontal'
      ? [Math.sign(towards[0]) || 1, 0]
      : direction === 'vertical'
        ? [0, Math.sign(towards[1]) || 1]
        : (direction2(towards) ?? [1, 0]);
  const reach = (end: Id, sign: number | undefined) => (sign ? sign * geometry.circle(end).radius : 0);
  return [add2(p, scale2(along, reach(a, rimA))), add2(q, scale2(along, -reach(b, rimB)))];
}

function alongOf({ direction }: Distance, p: Vec2, q: Vec2): Vec2 {
  if (direction === 'horizontal') return [1, 0];
  if (direction === 'vertical') return [0, 1];
  return direction2(sub2(q, p)) ?? [1, 0];
}
