import { rimKind, rimSchema } from '../rim.ts';

const radiusSchema = rimSchema('radius');

export const radius = rimKind('radius', radiusSchema, 1, {
  title: 'Radius',
  verb: { key: 'R', last: true },
  words: 'has the radius',
  prefix: 'R',
});
