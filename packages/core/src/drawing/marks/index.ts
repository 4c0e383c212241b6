import { z } from 'zod';
import type { Reference } from '../../references/index.ts';
import { fail, type Result } from '../../result/index.ts';
import { angle, angleSchema } from './angle/index.ts';
import { chamferMark, chamferSchema } from './chamfer/index.ts';
import { datum, datumSchema } from './datum/index.ts';
import { diameter, diameterSchema } from './diameter/index.ts';
import { distance, distanceSchema } from './distance/index.ts';
import { geometric, geometricSchema } from './geometric/index.ts';
import { holeMark, holeSchema } from './hole/index.ts';
import { circleOf, circleOfSchema } from './circle-of/index.ts';
import type { Held, MarkContext, MarkKind, ReadMark } from './kind.ts';
import { note, noteSchema } from './note/index.ts';
import { radius, radiusSchema } from './radius/index.ts';
import { surface, surfaceSchema } from './surface/index.ts';

export { MARK_LIMITS, toleranceSchema, type Tolerance } from './fields.ts';
export { CHARACTERISTICS } from './geometric/index.ts';
export { markWords } from './words.ts';
export type { Held, MarkContext, MarkInk, ReadMark } from './kind.ts';

/** The register: a new kind of mark is a folder beside these and a line here. */
const KINDS = {
  distance,
  diameter,
  radius,
  angle,
  chamfer: chamferMark,
  hole: holeMark,
  'circle-of': circleOf,
  note,
  surface,
  datum,
  geometric,
};

export const markSchema = z.discriminatedUnion('kind', [
  distanceSchema,
  diameterSchema,
  radiusSchema,
  angleSchema,
  chamferSchema,
  holeSchema,
  circleOfSchema,
  noteSchema,
  surfaceSchema,
  datumSchema,
  geometricSchema,
]);
/** What is written into views: dimensions, callouts, notes and signs. */
export type Mark = z.infer<typeof markSchema>;

const kindOf = (mark: Mark): MarkKind<Mark> => KINDS[mark.kind];

/** Marks that tell a size. */
export type SizeMark = Extract<Mark, { extra?: boolean | undefined }>;
/** Does it tell a size? */
export const isSize = (mark: Mark): mark is SizeMark => kindOf(mark).sized === true;

/** What its kind is called. */
export const markTitle = (mark: Mark): string => kindOf(mark).title;
/** The things that it is attached to. */
export const markReferences = ({ of }: Mark): readonly Reference[] => of;
/** The same mark on other things. */
export const markOn = (mark: Mark, references: readonly Reference[]): Mark => ({ ...mark, of: [...references] });
/** What a mark comes to; fails where it makes no sense, and for sizes in views that do not show them as they are. */
export function readMark(mark: Mark, held: readonly Held[], context: MarkContext): Result<ReadMark> {
  const read = kindOf(mark).read(mark, held, context);
  if (!read.ok || read.value.tells.length === 0) return read;
  const places = new Set(mark.of.map((reference) => (reference.to === 'other' ? reference.at : '')));
  if (context.apart > 0 && places.size > 1) return fail('mark.apart');
  return context.isSlanted ? fail('mark.slanted') : read;
}
