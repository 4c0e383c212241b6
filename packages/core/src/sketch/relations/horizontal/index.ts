import type { z } from 'zod';
import { levelKind, levelSchema } from '../level.ts';

/** A line, or two points, parallel to the sketch's x axis. */
export const horizontalSchema = levelSchema('horizontal');
export type Horizontal = z.infer<typeof horizontalSchema>;

export const horizontal = levelKind('horizontal', horizontalSchema, 1, 'vertical', {
  title: 'Horizontal',
  verb: { key: 'H' },
  mark: 'H',
  words: 'is level',
});
