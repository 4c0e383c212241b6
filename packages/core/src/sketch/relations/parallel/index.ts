import type { z } from 'zod';
import { directionKind, directionSchema } from '../direction.ts';

export const parallelSchema = directionSchema('parallel');
export type Parallel = z.infer<typeof parallelSchema>;

export const parallel = directionKind('parallel', parallelSchema, (theta) => [Math.sin(theta), Math.cos(theta)], {
  title: 'Parallel',
  verb: { key: 'A' },
  mark: '∥',
  words: 'are parallel',
});
