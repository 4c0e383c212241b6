import type { Vec2 } from '../math/index.ts';
import type { Box } from '../sketch/pieces/index.ts';

/** A stretch along an axis. */
export type Interval = readonly [from: number, to: number];

/** What is left out of a view along its x and its y, mm of the thing, from below. */
export interface Breaks {
  readonly x: readonly Interval[];
  readonly y: readonly Interval[];
}

/** How a view lies on paper. */
export interface Placing {
  /** How many times as large as the thing. */
  readonly factor: number;
  /** Where the origin of its plane would lie if nothing were left out, mm on paper. */
  readonly at: Vec2;
  /** Nothing is left out where this is absent. */
  readonly breaks?: Breaks;
}

/** Just that of something that has more. */
export const placingOf = ({ factor, at, breaks }: Placing): Placing => ({ factor, at, ...(breaks ? { breaks } : {}) });

/** What is left of a stretch that is left out, mm on paper. */
export const BREAK_GAP = 3;

const AXES = ['x', 'y'] as const;

/** The stretches that are left out along an axis, where they would lie on paper; what is no longer there than the gap stays. */
export const stretchesOn = ({ factor, at, breaks }: Placing, axis: 0 | 1): Interval[] =>
  (breaks?.[AXES[axis]] ?? [])
    .filter(([from, to]) => (to - from) * factor > BREAK_GAP)
    .map(([from, to]) => [from * factor + at[axis], to * factor + at[axis]]);

/** A place along an axis of the paper after what is left out is closed up: the stretch itself becomes the gap. */
export const closedUp = (stretches: readonly Interval[], c: number): number =>
  stretches.reduce((sum, [from, to]) => sum - share(c, from, to) * (to - from - BREAK_GAP), c);

/** And the way back. */
function opened(stretches: readonly Interval[], c: number): number {
  let place = c;
  for (const [from, to] of stretches) place += share(place, from, from + BREAK_GAP) * (to - from - BREAK_GAP);
  return place;
}

/** How much of a stretch lies below a place, from 0 to 1. */
const share = (c: number, from: number, to: number): number => Math.min(Math.max((c - from) / (to - from), 0), 1);

/** Where a place of the thing, in the plane of the view, lies on paper. */
export const onPaper = (placing: Placing, place: Vec2): Vec2 => [along(placing, place, 0), along(placing, place, 1)];
const along = (placing: Placing, place: Vec2, axis: 0 | 1): number =>
  closedUp(stretchesOn(placing, axis), place[axis] * placing.factor + placing.at[axis]);

/** The place of the thing, in the plane of the view, that lies at a place on paper. */
export const onThing = (placing: Placing, place: Vec2): Vec2 => [back(placing, place, 0), back(placing, place, 1)];
const back = (placing: Placing, place: Vec2, axis: 0 | 1): number =>
  (opened(stretchesOn(placing, axis), place[axis]) - placing.at[axis]) / placing.factor;

/** What a box of the thing covers once it is closed up, mm of the thing: without the gaps, which are of the paper. */
export function closedBox({ low, high }: Box, breaks: Breaks | undefined): Box {
  if (!breaks) return { low, high };
  const closed = (place: Vec2): Vec2 =>
    [0, 1].map((k) =>
      breaks[AXES[k]!].reduce((sum, [from, to]) => sum - share(place[k]!, from, to) * (to - from), place[k]!),
    ) as unknown as Vec2;
  return { low: closed(low), high: closed(high) };
}
