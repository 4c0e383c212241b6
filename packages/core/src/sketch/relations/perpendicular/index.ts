import { directionKind, directionSchema } from '../direction.ts';

const perpendicularSchema = directionSchema('perpendicular');

export const perpendicular = directionKind(
  'perpendicular',
  perpendicularSchema,
  (theta) => [Math.cos(theta), -Math.sin(theta)],
  { title: 'Perpendicular', verb: { key: 'P' }, mark: '⊥', words: 'stand at a right angle' },
);
