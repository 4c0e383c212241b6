import type { Id } from '../records/index.ts';

/** Where a placement stands: its id, after those of the groups that it is in. */
export type PlacementPath = string & { readonly brand?: 'placement' };
/** The same of what stands there, where repeats are numbered from 2. */
type MemberPath = string & { readonly brand?: 'placement' | 'member' };

const WITHIN = '/';
const REPEAT = ':';

/** The ids of a path from the outside in. */
export const idsAlong = (path: MemberPath): Id[] => path.split(WITHIN);

/** The path of something within a group that is placed under a path; without one it stands in the assembly itself. */
export const within = (group: PlacementPath | undefined, path: PlacementPath): PlacementPath =>
  group === undefined ? path : `${group}${WITHIN}${path}`;

/** The placement of the assembly itself that a path begins with. */
export const headOf = (path: MemberPath): Id => idsAlong(path)[0]!;

/** What a path leads to within the placement that it begins with; undefined where it ends there. */
export function tailOf(path: PlacementPath): PlacementPath | undefined {
  const at = path.indexOf(WITHIN);
  return at < 0 ? undefined : path.slice(at + WITHIN.length);
}

/** Is it in a group that is placed? */
export const isNested = (path: MemberPath): boolean => path.includes(WITHIN);

/** Is a member the one at a path, or within what is placed there? */
export const isAtOrWithin = (member: MemberPath, path: PlacementPath): boolean =>
  member === path || member.startsWith(`${path}${WITHIN}`);

/** A member of what is repeated, as the copy of a number (from 2) has it. */
export const repeatOf = (member: MemberPath, repeated: PlacementPath, number: number): MemberPath =>
  `${repeated}${REPEAT}${number}${member.slice(repeated.length)}`;

/** Is it a repeat, or within one? */
export const isRepeat = (member: MemberPath): boolean => member.includes(REPEAT);

/** The path of what is placed without the numbers of repeats. */
export const placementOfMember = (path: MemberPath): PlacementPath => path.replace(/:\d+/g, '');
