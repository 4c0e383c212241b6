import type { LinearStep } from './linear-step.ts';
import type { PieceEvaluator } from './piece-evaluator.ts';
import { FULFILLED } from './problem.ts';

const MOST_STEPS = 60;

/**
 * Levenberg-Marquardt (Moré 1978, with the damping rule of Nielsen 1999 simplified to factors) on one piece; moves y in
 * place. With at least as many columns as rows each step is the one of least weighted movement,
 * W^-1 J^T (J W^-1 J^T + mu I)^-1 r: what is left free stays where it is.
 * Returns the largest residual (mm) at the end.
 */
export function minimise({ evaluator, step }: Solvable, y: Float64Array, weight: Float64Array): number {
  const { columns } = evaluator.piece;
  let cost = evaluator.evaluate(y);
  if (columns.length === 0 || evaluator.largest <= FULFILLED * 1e-3) return evaluator.largest;
  const inverse = Float64Array.from(columns, (column) => 1 / weight[column]!);
  const before = new Float64Array(columns.length);
  let damping = 1e-8;
  for (let k = 0; k < MOST_STEPS; k++) {
    const move = step(inverse, damping);
    columns.forEach((column, c) => {
      before[c] = y[column]!;
      if (move) y[column]! += move[c]!;
    });
    const next = move ? evaluator.evaluate(y) : Infinity;
    if (next < cost) {
      cost = next;
      damping = Math.max(damping / 10, 1e-13);
      if (evaluator.largest <= FULFILLED * 1e-3) break;
      continue;
    }
    columns.forEach((column, c) => (y[column] = before[c]!));
    cost = evaluator.evaluate(y);
    // at the level of rounding no step improves any more
    if (evaluator.largest <= FULFILLED / 10 || damping > 1e8) break;
    damping *= 10;
  }
  return evaluator.largest;
}

/** A piece ready to be solved. */
export interface Solvable {
  readonly evaluator: PieceEvaluator;
  readonly step: LinearStep;
}
