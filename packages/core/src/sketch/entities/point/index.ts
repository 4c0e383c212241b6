import { z } from 'zod';
import { coordinateSchema } from '../../../records/index.ts';
import type { EntityKind } from '../kind.ts';

export const pointSchema = z.strictObject({ kind: z.literal('point'), x: coordinateSchema, y: coordinateSchema });
type Point = z.infer<typeof pointSchema>;

export const point: EntityKind<Point> = {
  schema: pointSchema,
  title: 'point',
  role: 'point',
  uses: () => [],
  onto: (entity) => entity,
  trace: () => [],
  mirrored: (entity) => entity,
  unknowns: ({ x, y }) => [x, y],
  moved: (entity, [x, y]) => ({ ...entity, x: x!, y: y! }),
};
