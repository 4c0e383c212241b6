import { z } from 'zod';
import { add2, cross2, direction2, distance2, dot2, scale2, sub2 } from '../../../math/index.ts';
import { idSchema, type Id } from '../../../records/index.ts';
import type { Block } from '../../../solver/index.ts';
import { findEntity } from '../../entities/index.ts';
import type { Layout } from '../../geometry.ts';
import { alongLine, lineDistance, pointDistance } from '../../residuals.ts';
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
    const end = sharedEnd(layout, circle, to);
    if (end !== undefined) return { blocks: [tangentAtEnd(id, layout, circle, to, end)] };
    const [cx, cy, radius] = layout.circle(circle);
    if (layout.roleOf(to) === 'line') return { blocks: [lineDistance(id, layout.line(to), [cx, cy], side, 0, radius)] };
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
    if (geometry.roleOf(to) === 'circle') {
      const towards = direction2(sub2(geometry.circle(to).centre, centre)) ?? [1, 0];
      return [add2(centre, scale2(towards, radius))];
    }
    const { a, b } = geometry.line(to);
    const along = direction2(sub2(b, a)) ?? [1, 0];
    return [add2(a, scale2(along, dot2(sub2(centre, a), along)))];
  },
};

/** A point at which both curves end. */
function sharedEnd(layout: Layout, circle: Id, to: Id): Id | undefined {
  const [own, other] = [circle, to].map((id) => {
    const entity = findEntity(layout.entities, id)!;
    return 'a' in entity ? [entity.a, entity.b] : [];
  });
  return own!.find((end) => other!.includes(end));
}

/**
 * At a common end the distance to the centre has its least value already and says nothing to first order; there the
 * radius stands square on the line, or both centres lie in line with the end.
 */
function tangentAtEnd(owner: Id, layout: Layout, circle: Id, to: Id, end: Id): Block {
  const centre = layout.circle(circle).slice(0, 2);
  const place = layout.point(end);
  if (layout.roleOf(to) === 'line') return alongLine(owner, layout.line(to), centre, place);
  return lineDistance(owner, [...layout.circle(to).slice(0, 2), ...centre], place, 1, 0);
}
