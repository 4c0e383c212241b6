import { add2, distance2, scale2, type Dual, type Vec2 } from '../../math/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { rimAnnotation, rimPlaces } from '../../sketch/annotation.ts';
import { inTurn, TURN } from '../../sketch/pieces/index.ts';
import { labelSize, type LabelRow } from '../label.ts';
import { wayOf, type Spot } from '../witness/index.ts';
import { anchors } from './between.ts';
import { gapOf, inked, labelOf, linear } from './ink.ts';
import type { Held, MarkContext, ReadMark } from './kind.ts';

// What diameters and radii share.

/** Things that are round, all alike; the first is the one that the mark points to. */
export function alike(held: readonly Held[]): Result<{ readonly first: Spot; readonly radii: readonly Dual[] }> {
  const radii = held.flatMap(({ spot }) => spot?.radius ?? []);
  const first = held[0]?.spot;
  if (held.some(({ spot }) => !spot)) return fail('mark.leans');
  if (!first || radii.length < held.length) return fail('mark.round');
  const [size] = radii;
  return radii.every(({ value }) => Math.abs(value - size!.value) < 1e-6) ? ok({ first, radii }) : fail('mark.unlike');
}

/** "4× " before what several things have. */
export const timesRow = (count: number): LabelRow => (count > 1 ? [`${count}× `] : []);

/** Smaller circles, mm on paper, have no room for two arrows: one points to them from outside. */
const ROOM = 8;

/** At the rim of a circle that is seen from its end. */
export function atRim(
  spot: Spot,
  row: LabelRow,
  across: boolean,
  context: MarkContext,
): Pick<ReadMark, 'places' | 'draw'> {
  const label = labelOf(context, row);
  const [x, y] = spot.point!;
  const centre = context.paper([x.value, y.value]);
  const radius = spot.radius!.value * context.factor;
  const space = { gap: gapOf(context), width: labelSize(label)[0] };
  const through = across && radius > ROOM / 2;
  const arc = arcOf(spot, centre, context);
  const isWhole = arc[1] - arc[0] > 1.2 * Math.PI;
  if (across && isWhole)
    return {
      places: () => rimPlaces(centre, radius, space),
      draw: (at) => inked(rimAnnotation(centre, radius, at, space, through), label, 0),
    };
  return {
    places: () => arcPlacesOf(arc, centre, radius, space),
    draw: (at) => inked(rimAnnotation(centre, radius, onArc(arc, centre, at), space, false), label, 0),
  };
}

/** A stretch of a circle, by its angles, rad. */
type Arc = readonly [low: number, high: number];

const arcOf = ({ places }: Spot, centre: Vec2, context: MarkContext): Arc =>
  spread(
    places.map((place) => {
      const [x, y] = context.paper(place);
      return Math.atan2(y - centre[1], x - centre[0]);
    }),
  );

/** Places over the middle of an arc and beside that, outside first, then inside. */
function arcPlacesOf(
  [low, high]: Arc,
  centre: Vec2,
  radius: number,
  { gap, width }: { gap: number; width: number },
): Vec2[] {
  const angles = [0.5, 0.3, 0.7, 0.15, 0.85].map((share) => low + share * (high - low));
  return [radius + gap, radius + 2.2 * gap, radius + 3.6 * gap, radius - 1.5 * gap, radius - 2.5 * gap].flatMap((far) =>
    angles.map((angle): Vec2 => {
      const [x, y] = [Math.cos(angle), Math.sin(angle)];
      return [centre[0] + x * far + (Math.sign(x) * width) / 2, centre[1] + y * far];
    }),
  );
}

/** A radius is shown where there is some of the arc: text beside it is moved round to over its nearest place. */
function onArc([low, high]: Arc, centre: Vec2, at: Vec2): Vec2 {
  const far = distance2(at, centre);
  const wanted = Math.atan2(at[1] - centre[1], at[0] - centre[0]);
  if (inTurn(wanted - low) <= high - low + 1e-9) return at;
  const off = (angle: number) => Math.abs(Math.atan2(Math.sin(angle - wanted), Math.cos(angle - wanted)));
  const near = off(low) < off(high) ? low : high;
  return [centre[0] + far * Math.cos(near), centre[1] + far * Math.sin(near)];
}

/** The least stretch of a circle in which all angles lie. */
function spread(angles: readonly number[]): Arc {
  const sorted = angles.map(inTurn).sort((a, b) => a - b);
  let [widest, at] = [-1, 0];
  sorted.forEach((angle, k) => {
    const gap = k === 0 ? angle + TURN - sorted.at(-1)! : angle - sorted[k - 1]!;
    if (gap > widest) [widest, at] = [gap, k];
  });
  const low = sorted[at] ?? 0;
  return [low, low + TURN - widest];
}

/** Across what is round and seen from the side, as on turned parts. */
export function fromSide(spot: Spot, row: LabelRow, context: MarkContext): Pick<ReadMark, 'places' | 'draw' | 'long'> {
  const label = labelOf(context, row);
  const radius = spot.radius!.value;
  const { normal } = spot.line!;
  // of a face the line is its axis, of a rim it lies across the axis
  const isRim = spot.rim === true;
  const way: Vec2 = isRim ? wayOf(spot.line!) : [normal[0].value, normal[1].value];
  const middles = isRim ? [middleOf(spot.places)] : anchors(spot);
  const side = (sign: number) => middles.map((place) => context.paper(add2(place, scale2(way, sign * radius))));
  return { ...linear(side(-1), side(1), way, label, context), long: 2 * radius * context.factor };
}

const middleOf = (places: readonly Vec2[]): Vec2 => {
  const sum = places.reduce(add2, [0, 0]);
  return scale2(sum, 1 / places.length);
};
