import {
  ANGLE,
  AREA,
  curvesOf,
  formatQuantity,
  LENGTH,
  pointOf,
  readingsBetween,
  readingsOf,
  sub3,
  type LengthUnit,
  type Thing,
  type Vec3,
} from '@helb/core';

const DIMENSIONS = { length: LENGTH, angle: ANGLE, area: AREA } as const;

/** A length, an angle or an area as it is read: to a thousandth. */
export const readingText = (amount: number, of: keyof typeof DIMENSIONS, unit: LengthUnit): string =>
  formatQuantity({ amount, dimension: DIMENSIONS[of] }, unit, 3);

/** What can be read off one thing, or between two, in words; of more there is nothing. */
export function readingTexts(things: readonly Thing[], unit: LengthUnit): [title: string, text: string][] {
  const [a, b, ...more] = things;
  const read = !a || more.length > 0 ? [] : b ? readingsBetween(a, b) : readingsOf(a);
  return read.map(({ label, amount, of }) => [label, readingText(amount, of, unit)]);
}

/** Where the only place that is picked lies, or the centre of what is round; in words by `words`. */
export function placeRead(things: readonly Thing[], words: (at: Vec3) => string): [title: string, text: string][] {
  const [thing] = things.length === 1 ? things : [];
  const here = thing && pointOf(thing);
  if (!here) return [];
  return [['face' in thing || curvesOf(thing).length > 0 ? 'centre' : 'place', words(here)]];
}

/** Where the centre of mass lies as seen from the only place that is picked, along the axes; in words by `words`. */
export function centreFromHere(
  things: readonly Thing[],
  centre: Vec3 | null | undefined,
  words: (at: Vec3) => string,
): [title: string, text: string][] {
  const here = things.length === 1 ? pointOf(things[0]!) : undefined;
  return here && centre ? [['centre of mass from here', words(sub3(centre, here))]] : [];
}
