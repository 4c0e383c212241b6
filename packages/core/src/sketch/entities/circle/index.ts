import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import { fullCircle } from '../../pieces/index.ts';
import type { EntityKind } from '../kind.ts';

export const circleSchema = z.strictObject({
  kind: z.literal('circle'),
  centre: idSchema,
  radius: z.number().min(1e-6).max(1e5),
  construction: z.boolean().optional(),
});
type Circle = z.infer<typeof circleSchema>;

export const circle: EntityKind<Circle> = {
  schema: circleSchema,
  title: 'circle',
  role: 'circle',
  uses: ({ centre }) => [centre],
  onto: (entity, point) => ({ ...entity, centre: point(entity.centre) }),
  trace: (id, { centre, radius }, point) => [fullCircle(id, point(centre), radius)],
  part: (entity, from, to) => ({ ...entity, kind: 'arc', a: from.point, b: to.point }),
  mirrored: (entity) => entity,
  unknowns: ({ radius }) => [radius],
  moved: (entity, [radius]) => ({ ...entity, radius: radius! }),
};
