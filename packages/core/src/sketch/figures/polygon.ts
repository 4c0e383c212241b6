import { add2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { FigureBuilder } from './builder.ts';

export const POLYGON = { least: 3, most: 60 } as const;

/**
 * A regular polygon with its corners on a construction circle and equal sides: free are centre, size and turn.
 * @param corner where its first corner stands; `existing` the point there, if there is one
 * @returns the construction circle and the first side
 */
export function polygon(
  builder: FigureBuilder,
  [centre, at]: readonly [Id, Vec2],
  corner: Vec2,
  count: number,
  existing?: Id,
): { readonly circle: Id; readonly side: Id } {
  const out = sub2(corner, at);
  const circle = builder.circle(centre, Math.hypot(...out), true);
  const corners = Array.from({ length: count }, (_, k) =>
    k === 0 && existing !== undefined ? existing : builder.place(add2(at, turned(out, (2 * Math.PI * k) / count))),
  );
  const sides = corners.map((from, k) => builder.line(from, corners[(k + 1) % count]!));
  corners.forEach((from) => builder.relate({ kind: 'coincident', a: from, b: circle }));
  sides.slice(1).forEach((side) => builder.relate({ kind: 'equal', a: sides[0]!, b: side }));
  return { circle, side: sides[0]! };
}

/**
 * A regular polygon round a circle: as above, with the circle that touches its sides as a construction circle too.
 * @param flat the middle of its first side
 */
export function polygonRound(
  builder: FigureBuilder,
  [centre, at]: readonly [Id, Vec2],
  flat: Vec2,
  count: number,
): { readonly circle: Id; readonly side: Id } {
  const out = sub2(flat, at);
  const half = Math.PI / count;
  const corner = add2(at, scale2(turned(out, -half), 1 / Math.cos(half)));
  const { side } = polygon(builder, [centre, at], corner, count);
  const circle = builder.circle(centre, Math.hypot(...out), true);
  builder.relate({ kind: 'tangent', circle, to: side, side: 1 });
  return { circle, side };
}

const turned = ([x, y]: Vec2, angle: number): Vec2 => [
  x * Math.cos(angle) - y * Math.sin(angle),
  x * Math.sin(angle) + y * Math.cos(angle),
];
