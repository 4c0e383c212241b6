import { distance2, type Vec2 } from '../math/index.ts';
import { along, boxOf, fullCircle, meetings, stretch, type Piece } from '../sketch/pieces/index.ts';

/** Shorter stretches, as shares of a piece, are left out; nearer than this, mm, pieces meet. */
const [SHORT, NEAR] = [1e-6, 1e-6];

/** What of pieces lies within a circle. */
export function clipped(pieces: readonly Piece[], centre: Vec2, radius: number): Piece[] {
  const rim = fullCircle('', centre, radius);
  const isIn = (place: Vec2) => distance2(place, centre) < radius;
  return pieces.flatMap((piece) => {
    const { low, high } = boxOf(piece);
    const far = [low, high].some((_, k) => Math.max(low[k]! - centre[k]!, centre[k]! - high[k]!) > radius);
    if (far) return [];
    const cuts = meetings(piece, rim, NEAR).map(({ t }) => t);
    const at = [...new Set([0, ...cuts, 1])].sort((a, b) => a - b);
    return at.slice(1).flatMap((to, k) => {
      const from = at[k]!;
      if (to - from < SHORT || !isIn(along(piece, (from + to) / 2))) return [];
      return [from === 0 && to === 1 ? piece : stretch(piece, from, to, along(piece, from), along(piece, to))];
    });
  });
}
