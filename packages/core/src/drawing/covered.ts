import { dot2, sub2, type Vec2 } from '../math/index.ts';
import { along, boxesOverlap, boxOf, nearestOn, type Piece } from '../sketch/pieces/index.ts';
import { segment } from './picture.ts';

/** Nearer than this, mm, one line is drawn over another. */
const OVER = 1e-4;

/** What of lines is not drawn over by others: hidden edges behind visible ones are left out (ISO 128-2, 6). */
export function notCovered(pieces: readonly Piece[], over: readonly Piece[]): Piece[] {
  const boxes = over.map(boxOf);
  return pieces.flatMap((piece) => {
    const box = boxOf(piece);
    const near = over.filter((_, k) => boxesOverlap(box, boxes[k]!, OVER));
    if (near.length === 0) return [piece];
    if (piece.form === 'segment') return uncovered(piece.from, piece.to, near);
    const isOver = (place: Vec2) =>
      near.some((other) => {
        const [x, y] = nearestOn(other, place);
        return Math.hypot(x - place[0], y - place[1]) < OVER;
      });
    return [0.06, 0.28, 0.5, 0.72, 0.94].every((t) => isOver(along(piece, t))) ? [] : [piece];
  });
}

/** The stretches of a straight line on which no straight one of others lies. */
function uncovered(from: Vec2, to: Vec2, others: readonly Piece[]): Piece[] {
  const way = sub2(to, from);
  const length = Math.hypot(...way);
  if (length < OVER) return [];
  const share = (place: Vec2) => dot2(sub2(place, from), way) / length ** 2;
  const off = ([x, y]: Vec2) => Math.abs((x - from[0]) * way[1] - (y - from[1]) * way[0]) / length;
  const spans = others
    .filter((other) => other.form === 'segment' && off(other.from) < OVER && off(other.to) < OVER)
    .map((other) => [share(other.from), share(other.to)].sort((a, b) => a - b) as [number, number])
    .sort(([a], [b]) => a - b);
  const left: Piece[] = [];
  let done = 0;
  const at = (t: number): Vec2 => [from[0] + t * way[0], from[1] + t * way[1]];
  const keep = (a: number, b: number) => {
    if ((b - a) * length > OVER) left.push(segment(at(a), at(b)));
  };
  for (const [a, b] of spans) {
    keep(done, Math.min(a, 1));
    done = Math.max(done, b);
    if (done >= 1) break;
  }
  keep(done, 1);
  return left;
}
