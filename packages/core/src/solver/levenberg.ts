import type { LinearStep } from './linear-step.ts';
import type { SubproblemEvaluator } from './evaluator.ts';
import type { SolverOptions, Termination } from './options.ts';

/** How the iteration on one subproblem ended: its largest residual, mm, why, and after how many steps that were tried. */
export interface Minimum {
  readonly residual: number;
  readonly termination: Termination;
  readonly iterations: number;
}

/**
 * Levenberg-Marquardt (Moré 1978, with the damping rule of Nielsen 1999 simplified to factors) on one subproblem; moves y in
 * place. With at least as many columns as rows each step is the one of least weighted movement,
 * W^-1 J^T (J W^-1 J^T + mu I)^-1 r: what is left free stays where it is. y is always the best that was found.
 */
export function minimise(
  { evaluator, step }: Solvable,
  y: Float64Array,
  weight: Float64Array,
  tolerance_mm: number,
  { margin, rounding, maxIterations, damping: { initial, min, max, factor } }: SolverOptions,
): Minimum {
  const { columns } = evaluator.subproblem;
  let cost = evaluator.evaluate(y);
  const ended = (iterations: number, otherwise: Termination): Minimum => {
    const { largest } = evaluator;
    return { residual: largest, termination: largest <= tolerance_mm ? 'fulfilled' : otherwise, iterations };
  };
  if (Number.isNaN(cost)) return ended(0, 'not-finite');
  if (columns.length === 0 || evaluator.largest <= tolerance_mm * margin) return ended(0, 'stalled');
  const inverse = Float64Array.from(columns, (column) => 1 / weight[column]!);
  const before = new Float64Array(columns.length);
  let damping = initial;
  for (let k = 1; k <= maxIterations; k++) {
    const move = step(inverse, damping);
    columns.forEach((column, c) => {
      before[c] = y[column]!;
      if (move) y[column]! += move[c]!;
    });
    const next = move ? evaluator.evaluate(y) : Infinity;
    if (next < cost) {
      cost = next;
      damping = Math.max(damping / factor, min);
      if (evaluator.largest <= tolerance_mm * margin) return ended(k, 'stalled');
      continue;
    }
    columns.forEach((column, c) => (y[column] = before[c]!));
    cost = evaluator.evaluate(y);
    // at the level of rounding no step improves any more
    if (evaluator.largest <= tolerance_mm * rounding || damping > max) return ended(k, 'stalled');
    damping *= factor;
  }
  return ended(maxIterations, 'limit');
}

/** A subproblem ready to be solved. */
export interface Solvable {
  readonly evaluator: SubproblemEvaluator;
  readonly step: LinearStep;
}
