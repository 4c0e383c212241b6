import { z } from 'zod';
import { add2, cross2, direction2, distance2, middle2, scale2, sub2, type Vec2 } from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema } from '../../../records/index.ts';
import { ANGLE } from '../../../units/index.ts';
import { arcAnnotation, arcPlaces } from '../../annotation.ts';
import { isBuiltIn } from '../../entities/index.ts';
import type { Geometry } from '../../geometry.ts';
import { lineAngle, wrapped } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

const signSchema = z.union([z.literal(1), z.literal(-1)]);

/**
 * The angle from line `a` to line `b`. `alongA`, `alongB` are -1 where the line is taken from its end to its start;
 * `sense` is 1 for turning left. Together they keep the sector that was drawn.
 */
const angleSchema = z.strictObject({
  kind: z.literal('angle'),
  a: idSchema,
  b: idSchema,
  alongA: signSchema,
  alongB: signSchema,
  sense: signSchema,
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type Angle = z.infer<typeof angleSchema>;

export const angle: RelationKind<Angle> = {
  schema: angleSchema,
  title: 'Angle',
  verb: { key: 'W', says: 'Measures the angle between two lines.', wants: 'two lines' },
  words: 'meet at an angle of',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [a]: ['line'], [b]: ['line'] }),
  fit(picks, geometry) {
    const lines = picked(picks, geometry, ['line', 'line']);
    if (!lines) return undefined;
    const [a, b] = lines as [string, string];
    const corner = cornerOf(geometry, a, b);
    if (!corner) return undefined;
    const alongA = awayFrom(geometry, a, corner);
    const alongB = awayFrom(geometry, b, corner);
    const u = scale2(vectorOf(geometry, a), alongA);
    const v = scale2(vectorOf(geometry, b), alongB);
    return { kind: 'angle', a, b, alongA, alongB, sense: cross2(u, v) >= 0 ? 1 : -1, value: '1' };
  },
  equations({ a, b, alongA, alongB, sense }, { id, layout, start, value }) {
    const scale = (distance2(...ends(start, a)) + distance2(...ends(start, b))) / 2;
    const reversed = alongA * alongB < 0 ? Math.PI : 0;
    return {
      blocks: [
        lineAngle(id, layout.line(a), layout.line(b), Math.max(scale, 1e-3), (theta) => [
          wrapped(theta + reversed - sense * value),
          1,
        ]),
      ],
    };
  },
  turned: (relation, line) => ({
    ...relation,
    ...(relation.a === line ? { alongA: relation.alongA === 1 ? -1 : 1 } : {}),
    ...(relation.b === line ? { alongB: relation.alongB === 1 ? -1 : 1 } : {}),
  }),
  dimension: {
    asks: ANGLE,
    turn: 3,
    toText: angleAt,
    period: 2 * Math.PI,
    measure: (relation, geometry) => turnOf(relation, geometry),
    places(relation, geometry, { gap, amount }) {
      const { corner, from, sweep } = sectorOf(relation, geometry, amount);
      const radii = [2.2, 3.4, 4.6, 5.8, 1.4].map((times) => times * gap);
      return arcPlaces(corner, radii, from + sweep / 2, gap);
    },
    annotate(relation, geometry, { gap, amount }, at) {
      const { corner, from, sweep, axis } = sectorOf(relation, geometry, amount);
      const radius = Math.max(distance2(at, corner) - gap * 0.7, gap);
      const drawn = arcAnnotation(corner, radius, from, sweep, gap);
      // where the axis is elsewhere a line along it is drawn from the corner
      if (axis === undefined) return drawn;
      const along = scale2([Math.cos(axis), Math.sin(axis)], radius + gap / 2);
      return { ...drawn, strokes: [...drawn.strokes, [corner, add2(corner, along)]] };
    },
  },
  anchors: ({ a, b }, geometry) => [a, b].map((id) => middle2(...ends(geometry, id))),
};

/**
 * The sector as drawn: its corner, where it begins, and how far it turns. Where an axis of the sketch meets the line
 * somewhere else, the corner is where the line begins, and `axis` is the direction in which it is drawn through that.
 * @param amount what it is told to be, rad: a negative one turns against its sense
 */
