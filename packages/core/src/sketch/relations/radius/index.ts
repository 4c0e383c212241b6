import type { z } from 'zod';
import { rimKind, rimSchema } from '../rim.ts';

export const radiusSchema = rimSchema('radius');
export type Radius = z.infer<typeof radiusSchema>;

export const radius = rimKind('radius', radiusSchema, 1, {
  title: 'Radius',
  verb: { key: 'R', last: true },
  words: 'has the radius',
  prefix: 'R',
});
