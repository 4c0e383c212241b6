import { z } from 'zod';
import { MAX_LENGTH } from '../expressions/index.ts';

export { once, onceEach } from './once.ts';

/** Short ids, made by whoever issues the command. */
export const idSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,23}$/, 'an id has 1-24 of a-z, 0-9, -')
  .refine((id) => id !== 'constructor', 'this id is not allowed');
export type Id = z.infer<typeof idSchema>;

/** A placement, or one within a group that is placed: their ids from the outside in. */
export const placementPathSchema = z
  .string()
  .regex(/^[a-z0-9-]{1,24}(\/[a-z0-9-]{1,24}){0,6}$/, 'ids of placements with / between');
/** The same, where repeats can be meant too: they are numbered from 2. */
export const memberPathSchema = z
  .string()
  .regex(/^[a-z0-9-]{1,24}(:\d{1,4})?(\/[a-z0-9-]{1,24}(:\d{1,4})?){0,6}$/, 'ids of placements with / between');

/** An expression as typed: `span / 2 - 4 mm`. Its result is never stored. */
export const expressionSchema = z.string().min(1).max(MAX_LENGTH);

/** Letters of a name, at most. */
export const MOST_NAME = 60;
/** What people call things: one line, shown as typed. */
export const nameSchema = z
  .string()
  .trim()
  .min(1)
  .max(MOST_NAME)
  .regex(/^[^\p{Cc}]*$/u, 'a name has no control characters');

/** A drawn coordinate in mm; 100 m either way. */
export const coordinateSchema = z.number().min(-1e5).max(1e5);
export const placeSchema = z.tuple([coordinateSchema, coordinateSchema]);

/** Set on a dimension that only tells its measure and holds nothing. */
export const measuringSchema = z.boolean().optional();

/** The largest file that a project takes in, bytes. */
export const MOST_FILE = 32 * 1024 * 1024;

/** A file of a project, kept beside the document: found by what is in it, told by its name. */
export const fileSchema = z.strictObject({
  /** SHA-256 of its bytes, hexadecimal. */
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name: z.string().min(1).max(120),
  /** Bytes. */
  size: z.int().min(1).max(MOST_FILE),
});
export type FileRecord = z.infer<typeof fileSchema>;
export { namesOf, schemaOfKinds, type Kinds, type RecordOf } from './kinds.ts';
