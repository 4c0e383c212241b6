import {
  add2,
  direction2,
  distance2,
  dot2,
  isBuiltIn,
  left2,
  scale2,
  sub2,
  type Geometry,
  type Id,
  type Vec2,
} from '@helb/core';
import { footOn, type Snap } from './snapping.ts';

// A line that is drawn from or to the rim of something round is guessed to touch it.

/** A line whose ends lie where it touches what is round. */
interface TouchingLine {
  readonly from: Snap;
  readonly to: Snap;
  /** What it touches. */
  readonly touches: readonly Id[];
}

/** So far from where it was clicked a line may touch a rim: in reaches of the pointer, and as an angle about the centre. */
const FAR = 4;
const WIDE = 0.6;

/** The rim that a place was taken from, which a line there would touch: perhaps where an axis crosses it. */
function rimAt(geometry: Geometry, { on, also, place }: Snap) {
  const curves = [on, also].filter((id) => id !== undefined);
  const id = curves.find((curve) => geometry.roleOf(curve) === 'circle');
  if (id === undefined || curves.some((curve) => curve !== id && !isBuiltIn(curve))) return undefined;
  return { id, clicked: place, isCrossed: also !== undefined, ...geometry.circle(id) };
}
type Rim = NonNullable<ReturnType<typeof rimAt>>;

/** The rims at both ends. Where an axis crosses one that place is meant, unless the line goes on to another rim. */
function rimsAt(geometry: Geometry, ends: readonly [Snap, Snap]): readonly [Rim | undefined, Rim | undefined] {
  const [a, b] = [rimAt(geometry, ends[0]), rimAt(geometry, ends[1])];
  if (a && b && a.id !== b.id) return [a, b];
  return [a?.isCrossed ? undefined : a, b?.isCrossed ? undefined : b];
}

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
  const rims = rimsAt(geometry, [from, to]);
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
  return (
    best && {
      ...{ from: touchingEnd(from, rims[0], best[0]), to: touchingEnd(to, rims[1], best[1]) },
      touches: rims.flatMap((rim) => rim?.id ?? []),
    }
  );
}

/** Where it touches tells where on the rim it ends: nothing else has to. */
function touchingEnd(snap: Snap, rim: Rim | undefined, place: Vec2): Snap {
  if (!rim) return snap;
  const { level: _, aligned: __, also: ___, ...there } = snap;
  return { ...there, on: rim.id, place };
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
