import { choleskyInPlace, choleskySolve, SparseCholesky } from '../math/index.ts';
import type { SubproblemEvaluator } from './evaluator.ts';

/** Finds the damped step of least movement of a subproblem; undefined where the factorisation breaks down. */
export type LinearStep = (inverse: Float64Array, damping: number) => Float64Array | undefined;

/** The way to find steps that suits the size of a subproblem: dense, or sparse from so many columns on. */
export const linearStep = (evaluator: SubproblemEvaluator, sparseFrom: number): LinearStep =>
  evaluator.columns >= sparseFrom ? sparseStep(evaluator) : denseStep(evaluator);

/**
 * W^-1 J^T (J W^-1 J^T + damping)^-1 r with fewer rows than columns, else (J^T J + damping W)^-1 J^T r: rows that tell
 * things twice may still leave something free, and there too the unwilling move least.
 */
function denseStep(evaluator: SubproblemEvaluator): LinearStep {
  const { rows: m, columns: n } = evaluator;
  const order = Math.min(m, n);
  const jacobian = new Float64Array(m * n);
  const normal = new Float64Array(order * order);
  const fill = () => {
    jacobian.fill(0);
    for (let i = 0; i < m; i++)
      for (let p = evaluator.rowStart[i]!; p < evaluator.rowStart[i + 1]!; p++)
        jacobian[i * n + evaluator.columnOf[p]!]! += evaluator.entries[p]!;
  };
  return (inverse, damping) => {
    fill();
    return m <= n ? leastMovement(inverse, damping) : leastSquares(inverse, damping);
  };

  function leastMovement(inverse: Float64Array, damping: number): Float64Array | undefined {
    for (let a = 0; a < m; a++)
      for (let b = 0; b <= a; b++) {
        let sum = 0;
        for (let k = 0; k < n; k++) sum += jacobian[a * n + k]! * inverse[k]! * jacobian[b * n + k]!;
        normal[a * m + b] = sum;
      }
    if (!damped(m, damping, EVEN)) return undefined;
    const z = Float64Array.from(evaluator.residuals);
    choleskySolve(normal, m, z);
    const move = new Float64Array(n);
    for (let k = 0; k < n; k++) {
      for (let a = 0; a < m; a++) move[k]! -= jacobian[a * n + k]! * z[a]!;
      move[k]! *= inverse[k]!;
    }
    return move;
  }

  function leastSquares(inverse: Float64Array, damping: number): Float64Array | undefined {
    const move = new Float64Array(n);
    for (let a = 0; a < n; a++) {
      for (let b = 0; b <= a; b++) {
        let sum = 0;
        for (let i = 0; i < m; i++) sum += jacobian[i * n + a]! * jacobian[i * n + b]!;
        normal[a * n + b] = sum;
      }
      for (let i = 0; i < m; i++) move[a]! -= jacobian[i * n + a]! * evaluator.residuals[i]!;
    }
    if (!damped(n, Math.max(damping, LEAST_DAMPING), (k) => inverse[k]!)) return undefined;
    choleskySolve(normal, n, move);
    return move;
  }

  /** Adds the damping, relative to the largest diagonal entry, more for what is unwilling, and factors. */
  function damped(size: number, damping: number, inverse: (k: number) => number): boolean {
    let largest = 0;
    for (let a = 0; a < size; a++) largest = Math.max(largest, normal[a * size + a]! * inverse(a));
    for (let a = 0; a < size; a++) normal[a * size + a]! += (damping * (largest || 1)) / inverse(a);
    return choleskyInPlace(normal, size);
  }
}
const EVEN = () => 1;

/** With less damping rounding would move what is left free: the matrix without it is singular there. */
const LEAST_DAMPING = 1e-10;

/**
 * (J^T J + damping W)^-1 J^T r: the same step as the one of least movement, by the identity of Woodbury, but sparse even
 * where one unknown is in most of the rows.
 */
function sparseStep(evaluator: SubproblemEvaluator): LinearStep {
  const { rows: m, columns: n, rowStart, columnOf, entries } = evaluator;
  const pairs: [number, number][] = [];
  for (let i = 0; i < m; i++)
    for (let p = rowStart[i]!; p < rowStart[i + 1]!; p++)
      for (let q = rowStart[i]!; q <= p; q++) pairs.push([columnOf[p]!, columnOf[q]!]);
  const cholesky = new SparseCholesky(n, pairs);
  return (inverse, damping) => {
    const { values, slotOf, diagonal } = cholesky;
    values.fill(0);
    const move = new Float64Array(n);
    let at = 0;
    for (let i = 0; i < m; i++)
      for (let p = rowStart[i]!; p < rowStart[i + 1]!; p++) {
        move[columnOf[p]!]! -= entries[p]! * evaluator.residuals[i]!;
        for (let q = rowStart[i]!; q <= p; q++) values[slotOf[at++]!]! += entries[p]! * entries[q]!;
      }
    let largest = 0;
    for (let k = 0; k < n; k++) largest = Math.max(largest, values[diagonal[k]!]! * inverse[k]!);
    const factor = Math.max(damping, LEAST_DAMPING) * (largest || 1);
    for (let k = 0; k < n; k++) values[diagonal[k]!]! += factor / inverse[k]!;
    if (!cholesky.factor()) return undefined;
    cholesky.solve(move);
    return move;
  };
}
