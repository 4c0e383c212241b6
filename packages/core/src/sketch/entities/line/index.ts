import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import type { EntityKind } from '../kind.ts';

export const lineSchema = z.strictObject({
  kind: z.literal('line'),
  a: idSchema,
  b: idSchema,
  construction: z.boolean().optional(),
});
export type Line = z.infer<typeof lineSchema>;

export const line: EntityKind<Line> = {
  schema: lineSchema,
  title: 'line',
  role: 'line',
  uses: ({ a, b }) => [a, b],
  unknowns: () => [],
  trace: (entity, { a, b }, point) => [{ form: 'segment', entity, from: point(a), to: point(b) }],
  moved: (entity) => entity,
};
