import { distance2, dot2, length2, sub2, type Vec2 } from '../../math/index.ts';
import type { CurveForm, PieceBase } from './form.ts';

/** Gauss-Legendre on 5 points; exact for polynomials up to degree 9. */
const NODES = [
  [0, 128 / 225],
  [Math.sqrt(5 - 2 * Math.sqrt(10 / 7)) / 3, (322 + 13 * Math.sqrt(70)) / 900],
  [Math.sqrt(5 + 2 * Math.sqrt(10 / 7)) / 3, (322 - 13 * Math.sqrt(70)) / 900],
] as const;

/** Length of a curve over t in 0..1 from its derivative, in `parts` intervals. */
export function gaussLength(derivative: (t: number) => Vec2, parts: number): number {
  let sum = 0;
  for (let k = 0; k < parts; k++)
    for (const [node, weight] of NODES)
      for (const side of node === 0 ? [0] : [-node, node])
        sum += (weight * length2(derivative((k + 0.5 + side / 2) / parts))) / (2 * parts);
  return sum;
}

/**
 * The parameter nearest to a place: every sample that is nearer than its neighbours is brought to the foot of the
 * perpendicular, and the best of these feet is taken.
 */
export function polishedNearest<P extends PieceBase>(
  form: CurveForm<P>,
  piece: P,
  place: Vec2,
  samples: number,
): number {
  const far = (t: number) => distance2(form.at(piece, t), place);
  const distances = Array.from({ length: samples + 1 }, (_, k) => far(k / samples));
  let [best, least] = [0, Infinity];
  distances.forEach((here, k) => {
    if (here > (distances[k - 1] ?? Infinity) || here > (distances[k + 1] ?? Infinity)) return;
    const foot = footNear(form, piece, place, k / samples);
    if (far(foot) < least) [best, least] = [foot, far(foot)];
  });
  return best;
}

/** Safeguarded Newton steps on the square of the distance, inside the piece. */
function footNear<P extends PieceBase>(form: CurveForm<P>, piece: P, place: Vec2, from: number): number {
  const far = (t: number) => distance2(form.at(piece, t), place);
  let best = from;
  for (let step = 0; step < 30; step++) {
    const [first, second] = form.derivatives(piece, best);
    const out = sub2(form.at(piece, best), place);
    const slope = dot2(out, first);
    const bend = dot2(first, first) + dot2(out, second);
    const move = bend > 0 ? -slope / bend : -Math.sign(slope) * 0.05;
    let next = Math.min(1, Math.max(0, best + move));
    // at rounding level "not farther" still goes on
    for (let k = 0; k < 12 && far(next) > far(best) + 1e-15; k++) next = (next + best) / 2;
    const done = Math.abs(next - best) < 1e-15;
    best = next;
    if (done) break;
  }
  return best;
}
