import { add2, cross2, direction2, distance2, type Vec2 } from '../math/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import {
  along,
  arcBetween,
  derivatives,
  intersections,
  nearestOn,
  stretch,
  type Piece,
} from '../sketch/pieces/index.ts';
import type { Loop } from './loops.ts';

/** Nearer than this, mm, places are one. */
const SAME = 1e-7;

/**
 * The way of the middle of a cut so that its edge follows a loop of lines and arcs: to the right of it, since the material
 * lies to the left. Round outer corners it goes in an arc.
 * @param off half the width of the cut, mm. Fails with cut.narrow where the cut does not fit in.
 */
export function beside(loop: Loop, off: number): Result<Loop> {
  if (off === 0) return ok(loop);
  const shifted: Piece[] = [];
  for (const piece of loop) {
    const moved = shiftedRight(piece, off);
    if (!moved) return fail('cut.narrow', { width: 2 * off });
    shifted.push(moved);
  }
  const joined = shifted.length === 1 ? shifted : corners(loop, shifted, off);
  return joined && keepsOff(joined, loop, off) ? ok(joined) : fail('cut.narrow', { width: 2 * off });
}

function shiftedRight(piece: Piece, off: number): Piece | undefined {
  const at = (t: number): Vec2 => {
    const [x, y] = direction2(derivatives(piece, t)[0]) ?? [1, 0];
    return add2(along(piece, t), [off * y, -off * x]);
  };
  if (piece.form === 'segment') return { ...piece, from: at(0), to: at(1) };
  if (piece.form !== 'arc') return undefined;
  // to the right of what turns left is outside
  const radius = piece.radius + (piece.sweep > 0 ? off : -off);
  return radius > SAME ? { ...piece, radius, from: at(0), to: at(1) } : undefined;
}

/** Brings shifted curves together at their corners: by an arc where they gape, by cutting off where they cross. */
function corners(loop: Loop, shifted: readonly Piece[], off: number): Piece[] | undefined {
  const count = loop.length;
  const cut = shifted.map((): { start: number; end: number } => ({ start: 0, end: 1 }));
  const arcs = new Map<number, Piece>();
  for (let k = 0; k < count; k++) {
    const next = (k + 1) % count;
    const [a, b] = [shifted[k]!, shifted[next]!];
    if (distance2(a.to, b.from) < SAME) continue;
    const turn = cross2(derivatives(loop[k]!, 1)[0], derivatives(loop[next]!, 0)[0]);
    if (turn > 0) {
      arcs.set(k, arcBetween('', loop[k]!.to, off, a.to, b.from));
      continue;
    }
    const offCorner = (t: number) => distance2(along(a, t), loop[k]!.to);
    const [met] = intersections(a, b, SAME).sort((m, n) => offCorner(m.t) - offCorner(n.t));
    if (!met) return undefined;
    cut[k]!.end = met.t;
    cut[next]!.start = met.u;
  }
  const pieces: Piece[] = [];
  for (let k = 0; k < count; k++) {
    const { start, end } = cut[k]!;
    if (end - start < SAME) return undefined;
    const piece = shifted[k]!;
    pieces.push(start === 0 && end === 1 ? piece : stretch(piece, start, end, along(piece, start), along(piece, end)));
    const arc = arcs.get(k);
    if (arc) pieces.push(arc);
  }
  return pieces;
}

/** Is the way nowhere nearer to the loop than it should be? */
const keepsOff = (way: Loop, loop: Loop, off: number): boolean =>
  way.every((piece) =>
    [0.1, 0.3, 0.5, 0.7, 0.9].every((t) => {
      const place = along(piece, t);
      return loop.every((other) => distance2(nearestOn(other, place), place) > off * (1 - 1e-6));
    }),
  );

export const cuttingWords: Words = {
  'cut.narrow': (f, length) =>
    `A cut of ${length(f['width'] as number)} does not fit into every corner or opening here: take a narrower one, or round the corners.`,
  'cut.none': (f) => `"${f['part']}" has no flat face to cut out.`,
};
