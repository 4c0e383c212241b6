import { isAtOrWithin, placementOfMember } from '../naming/index.ts';
import type { Assembly } from './records.ts';

// Pairs of members, told by the placements that they are, or by the groups that they are in.

const covers = (path: string, member: string): boolean =>
  isAtOrWithin(member, path) || placementOfMember(member) === path;

type IsPair = (a: string, b: string) => boolean;

/** Are two members said to press into each other, by themselves or by the groups that they are in? */
export function pressing({ pressed }: Pick<Assembly, 'pressed'>): IsPair {
  const pairs = Object.values(pressed);
  return (a, b) => pairs.some((pair) => joins(pair, a, b));
}

/** Is anything told to touch? */
export const isTouchTold = ({ contacts = {} }: Pick<Assembly, 'contacts'>): boolean =>
  Object.values(contacts).some(({ on }) => on);

/** Are two members to be kept out of each other while they move? What is meant to press is left alone. */
export function mayTouch(assembly: Pick<Assembly, 'pressed' | 'contacts'>): IsPair {
  const told = Object.values(assembly.contacts ?? {}).filter(({ on }) => on);
  const isPressed = pressing(assembly);
  return (a, b) => told.some((pair) => joins(pair, a, b)) && !isPressed(a, b);
}

/** Is one of two members of the first and the other of the second of a pair? A side that is not told is everything. */
export function joins(
  pair: { readonly a?: string | undefined; readonly b?: string | undefined },
  a: string,
  b: string,
): boolean {
  const isOf = (side: string | undefined, member: string) => side === undefined || covers(side, member);
  return (isOf(pair.a, a) && isOf(pair.b, b)) || (isOf(pair.a, b) && isOf(pair.b, a));
}
