import { z } from 'zod';
import { idSchema, nameSchema } from '../../records/index.ts';
import { FIELD_NAMES, WRITTEN_NAMES } from './fields.ts';

export const TITLE_LIMITS = {
  rows: 10,
  cells: 8,
  share: 18,
  low: 9,
  high: 45,
  whole: 100,
  own: 40,
  words: 200,
} as const;

const share = z.int().min(1).max(TITLE_LIMITS.share);
const label = nameSchema.max(30).optional();

/** A place in a title block: something known, or a field of its own. */
const cellSchema = z.union([
  z.strictObject({ field: z.enum(FIELD_NAMES), label, share }),
  z.strictObject({
    /** Under this id sheets keep what they write there. */
    own: idSchema,
    label: nameSchema.max(30),
    /** What stands there on sheets that write nothing else, as the owner. */
    words: z.string().max(TITLE_LIMITS.words).optional(),
    share,
  }),
]);
export type Cell = z.infer<typeof cellSchema>;

const rowSchema = z.strictObject({
  /** How high, mm. */
  high: z.int().min(TITLE_LIMITS.low).max(TITLE_LIMITS.high),
  /** From the left; each takes its share of the width. */
  cells: z.array(cellSchema).min(1).max(TITLE_LIMITS.cells),
});

/** How title blocks are laid out, from above. */
export const titleBlockSchema = z
  .strictObject({ rows: z.array(rowSchema).min(1).max(TITLE_LIMITS.rows) })
  .refine(({ rows }) => isDistinct(rows.flatMap(({ cells }) => cells.map(cellKey))), 'each field stands there once')
  .refine(({ rows }) => blockHeight(rows) <= TITLE_LIMITS.whole, `at most ${TITLE_LIMITS.whole} mm high`);
export type TitleBlock = z.infer<typeof titleBlockSchema>;

/** How high rows are together, mm. */
export const blockHeight = (rows: readonly { readonly high: number }[]): number =>
  rows.reduce((sum, { high }) => sum + high, 0);

/** What tells fields of a block apart. */
export const cellKey = (cell: Cell): string => ('own' in cell ? `own ${cell.own}` : cell.field);
const isDistinct = (keys: readonly string[]): boolean => new Set(keys).size === keys.length;

/** What is written into the title block of a sheet besides what the project knows. */
const written = z.string().max(60).optional();
export const titleSchema = z.strictObject({
  ...(Object.fromEntries(WRITTEN_NAMES.map((name) => [name, written])) as Record<
    (typeof WRITTEN_NAMES)[number],
    typeof written
  >),
  /** Into fields of the block's own. */
  own: z
    .record(idSchema, z.string().max(TITLE_LIMITS.words))
    .refine((own) => Object.keys(own).length <= TITLE_LIMITS.own, `at most ${TITLE_LIMITS.own} fields of its own`)
    .optional(),
});
