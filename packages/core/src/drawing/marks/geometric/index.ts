import { z } from 'zod';
import { ok, type Result } from '../../../result/index.ts';
import { formatAmount } from '../../../units/index.ts';
import type { LabelRow } from '../../label.ts';
import { markFields, rowWords, things } from '../fields.ts';
import type { MarkKind, ReadMark } from '../kind.ts';
import { pointing } from '../pointing.ts';

/** Characteristics of geometrical tolerances (ISO 1101). */
export const CHARACTERISTICS = [
  'straightness',
  'flatness',
  'roundness',
  'cylindricity',
  'parallelism',
  'squareness',
  'angularity',
  'position',
  'coaxiality',
  'symmetry',
  'runout',
] as const;

/** A frame that tells within which zone a face, edge or axis has to lie, and relative to what. */
const geometricSchema = z.strictObject({
  kind: z.literal('geometric'),
  ...markFields,
  of: things(1).max(1),
  characteristic: z.enum(CHARACTERISTICS),
  /** Width of the zone, mm; its diameter where it is round. */
  zone: z.number().positive().max(1000),
  round: z.boolean(),
  /** Letters of what it refers to, the first one first. */
  datums: z.array(z.string().regex(/^[A-Z]{1,2}$/)).max(3),
});
type GeometricMark = z.infer<typeof geometricSchema>;

export const geometric: MarkKind<GeometricMark> = {
  schema: geometricSchema,
  title: 'Geometrical tolerance',
  written: {
    words: 'a geometrical tolerance',
    begin: (view, of) => ({
      ...{ kind: 'geometric', view, of, characteristic: 'flatness', zone: 0.1, round: false, datums: [] },
    }),
  },
  read({ characteristic, zone, round, datums }, held, context): Result<ReadMark> {
    const width: LabelRow = [...(round ? [{ sign: 'diameter' } as const] : []), formatAmount(zone)];
    const row: LabelRow = [{ cells: [[{ sign: characteristic }], width, ...datums.map((letter) => [letter])] }];
    return ok({ tells: [], words: rowWords(row), ...pointing(held[0]!, [row], context) });
  },
};
