/** A value that changes, how fast, and how that changes. */
export interface Changing {
  readonly value: number;
  readonly slope: number;
  readonly curvature: number;
}

/**
 * The smooth curve through places: cubic between each two, slope and curvature going on across them, straight at both ends
 * (natural cubic spline: de Boor 2001, ch. IV).
 * @param places at least two, by rising x
 */
export function naturalSpline(places: readonly (readonly [x: number, y: number])[]): (x: number) => Changing {
  const n = places.length - 1;
  const width = Array.from({ length: n }, (_, k) => places[k + 1]![0] - places[k]![0]);
  const slope = width.map((h, k) => (places[k + 1]![1] - places[k]![1]) / h);
  const curvature = curvatures(width, slope);
  return (x) => {
    const after = places.findIndex(([at]) => at > x);
    const k = Math.min(n - 1, Math.max(0, (after < 0 ? n : after) - 1));
    const h = width[k]!;
    const [p, q] = [curvature[k]!, curvature[k + 1]!];
    const s = Math.min(h, Math.max(0, x - places[k]![0]));
    const rise = slope[k]! - (h * (2 * p + q)) / 6;
    const bend = (q - p) / h;
    return {
      value: places[k]![1] + s * (rise + s * (p / 2 + (s * bend) / 6)),
      slope: rise + s * (p + (s * bend) / 2),
      curvature: p + s * bend,
    };
  };
}

/** Second derivatives at the places, 0 at the ends: a tridiagonal system, solved forwards and back. */
function curvatures(width: readonly number[], slope: readonly number[]): number[] {
  const n = width.length;
  const [factor, right] = [new Array<number>(n + 1).fill(0), new Array<number>(n + 1).fill(0)];
  for (let k = 1; k < n; k++) {
    const [before, after] = [width[k - 1]!, width[k]!];
    const pivot = 2 * (before + after) - before * factor[k - 1]!;
    factor[k] = after / pivot;
    right[k] = (6 * (slope[k]! - slope[k - 1]!) - before * right[k - 1]!) / pivot;
  }
  const found = new Array<number>(n + 1).fill(0);
  for (let k = n - 1; k > 0; k--) found[k] = right[k]! - factor[k]! * found[k + 1]!;
  return found;
}
