import { distance2, toPlane, type Vec2 } from '../../math/index.ts';
import { middleOf } from '../../references/index.ts';
import { labelOf, leader, leaderPlaces } from './ink.ts';
import type { Held, MarkContext, ReadMark } from './kind.ts';
import type { LabelRow } from '../label.ts';

/** Where on paper a thing can be pointed to. */
export function tipsOf({ thing, spot }: Held, context: MarkContext): Vec2[] {
  if (spot && spot.places.length > 0) return spot.places.map((place) => context.paper(place));
  const middle = middleOf(thing);
  return middle ? [context.paper(toPlane(context.eye, middle))] : [];
}

/** The nearest of places; of equally near ones the first. */
export const nearest = (places: readonly Vec2[], at: Vec2): Vec2 =>
  places.reduce((best, place) => (distance2(place, at) < distance2(best, at) - 1e-9 ? place : best));

/** Text that points to a thing. */
export function pointing(
  held: Held,
  rows: readonly LabelRow[],
  context: MarkContext,
): Pick<ReadMark, 'places' | 'draw'> {
  const label = labelOf(context, ...rows);
  const tips = tipsOf(held, context);
  const { low, high } = context.box;
  const middle: Vec2 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  return {
    places: () => (tips.length > 0 ? tips.flatMap((tip) => leaderPlaces(tip, 0, label, context)) : [middle]),
    draw: (at) => leader(nearest(tips.length > 0 ? tips : [middle], at), at, label, context),
  };
}
