import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import type { EntityKind } from '../kind.ts';

/** A line between two points; a centre line is construction too, and diameters are measured across it. */
export const lineSchema = z.strictObject({
  kind: z.literal('line'),
  a: idSchema,
  b: idSchema,
  construction: z.boolean().optional(),
  centreline: z.boolean().optional(),
});
type Line = z.infer<typeof lineSchema>;

export const line: EntityKind<Line> = {
  schema: lineSchema,
  title: 'line',
  role: 'line',
  uses: ({ a, b }) => [a, b],
  ends: ({ a, b }) => [a, b],
  onto: (entity, point) => ({ ...entity, a: point(entity.a), b: point(entity.b) }),
  unknowns: () => [],
  trace: (entity, { a, b }, point) => [{ form: 'segment', entity, from: point(a), to: point(b) }],
  part: (entity, from, to) => ({ ...entity, a: from.point, b: to.point }),
  mirrored: (entity) => entity,
  reversed: (entity) => ({ ...entity, a: entity.b, b: entity.a }),
  moved: (entity) => entity,
  heading: (_, { a, b }, __, layout) => ({
    unknowns: [...layout.point(a), ...layout.point(b)],
    direction: ([ax, ay, bx, by]) => [bx!.sub(ax!), by!.sub(ay!)],
  }),
};
