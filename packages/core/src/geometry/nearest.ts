import { direction3, distance3, sub3, type Vec3 } from '../math/index.ts';

/**
 * Where something comes nearest to a place: a coarse search and a golden section one (Kiefer 1953); its direction by a
 * small difference.
 * @param steps of the coarse search: it tells apart what is nearest by turns
 */
export function nearestOf(at: (t: number) => Vec3, place: Vec3, low: number, high: number, steps = 64) {
  const width = (high - low) / steps;
  let best = low;
  for (let k = 1; k <= steps; k++)
    if (distance3(at(low + k * width), place) < distance3(at(best), place)) best = low + k * width;
  let [a, b] = [best - width, best + width];
  for (let k = 0; k < 60; k++) {
    const [p, q] = [b - (b - a) * GOLDEN, a + (b - a) * GOLDEN];
    if (distance3(at(p), place) < distance3(at(q), place)) b = q;
    else a = p;
  }
  const t = Math.min(high, Math.max(low, (a + b) / 2));
  const d = width * 1e-3;
  return { t, at: at(t), along: direction3(sub3(at(t + d), at(t - d))) ?? ([1, 0, 0] as const) };
}
const GOLDEN = (Math.sqrt(5) - 1) / 2;
