import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import { entityKind, findEntity } from '../../entities/index.ts';
import { curveDistance, lineDistance, pointDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/** Point `a` lies on `b`: the same point, or somewhere on the line's extension, the circle, the ellipse, the spline. */
const coincidentSchema = z.strictObject({ kind: z.literal('coincident'), a: idSchema, b: idSchema });
type Coincident = z.infer<typeof coincidentSchema>;

const CARRIERS = ['point', 'line', 'circle', 'ellipse', 'spline'] as const;

export const coincident: RelationKind<Coincident> = {
  schema: coincidentSchema,
  title: 'Coincident',
  verb: { key: 'J', says: 'Puts a point onto a point or onto a curve.', wants: 'points, and a point or curve' },
  mark: '•',
  words: 'lie on each other',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [b]: CARRIERS, [a]: ['point'] }),
  fit(picks, geometry) {
    for (const kind of CARRIERS) {
      const found = picked(picks, geometry, ['point', kind]);
      if (found) return { kind: 'coincident', a: found[0]!, b: found[1]! };
    }
    return undefined;
  },
  equations({ a, b }, { id, layout }) {
    const p = layout.point(a);
    const kind = layout.roleOf(b);
    if (kind === 'line') return { blocks: [lineDistance(id, layout.line(b), p, 1, 0)] };
    if (kind === 'circle') {
      const [cx, cy, radius] = layout.circle(b);
      return { blocks: [pointDistance(id, [cx, cy], p, 0, [{ at: radius, factor: 1 }])] };
    }
    const entity = findEntity(layout.entities, b)!;
    const curve = entityKind(entity.kind).curve?.(b, entity, layout);
    if (curve) return { blocks: [curveDistance(id, curve, p, 1)] };
    const q = layout.point(b);
    return { substitutions: [0, 1].map((k) => ({ owner: id, a: p[k]!, b: q[k]!, offset: 0 })) };
  },
  anchors: ({ a }, geometry) => [geometry.point(a)],
};
