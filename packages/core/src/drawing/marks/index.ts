import type { Reference } from '../../references/index.ts';
import { fail, type Result } from '../../result/index.ts';
import { angle } from './angle/index.ts';
import { chamferMark } from './chamfer/index.ts';
import { datum } from './datum/index.ts';
import { diameter } from './diameter/index.ts';
import { distance } from './distance/index.ts';
import { geometric } from './geometric/index.ts';
import { holeMark } from './hole/index.ts';
import { circleOf } from './circle-of/index.ts';
import type { Held, MarkContext, MarkKind, ReadMark } from './kind.ts';
import { note } from './note/index.ts';
import type { RecordOf } from '../../records/index.ts';
import { markRegister } from './register.ts';
import { radius } from './radius/index.ts';
import { surface } from './surface/index.ts';

export { MARK_LIMITS } from './fields.ts';
export { toleranceKind, toleranceSchema, TOLERANCE_TITLES, type Tolerance } from './tolerances.ts';
export { CHARACTERISTICS } from './geometric/index.ts';
export { markWords } from './words.ts';
export type { Held, MarkContext, MarkInk, Picked, ReadMark } from './kind.ts';

/** The register, in the order in which they are offered: a new kind of mark is a folder beside these and a line here. */
const KINDS = {
  distance,
  angle,
  'circle-of': circleOf,
  diameter,
  radius,
  hole: holeMark,
  chamfer: chamferMark,
  note,
  surface,
  datum,
  geometric,
};

const register = markRegister(KINDS);
export const markSchema = register.schema;
/** What is written into views: dimensions, callouts, notes and signs. */
export type Mark = RecordOf<typeof KINDS>;

const kindOf = (mark: Mark): MarkKind<Mark> => register.kind(mark.kind);

export const MARK_NAMES: readonly Mark['kind'][] = register.names;
/** What can be written at a thing besides sizes, by the kind of mark. */
export const WRITTEN_MARKS = register.written;
/** Marks that might be told of what is picked, in the order in which they are offered. */
export const markTries = register.tries;

/** Marks that tell a size. */
type SizeMark = Extract<Mark, { extra?: boolean | undefined }>;
/** Does it tell a size? */
export const isSize = (mark: Mark): mark is SizeMark => kindOf(mark).sized === true;

/** What its kind is called. */
export const markTitle = (mark: Mark): string => kindOf(mark).title;
/** Which of several of its kind it is, in words; empty for the plain one. */
export const markWay = (mark: Mark): string => kindOf(mark).way?.(mark) ?? '';
/** Is it between its things? */
export const isBetween = (mark: Mark): boolean => kindOf(mark).between === true;
/** How unusual the place is in which it would be told, 0 for where one looks for it. */
export const markCost = (mark: Mark, held: readonly Held[]): number => kindOf(mark).cost?.(mark, held) ?? 0;
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
