import { distance2, type Vec2 } from '../math/index.ts';
import { along, boxOf, fullCircle, intersections, stretch, type Piece } from '../sketch/pieces/index.ts';
import { segment } from './picture.ts';

/** Shorter stretches, as shares of a piece, are left out; nearer than this, mm, pieces meet. */
const [SHORT, NEAR] = [1e-6, 1e-6];

export interface Circle {
  readonly centre: Vec2;
  readonly radius: number;
}

/** What of pieces lies within a circle. */
export function clipped(pieces: readonly Piece[], { centre, radius }: Circle): Piece[] {
  const rim = fullCircle('', centre, radius);
  const isIn = (place: Vec2) => distance2(place, centre) < radius;
  return pieces.flatMap((piece) => {
    const { low, high } = boxOf(piece);
    const far = [low, high].some((_, k) => Math.max(low[k]! - centre[k]!, centre[k]! - high[k]!) > radius);
    return far ? [] : kept(piece, [rim], isIn);
  });
}

/** What of a line that goes from place to place lies within a circle, run by run; of one place that itself. */
export function runsWithin(path: readonly Vec2[], circle: Circle): Vec2[][] {
  const { centre, radius } = circle;
  if (path.length === 1) return distance2(path[0]!, centre) < radius ? [[...path]] : [];
  const steps = path.slice(1).map((to, k) => segment(path[k]!, to));
  const runs: Vec2[][] = [];
  for (const { from, to } of clipped(steps, circle)) {
    const last = runs.at(-1);
    if (last && distance2(last.at(-1)!, from) < NEAR) last.push(to);
    else runs.push([from, to]);
  }
  return runs;
}

/** What of pieces lies between two values of x or y. */
export function between(pieces: readonly Piece[], axis: 0 | 1, from: number, to: number): Piece[] {
  const isIn = (place: Vec2) => place[axis] > from && place[axis] < to;
  return pieces.flatMap((piece) => {
    const { low, high } = boxOf(piece);
    if (high[axis] < from || low[axis] > to) return [];
    if (low[axis] >= from && high[axis] <= to) return [piece];
    const [a, b] = [low[1 - axis]! - 1, high[1 - axis]! + 1];
    const rims = [from, to]
      .filter((at) => at > low[axis] && at < high[axis])
      .map((at) => (axis === 0 ? segment([at, a], [at, b]) : segment([a, at], [b, at])));
    return kept(piece, rims, isIn);
  });
}

/** What of a piece is inside, where it can change between inside and outside only at rims. */
function kept(piece: Piece, rims: readonly Piece[], isIn: (place: Vec2) => boolean): Piece[] {
  const cuts = rims.flatMap((rim) => intersections(piece, rim, NEAR).map(({ t }) => t));
  const at = [...new Set([0, ...cuts, 1])].sort((a, b) => a - b);
  return at.slice(1).flatMap((to, k) => {
    const from = at[k]!;
    if (to - from < SHORT || !isIn(along(piece, (from + to) / 2))) return [];
    return [from === 0 && to === 1 ? piece : stretch(piece, from, to, along(piece, from), along(piece, to))];
  });
}
