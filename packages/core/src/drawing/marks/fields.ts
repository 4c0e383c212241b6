import { z } from 'zod';
import { idSchema, placeSchema } from '../../records/index.ts';
import { referenceSchema } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { formatAmount } from '../../units/index.ts';
import type { LabelPart, LabelRow } from '../label.ts';
import { toleranceKind, toleranceSchema, type Tolerance } from './tolerances.ts';

export const MARK_LIMITS = { marks: 500, things: 200, text: 300 } as const;

/** What every mark has: the view it is in, and where its text was dragged to: mm of the thing in the plane of the eye. */
export const markFields = { view: idSchema, at: placeSchema.optional() };

/** What every dimension can have. */
export const sizeFields = {
  ...markFields,
  tolerance: toleranceSchema.optional(),
  /** Told for convenience, in brackets: it counts as not said (ISO 129-1). */
  extra: z.boolean().optional(),
  /** The number of a step that it shows: changed here, it is changed there. */
  drives: z.strictObject({ step: idSchema, path: z.array(z.string().min(1).max(40)).min(1).max(6) }).optional(),
};
/** What a mark is attached to: at least so many things. */
export const things = (least: number) => z.array(referenceSchema).min(least).max(MARK_LIMITS.things);

interface Sized {
  readonly tolerance?: Tolerance | undefined;
  readonly extra?: boolean | undefined;
}

/** A size as it is written: what stands before, the amount, how far it may be off. @param amount mm, or degrees with unit */
export function sizeRow(before: LabelRow, amount: number, unit: '' | '°', sized: Sized): Result<LabelRow> {
  const row: LabelPart[] = [...before, `${formatAmount(amount, unit ? 2 : 3)}${unit}`];
  const { tolerance } = sized;
  if (tolerance) {
    const behind = toleranceKind(tolerance.kind).row(tolerance, amount, unit);
    if (!behind.ok) return behind;
    row.push(...behind.value);
  }
  return ok(sized.extra ? ['(', ...row, ')'] : row);
}

/** A row in plain words, for lists. */
export const rowWords = (row: LabelRow): string =>
  row
    .map((part) => {
      if (typeof part === 'string') return part;
      if ('sign' in part) return SIGN_WORDS[part.sign] ?? '';
      if ('upper' in part) return ` ${part.upper}/${part.lower}`;
      return part.cells.map(rowWords).join(' | ');
    })
    .join('');
const SIGN_WORDS: Readonly<Record<string, string>> = {
  diameter: '⌀',
  depth: 'deep ',
  counterbore: 'counterbore ',
  countersink: 'countersink ',
  straightness: 'straightness',
  flatness: 'flatness',
  roundness: 'roundness',
  cylindricity: 'cylindricity',
  parallelism: 'parallelism',
  squareness: 'squareness',
  angularity: 'angularity',
  position: 'position',
  coaxiality: 'coaxiality',
  symmetry: 'symmetry',
  runout: 'runout',
};
