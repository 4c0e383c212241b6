import { directionKind, directionSchema } from '../direction.ts';

const parallelSchema = directionSchema('parallel');

export const parallel = directionKind('parallel', parallelSchema, (theta) => [Math.sin(theta), Math.cos(theta)], {
  title: 'Parallel',
  verb: { key: 'A', says: 'Keeps two lines in the same direction.', wants: 'two lines or more' },
  mark: '∥',
  words: 'are parallel',
});
