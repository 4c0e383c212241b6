import { levelKind, levelSchema } from '../level.ts';

/** A line, or two points, parallel to the sketch's x axis. */
const horizontalSchema = levelSchema('horizontal');

export const horizontal = levelKind('horizontal', horizontalSchema, 1, 'vertical', {
  title: 'Horizontal',
  verb: { key: 'H', says: 'Keeps a line level, or two points at one height.', wants: 'lines, or points' },
  mark: 'H',
  words: 'is level',
});
