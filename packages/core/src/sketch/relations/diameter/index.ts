import { rimKind, rimSchema } from '../rim.ts';

const diameterSchema = rimSchema('diameter');

export const diameter = rimKind('diameter', diameterSchema, 2, {
  title: 'Diameter',
  verb: { key: 'D' },
  words: 'measures across',
  turn: 2,
  prefix: '⌀',
});
