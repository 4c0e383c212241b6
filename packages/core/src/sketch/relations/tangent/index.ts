import { z } from 'zod';
import { add2, cross2, direction2, distance2, dot2, scale2, sub2 } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { lineDistance, pointDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/**
 * A circle touches a line or another circle. `side` is chosen once, from the drawing: for a line on which side of it the
 * centre lies (1 left), for circles 1 beside each other, -1 one inside the other.
 */
export const tangentSchema = z.strictObject({
  kind: z.literal('tangent'),
  circle: idSchema,
  to: idSchema,
  side: z.union([z.literal(1), z.literal(-1)]),
});
export type Tangent = z.infer<typeof tangentSchema>;

export const tangent: RelationKind<Tangent> = {
  schema: tangentSchema,
  title: 'Tangent',
  mark: 'T',
  words: 'touch',
  refs: ({ circle, to }) => [circle, to],
  roles: ({ circle, to }) => ({ [to]: ['line', 'circle'], [circle]: ['circle'] }),
  fit(picks, geometry) {
    const withLine = picked(picks, geometry, ['circle', 'line']);
    if (withLine) {
      const [circle, to] = withLine as [string, string];
      const { a, b } = geometry.line(to);
      const side = cross2(sub2(b, a), sub2(geometry.circle(circle).centre, a)) >= 0 ? 1 : -1;
      return { kind: 'tangent', circle, to, side };
    }
    const both = picked(picks, geometry, ['circle', 'circle']);
    if (!both) return undefined;
    const [circle, to] = both as [string, string];
    const first = geometry.circle(circle);
    const second = geometry.circle(to);
    const apart = distance2(first.centre, second.centre);
    return { kind: 'tangent', circle, to, side: apart >= Math.max(first.radius, second.radius) ? 1 : -1 };
  },
  equations({ circle, to, side }, { id, layout, start }) {
    const [cx, cy, radius] = layout.circle(circle);
    if (layout.kindOf(to) === 'line') return { blocks: [lineDistance(id, layout.line(to), [cx, cy], side, 0, radius)] };
    const [ox, oy, other] = layout.circle(to);
    // inside: the centres are as far apart as the radii differ, the larger one by the drawing
    const larger = start.circle(circle).radius >= start.circle(to).radius ? 1 : -1;
    const factors = side === 1 ? [1, 1] : [larger, -larger];
    const radii = [
      { at: radius, factor: factors[0]! },
      { at: other, factor: factors[1]! },
    ];
    return { blocks: [pointDistance(id, [cx, cy], [ox, oy], 0, radii)] };
  },
  anchors({ circle, to }, geometry) {
    const { centre, radius } = geometry.circle(circle);
    if (geometry.kindOf(to) === 'circle') {
      const towards = direction2(sub2(geometry.circle(to).centre, centre)) ?? [1, 0];
      return [add2(centre, scale2(towards, radius))];
    }
    const { a, b } = geometry.line(to);
    const along = direction2(sub2(b, a)) ?? [1, 0];
    return [add2(a, scale2(along, dot2(sub2(centre, a), along)))];
  },
};
