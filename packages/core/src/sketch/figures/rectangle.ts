import { dot2, left2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { FigureBuilder } from './builder.ts';

type Corners = readonly [Id, Id, Id, Id];

/** The four sides round these corners, two of them level and two upright. */
export function levelRectangle(builder: FigureBuilder, corners: Corners): readonly Id[] {
  const sides = around(builder, corners);
  sides.forEach((side, k) => builder.relate({ kind: k % 2 === 0 ? 'horizontal' : 'vertical', a: side }));
  return sides;
}

/** The four sides round these corners, in any direction: one right angle, two pairs of parallels. */
export function turnedRectangle(builder: FigureBuilder, corners: Corners): readonly Id[] {
  const [first, second, third, fourth] = around(builder, corners) as [Id, Id, Id, Id];
  builder.relate({ kind: 'perpendicular', a: first, b: second });
  builder.relate({ kind: 'parallel', a: first, b: third });
  builder.relate({ kind: 'parallel', a: second, b: fourth });
  return [first, second, third, fourth];
}

/** Corners of a rectangle from one corner to the opposite one, where the ends are points that exist already. */
export const cornersBetween = (builder: FigureBuilder, [a, p]: [Id, Vec2], [c, q]: [Id, Vec2]): Corners => [
  a,
  builder.place([q[0], p[1]]),
  c,
  builder.place([p[0], q[1]]),
];

/** A level rectangle from corner to opposite corner. */
export function rectangle(builder: FigureBuilder, p: Vec2, q: Vec2): Corners {
  const corners = cornersBetween(builder, [builder.place(p), p], [builder.place(q), q]);
  levelRectangle(builder, corners);
  return corners;
}

/** A level rectangle whose diagonal is a construction line with its middle on `centre`, a point that exists. */
export function centredRectangle(builder: FigureBuilder, centre: Id, at: Vec2, corner: Vec2, existing?: Id): Corners {
  const opposite: Vec2 = [2 * at[0] - corner[0], 2 * at[1] - corner[1]];
  const corners = cornersBetween(
    builder,
    [builder.place(opposite), opposite],
    [existing ?? builder.place(corner), corner],
  );
  levelRectangle(builder, corners);
  const diagonal = builder.line(corners[0], corners[2], true);
  builder.relate({ kind: 'midpoint', point: centre, line: diagonal });
  return corners;
}

/** How far `towards` lies left of the side from p to q, as a vector: the other side of a turned rectangle. */
export function acrossSide(p: Vec2, q: Vec2, towards: Vec2): Vec2 {
  const side = sub2(q, p);
  const square = dot2(side, side);
  if (square < 1e-12) return [0, 0];
  const left = left2(side);
  return scale2(left, dot2(sub2(towards, p), left) / square);
}

function around(builder: FigureBuilder, corners: Corners): readonly Id[] {
  return corners.map((corner, k) => builder.line(corner, corners[(k + 1) % 4]!));
}
