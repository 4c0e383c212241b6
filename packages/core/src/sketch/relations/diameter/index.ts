import type { z } from 'zod';
import { rimKind, rimSchema } from '../rim.ts';

export const diameterSchema = rimSchema('diameter');
export type Diameter = z.infer<typeof diameterSchema>;

export const diameter = rimKind('diameter', diameterSchema, 2, {
  title: 'Diameter',
  verb: { key: 'D' },
  words: 'measures across',
  turn: 2,
  prefix: '⌀',
});
