import { rimKind, rimSchema } from '../rim.ts';

const diameterSchema = rimSchema('diameter');

export const diameter = rimKind('diameter', diameterSchema, 2, {
  title: 'Diameter',
  verb: { key: 'D', says: 'Measures across a circle or arc.', wants: 'a circle or arc' },
  words: 'measures across',
  turn: 2,
  prefix: '⌀',
});
