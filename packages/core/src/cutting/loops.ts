import { reversed, areaShare, type Piece } from '../sketch/pieces/index.ts';
import type { Region } from '../sketch/index.ts';

/** A closed run of curves, end to end. */
export type Loop = readonly Piece[];

/** What is to be cut out: openings first, then round the outside; the material always lies to the left. */
export const cutLoops = (regions: readonly Region[]): Loop[] => [
  ...regions.flatMap(({ holes }) => holes.map((hole) => turnedTo(hole, -1))),
  ...regions.map(({ outer }) => turnedTo(outer, 1)),
];

/** Runs counter-clockwise (1) or clockwise (-1). */
function turnedTo(loop: Loop, sign: 1 | -1): Loop {
  const area = loop.reduce((sum, piece) => sum + areaShare(piece), 0);
  return Math.sign(area) === sign ? loop : loop.toReversed().map(reversed);
}
