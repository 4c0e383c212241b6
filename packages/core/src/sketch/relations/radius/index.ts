import { rimKind, rimSchema } from '../rim.ts';

const radiusSchema = rimSchema('radius');

export const radius = rimKind('radius', radiusSchema, 1, {
  title: 'Radius',
  verb: {
    key: 'R',
    last: true,
    says: 'Measures from the centre of an arc or circle to its rim.',
    wants: 'an arc or circle',
  },
  words: 'has the radius',
  prefix: 'R',
});
