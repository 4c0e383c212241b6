import { directionKind, directionSchema } from '../direction.ts';

const perpendicularSchema = directionSchema('perpendicular');

export const perpendicular = directionKind(
  'perpendicular',
  perpendicularSchema,
  (theta) => [Math.cos(theta), -Math.sin(theta)],
  {
    title: 'Perpendicular',
    verb: { key: 'P', says: 'Puts two lines at a right angle.', wants: 'two lines' },
    mark: '⊥',
    words: 'stand at a right angle',
  },
);
