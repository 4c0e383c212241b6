import { add2, direction2, distance2, dot2, left2, scale2, sub2, type Geometry, type Id, type Vec2 } from '@helb/core';
import { footOn, type Snap } from './snapping.ts';

// A line that is drawn from or to the rim of something round is guessed to touch it.

/** A line whose ends lie where it touches what is round. */
interface TouchingLine {
  readonly from: Vec2;
  readonly to: Vec2;
  /** What it touches. */
  readonly touches: readonly Id[];
}

/** So far from where it was clicked a line may touch a rim: in reaches of the pointer, and as an angle about the centre. */
const FAR = 4;
const WIDE = 0.6;

/** The rim that a place was taken from, which a line there would touch. */
function rimAt(geometry: Geometry, { on, also, place }: Snap) {
  if (on === undefined || also !== undefined || geometry.roleOf(on) !== 'circle') return undefined;
  return { id: on, clicked: place, ...geometry.circle(on) };
}
type Rim = NonNullable<ReturnType<typeof rimAt>>;

/**
 * The line between two places as it touches the rims that these were taken from, near where they were; undefined where
 * none is near. A unit normal n of it, to its left, goes from each touching place to the centre on its left, away from one
 * on its right: (c2 - c1) n = s2 r2 - s1 r1, with r = 0 for an end that stays.
 * @param reach of the pointer, mm
 */
export function touchingLine(
  geometry: Geometry,
  [from, to]: readonly [Snap, Snap],
  reach: number,
): TouchingLine | undefined {
  const rims = [rimAt(geometry, from), rimAt(geometry, to)] as const;
  if (!rims[0] && !rims[1]) return undefined;
  const centres = [rims[0]?.centre ?? from.place, rims[1]?.centre ?? to.place] as const;
  const sides = (rim: Rim | undefined) => (rim ? [rim.radius, -rim.radius] : [0]);
  const lines = sides(rims[0]).flatMap((first) =>
    sides(rims[1]).flatMap((second): readonly (readonly [Vec2, Vec2])[] => {
      const normal = normalOf(sub2(centres[1], centres[0]), second - first);
      if (!normal) return [];
      return [[sub2(centres[0], scale2(normal, first)), sub2(centres[1], scale2(normal, second))]];
    }),
  );
  const meant = lines.filter((ends) => ends.every((end, k) => isMeant(geometry, rims[k as 0 | 1], end, reach)));
  const off = ([p, q]: readonly [Vec2, Vec2]) => distance2(p, from.place) + distance2(q, to.place);
  const [best] = meant.toSorted((a, b) => off(a) - off(b));
  return best && { from: best[0], to: best[1], touches: rims.flatMap((rim) => rim?.id ?? []) };
}

/** The unit vector on the left of `between` that reaches so far along it; undefined where there is none. */
function normalOf(between: Vec2, reach: number): Vec2 | undefined {
  const along = direction2(between);
  if (!along) return undefined;
  const part = reach / dot2(between, along);
  if (Math.abs(part) >= 1) return undefined;
  return add2(scale2(along, part), scale2(left2(along), Math.sqrt(1 - part * part)));
}

/** Does it touch near where the rim was clicked, and where there is a rim? */
function isMeant(geometry: Geometry, rim: Rim | undefined, end: Vec2, reach: number): boolean {
  if (!rim) return true;
  const [a, b] = [direction2(sub2(end, rim.centre)), direction2(sub2(rim.clicked, rim.centre))];
  const isNear = distance2(end, rim.clicked) <= FAR * reach && a && b && dot2(a, b) > Math.cos(WIDE);
  return isNear === true && distance2(footOn(geometry, rim.id, end), end) < SAME_mm;
}
const SAME_mm = 1e-6;
