import { choleskyInPlace, choleskySolve, type Problem } from '@helb/core';

/**
 * The floor of the sketch benches: a plain dense Levenberg-Marquardt loop over all unknowns and all residuals of the same
 * problem, the linear relations among them; no elimination, no decomposition, no rank.
 * @returns the largest residual at the end, mm
 */
export function denseSolve({ initial, blocks, substitutions }: Problem): number {
  const n = initial.length;
  const x = Float64Array.from(initial);
  let damping = 1e-6;
  let cost = linearised();
  for (let step = 0; step < 50 && cost.largest > 1e-9; step++) {
    const normal = Float64Array.from(cost.normal);
    for (let k = 0; k < n; k++) normal[k * n + k]! += damping;
    const move = Float64Array.from(cost.gradient, (g) => -g);
    const before = Float64Array.from(x);
    if (choleskyInPlace(normal, n)) {
      choleskySolve(normal, n, move);
      for (let k = 0; k < n; k++) x[k]! += move[k]!;
    }
    const next = linearised();
    if (next.sum < cost.sum) {
      cost = next;
      damping = Math.max(damping / 10, 1e-12);
    } else {
      x.set(before);
      damping *= 10;
    }
  }
  return cost.largest;

  function linearised() {
    const normal = new Float64Array(n * n);
    const gradient = new Float64Array(n);
    let [sum, largest] = [0, 0];
    const row = (unknowns: readonly number[], residual: number, derivatives: ArrayLike<number>, from: number) => {
      sum += residual * residual;
      largest = Math.max(largest, Math.abs(residual));
      for (let a = 0; a < unknowns.length; a++) {
        gradient[unknowns[a]!]! += derivatives[from + a]! * residual;
        for (let b = 0; b < unknowns.length; b++)
          normal[unknowns[a]! * n + unknowns[b]!]! += derivatives[from + a]! * derivatives[from + b]!;
      }
    };
    for (const { unknowns, residuals, evaluate } of blocks) {
      const r = new Float64Array(residuals);
      const j = new Float64Array(residuals * unknowns.length);
      evaluate(
        Float64Array.from(unknowns, (at) => x[at]!),
        r,
        j,
      );
      for (let k = 0; k < residuals; k++) row(unknowns, r[k]!, j, k * unknowns.length);
    }
    for (const { a, b, offset } of substitutions)
      if (b < 0) row([a], x[a]! - offset, [1], 0);
      else row([a, b], x[a]! - x[b]! - offset, [1, -1], 0);
    return { normal, gradient, sum, largest };
  }
}