function sectorOf(relation: Angle, geometry: Geometry, amount = 0) {
  const { a, b, alongA, alongB, sense } = relation;
  const meet = cornerOf(geometry, a, b);
  const u = scale2(vectorOf(geometry, a), alongA);
  const turn = turnOf(relation, geometry);
  const [from, sweep] = [Math.atan2(u[1], u[0]), sense * (amount < 0 ? turn - 2 * Math.PI : turn)];
  const [line, along, axis] = isBuiltIn(a) ? ([b, alongB, from] as const) : ([a, alongA, from + sweep] as const);
  const [start, end] = ends(geometry, line);
  if ((isBuiltIn(a) || isBuiltIn(b)) && meet && !isBetween(meet, start, end))
    return { from, sweep, corner: along === 1 ? start : end, axis };
  return { from, sweep, corner: meet ?? middle2(...ends(geometry, a)), axis: undefined };
}

/** Does a place of a line lie between two others of it, or on one? */
const isBetween = (at: Vec2, from: Vec2, to: Vec2): boolean =>
  distance2(from, at) + distance2(at, to) < (1 + 1e-6) * distance2(from, to);

/** A place that is seen from the corner in nearly the direction of a line, in radians, lies on no side of it. */
const ON_LINE = 0.06;

/**
 * The sector in which a place lies, of the four that two lines make. Where the lines end in their corner and the place lies
 * opposite to what they enclose, it is what they leave open: more than 180 degrees. A place on one of the lines does not
 * tell to which side of it is meant: that is where the other line is drawn.
 */
function angleAt(relation: Angle, geometry: Geometry, place: Vec2): Angle {
  const { a, b } = relation;
  const corner = cornerOf(geometry, a, b);
  if (!corner) return relation;
  const [u, v, w] = [vectorOf(geometry, a), vectorOf(geometry, b), sub2(place, corner)];
  const across = cross2(u, v);
  const isOn = (line: Vec2) => Math.abs(cross2(w, line)) < Math.sin(ON_LINE) * Math.hypot(...w) * Math.hypot(...line);
  const enclosed = (sideA: 1 | -1, sideB: 1 | -1): 1 | -1 => (cross2(scale2(u, sideA), scale2(v, sideB)) >= 0 ? 1 : -1);
  const [drawnA, drawnB] = [awayFrom(geometry, a, corner), awayFrom(geometry, b, corner)];
  const alongA = isOn(v) ? drawnA : cross2(w, v) / across >= 0 ? 1 : -1;
  const alongB = isOn(u) ? drawnB : cross2(u, w) / across >= 0 ? 1 : -1;
  const meet = geometry.ends(a).some((end) => geometry.ends(b).includes(end));
  if (meet && alongA !== drawnA && alongB !== drawnB)
    return { ...relation, alongA: drawnA, alongB: drawnB, sense: enclosed(drawnA, drawnB) === 1 ? -1 : 1 };
  return { ...relation, alongA, alongB, sense: enclosed(alongA, alongB) };
}

const ends = (geometry: Geometry, id: string): [Vec2, Vec2] => {
  const { a, b } = geometry.line(id);
  return [a, b];
};

const vectorOf = (geometry: Geometry, id: string): Vec2 => {
  const [a, b] = ends(geometry, id);
  return sub2(b, a);
};

/** From a to b in the kept sense, 0 to 2 pi. */
function turnOf({ a, b, alongA, alongB, sense }: Angle, geometry: Geometry): number {
  const u = scale2(vectorOf(geometry, a), alongA);
  const v = scale2(vectorOf(geometry, b), alongB);
  const turn = sense * Math.atan2(cross2(u, v), u[0] * v[0] + u[1] * v[1]);
  return turn < 0 ? turn + 2 * Math.PI : turn;
}

/** Where the two lines, prolonged, meet; undefined if they are parallel. */
function cornerOf(geometry: Geometry, a: string, b: string): Vec2 | undefined {
  const [p] = ends(geometry, a);
  const [q] = ends(geometry, b);
  const u = vectorOf(geometry, a);
  const v = vectorOf(geometry, b);
  const across = cross2(u, v);
  if (!direction2(u) || !direction2(v) || Math.abs(across) < 1e-9 * Math.hypot(...u) * Math.hypot(...v))
    return undefined;
  return add2(p, scale2(u, cross2(sub2(q, p), v) / across));
}

function awayFrom(geometry: Geometry, id: string, corner: Vec2): 1 | -1 {
  const [a, b] = ends(geometry, id);
  return distance2(a, corner) <= distance2(b, corner) ? 1 : -1;
}
