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
  uses: ({ a, b }) => [a, b],
  unknowns: () => [],
  moved: (entity) => entity,
};
