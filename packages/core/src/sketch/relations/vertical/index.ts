import { levelKind, levelSchema } from '../level.ts';

/** A line, or two points, parallel to the sketch's y axis. */
const verticalSchema = levelSchema('vertical');

export const vertical = levelKind('vertical', verticalSchema, 0, 'horizontal', {
  title: 'Vertical',
  verb: { key: 'V', says: 'Keeps a line upright, or two points above each other.', wants: 'lines, or points' },
  mark: 'V',
  words: 'is upright',
});
