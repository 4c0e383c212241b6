import type { Block } from './problem.ts';

/**
 * How far the Jacobian of a block is from that of finite differences (four points: Fornberg 1988), relative to the largest
 * entry of each row. Where a curve bends away quickly, wide steps leave it and narrow ones do not: the best of them counts,
 * since what is wrong is wrong by all. Only for tests.
 */
export const jacobianError = (block: Block, p: Float64Array): number =>
  Math.min(...[1e-4, 1e-5, 1e-6].map((step) => errorAt(block, p, step)));

function errorAt(block: Block, p: Float64Array, relative: number): number {
  const n = p.length;
  const jacobian = new Float64Array(block.residuals * n);
  block.evaluate(p, new Float64Array(block.residuals), jacobian);
  const residualsAt = (k: number, step: number): Float64Array => {
    const r = new Float64Array(block.residuals);
    block.evaluate(
      p.map((entry, at) => (at === k ? entry + step : entry)),
      r,
      new Float64Array(block.residuals * n),
    );
    return r;
  };
  const differences = Array.from(p, (entry, k) => {
    const h = relative * Math.max(1, Math.abs(entry));
    const [a, b, c, d] = [-2, -1, 1, 2].map((m) => residualsAt(k, m * h)) as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    return c.map((_, i) => (a[i]! - 8 * b[i]! + 8 * c[i]! - d[i]!) / (12 * h));
  });
  let worst = 0;
  for (let i = 0; i < block.residuals; i++) {
    const row = jacobian.subarray(i * n, (i + 1) * n);
    const largest = row.reduce((most, entry) => Math.max(most, Math.abs(entry)), 0);
    row.forEach((entry, k) => (worst = Math.max(worst, Math.abs(entry - differences[k]![i]!) / (largest || 1))));
  }
  return worst;
}
