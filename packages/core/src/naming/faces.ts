import type { Id } from '../records/index.ts';

/** The lasting name of a face: the step that made it, the role that it plays there, and what it comes from. */
export type FaceName = string & { readonly brand?: 'face' };

/** What a name consists of: the step first, as a piece or a copy may have more before the role. */
const SEPARATOR = '/';
/** Between what several faces are called that went into one. */
const SEVERAL = ',';

/** A face by its origin: "s1/end", "s1/side/l4". */
export const faceName = (step: string, role: string | number, from?: string | number): FaceName =>
  [step, role, ...(from === undefined ? [] : [from])].join(SEPARATOR);

/** A face of a copy: of the step that copies, which of its copies, and what it is a copy of. */
export const copyName = (step: string, instance: string, of: FaceName): FaceName =>
  [step, instance, of].join(SEPARATOR);

/** A piece of a face that was split, told by faces that meet it and not its siblings. */
export const pieceBeside = (of: FaceName, neighbours: readonly FaceName[]): FaceName =>
  `${of}@${[...neighbours].sort().join('&')}`;

/** A piece of a face that was split, numbered from 1 by place. */
export const pieceNumber = (of: FaceName, number: number): FaceName => `${of}#${number}`;

/** The face that a piece is one of. */
export const unsplit = (name: FaceName): FaceName => name.replace(/[@#].*$/, '');

/** The step that the name of a face or a body begins with. */
export const stepOfFace = (name: FaceName): Id => name.split(/[/#]/)[0]!;

/**
 * The part that a face plays in the step that its name begins with: "side", "end". A copy ("p/2/e/side/a") plays that of
 * what it is a copy of, so that a rule on copies finds all of them.
 */
export function roleOfFace(name: FaceName): string {
  const parts = unsplit(name).split(SEPARATOR);
  const own = parts.slice(parts.length > 3 ? 2 * Math.floor((parts.length - 2) / 2) : 0);
  return own[1] ?? '';
}

/** The part that it plays in the step itself that its name begins with: of a copy, which copy it is. */
export const ownRoleOf = (name: FaceName): string => unsplit(name).split(SEPARATOR)[1] ?? '';

/** Was it made by this step, or by this one of its solids ("s1/2"), and, where that is asked, in this role? */
export function isFaceOf(name: FaceName, step: string, role?: string): boolean {
  if (!name.startsWith(step + SEPARATOR)) return false;
  return role === undefined || unsplit(name.slice(step.length + 1)).split(SEPARATOR)[0] === role;
}

/** Is it a side of something, whatever step or copy that is of? */
export const isSide = (name: FaceName): boolean => name.includes(`${SEPARATOR}side${SEPARATOR}`);

/** The step and the entities (several where lines in a row gave one face) that a side is of, whichever copy it is in. */
export function sideOf(name: FaceName): { readonly step: Id; readonly entities: readonly string[] } | undefined {
  const [step, role, from] = unsplit(name).split(SEPARATOR).slice(-3);
  return role === 'side' && step !== undefined && from !== undefined
    ? { step, entities: from.split(SEVERAL) }
    : undefined;
}

/** Is it a side of one of the numbered solids of a step, or of a copy of one? */
export function isSideOfSolids(name: FaceName, step: string, entity: string): boolean {
  const parts = unsplit(name).split(SEPARATOR);
  return parts.at(-4) === step && /^\d+$/.test(parts.at(-3)!) && parts.at(-2) === 'side' && parts.at(-1) === entity;
}

/** The step that a face comes from first, whichever copy it is of; empty where only a role is told. */
export const originOfFace = (name: FaceName): string => unsplit(name).split(SEPARATOR).at(-3) ?? '';

/** One of several solids that a step makes: what their faces are named after. */
export const solidOf = (step: string, number: number): string => [step, number].join(SEPARATOR);

/** The solid of a step that a face belongs to: the step and which of its copies. */
export const instanceOfFace = (name: FaceName): string => name.split(SEPARATOR).slice(0, 2).join(SEPARATOR);

/** What tells the pieces of a split apart left out, and the areas of one sketch. */
export const kinOfFace = (name: FaceName): FaceName => unsplit(name).replace(/\/(start|end)\/.*$/, '/$1');

/** Is a face called by one of the names that another carries, and by the same else? */
export function isOneOf(face: FaceName, other: FaceName): boolean {
  const [wanted, parts] = [face, other].map((name) => name.split(/([/@#|&])/)) as [string[], string[]];
  return (
    wanted.length === parts.length &&
    wanted.every((part, k) => part === parts[k] || parts[k]!.split(SEVERAL).includes(part))
  );
}

/** Does a name stand for several that went into one? */
export const isSeveral = (name: string): boolean => name.includes(SEVERAL);
