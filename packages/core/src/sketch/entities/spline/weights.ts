import { once } from '../../../records/index.ts';

/**
 * An interpolating cubic spline, C2, with given ends (de Boor 1978): for parameters u_0 < ... < u_n of the through points
 * its Bezier points are fixed linear combinations of the through points and the two handles, which are the first and
 * the last inner Bezier point. Rows: for each span its two inner points; columns: start handle, through points, end handle.
 */
export const innerWeights = once((knots: readonly number[]): readonly Float64Array[] => {
  const n = knots.length - 1;
  const width = knots.length + 2;
  const h = Array.from({ length: n }, (_, k) => knots[k + 1]! - knots[k]!);
  const slopes = slopesOf(h, width);
  const rows: Float64Array[] = [];
  for (let k = 0; k < n; k++) {
    const [first, second] = [new Float64Array(width), new Float64Array(width)];
    for (let c = 0; c < width; c++) {
      first[c] = (slopes[k]![c]! * h[k]!) / 3;
      second[c] = (-slopes[k + 1]![c]! * h[k]!) / 3;
    }
    first[k + 1]! += 1;
    second[k + 2]! += 1;
    rows.push(first, second);
  }
  return rows;
});

/** Derivative at each through point as a row of weights: the tridiagonal system, by elimination downwards and back. */
function slopesOf(h: readonly number[], width: number): Float64Array[] {
  const n = h.length;
  const right = Array.from({ length: n + 1 }, () => new Float64Array(width));
  right[0]![0] = 3 / h[0]!;
  right[0]![1] = -3 / h[0]!;
  right[n]![n + 1] = 3 / h[n - 1]!;
  right[n]![n + 2] = -3 / h[n - 1]!;
  const diagonal = new Float64Array(n + 1).fill(1);
  for (let i = 1; i < n; i++) {
    const [before, after] = [h[i - 1]!, h[i]!];
    diagonal[i] = 2 * (before + after);
    right[i]![i] = (-3 * after) / before;
    right[i]![i + 1] = (3 * after) / before - (3 * before) / after;
    right[i]![i + 2] = (3 * before) / after;
  }
  // row i: h_i s_(i-1) + 2 (h_(i-1) + h_i) s_i + h_(i-1) s_(i+1)
  for (let i = 1; i < n; i++) {
    const factor = h[i]! / diagonal[i - 1]!;
    if (i > 1) diagonal[i]! -= factor * h[i - 2]!;
    for (let c = 0; c < width; c++) right[i]![c]! -= factor * right[i - 1]![c]!;
  }
  for (let i = n - 1; i >= 1; i--)
    for (let c = 0; c < width; c++) right[i]![c] = (right[i]![c]! - h[i - 1]! * right[i + 1]![c]!) / diagonal[i]!;
  return right;
}
