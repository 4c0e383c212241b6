import type { z } from 'zod';
import { directionKind, directionSchema } from '../direction.ts';

export const perpendicularSchema = directionSchema('perpendicular');
export type Perpendicular = z.infer<typeof perpendicularSchema>;

export const perpendicular = directionKind(
  'perpendicular',
  perpendicularSchema,
  (theta) => [Math.cos(theta), -Math.sin(theta)],
  { title: 'Perpendicular', verb: { key: 'P' }, mark: '⊥', words: 'stand at a right angle' },
);
