import { z } from 'zod';
import { leftD } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { arcBetween } from '../../pieces/index.ts';
import { pointDistance } from '../../residuals.ts';
import type { EntityKind } from '../kind.ts';

/** The arc that runs counter-clockwise from point `a` to point `b` about a centre. */
export const arcSchema = z.strictObject({
  kind: z.literal('arc'),
  centre: idSchema,
  a: idSchema,
  b: idSchema,
  radius: z.number().min(1e-6).max(1e5),
  construction: z.boolean().optional(),
});
type Arc = z.infer<typeof arcSchema>;

export const arc: EntityKind<Arc> = {
  schema: arcSchema,
  title: 'arc',
  role: 'circle',
  uses: ({ centre, a, b }) => [centre, a, b],
  ends: ({ a, b }) => [a, b],
  onto: (entity, point) => ({
    ...entity,
    centre: point(entity.centre),
    a: point(entity.a),
    b: point(entity.b),
  }),
  part: (entity, from, to) => ({ ...entity, a: from.point, b: to.point }),
  // it runs counter-clockwise still
  mirrored: (entity) => ({ ...entity, a: entity.b, b: entity.a }),
  unknowns: ({ radius }) => [radius],
  moved: (entity, [radius]) => ({ ...entity, radius: radius! }),
  trace: (id, { centre, a, b, radius }, point) => [arcBetween(id, point(centre), radius, point(a), point(b))],
  /** Both ends lie on the circle. */
  equations(id, { centre, a, b }, layout) {
    const radius = layout.circle(id)[2];
    const about = layout.point(centre);
    return [a, b].map((end) => pointDistance(id, about, layout.point(end), 0, [{ at: radius, factor: 1 }]));
  },
  heading: (_, { centre }, end, layout) => ({
    unknowns: [...layout.point(centre), ...layout.point(end)],
    direction: ([cx, cy, x, y]) => leftD([x!.sub(cx!), y!.sub(cy!)]),
  }),
};
