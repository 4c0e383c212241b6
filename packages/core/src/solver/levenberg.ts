import { choleskyInPlace, choleskySolve, matrix, type Matrix } from '../math/index.ts';
import type { Piece } from './decomposition.ts';
import { FULFILLED } from './problem.ts';
import type { Row, System } from './system.ts';

const MOST_STEPS = 60;

/** Residuals and dense Jacobian of one piece of a system, all other columns held. */
export class PieceEvaluator {
  readonly residuals: Float64Array;
  readonly jacobian: Matrix;
  private readonly place: Map<number, number>;
  private readonly rowsOfBlock = new Map<number, { row: Row; at: number }[]>();

  constructor(
    private readonly system: System,
    readonly piece: Piece,
  ) {
    this.residuals = new Float64Array(piece.rows.length);
    this.jacobian = matrix(piece.rows.length, piece.columns.length);
    this.place = new Map(piece.columns.map((column, k) => [column, k]));
    piece.rows.forEach((index, at) => {
      const row = system.rows[index]!;
      const list = this.rowsOfBlock.get(row.block);
      if (list) list.push({ row, at });
      else this.rowsOfBlock.set(row.block, [{ row, at }]);
    });
  }

  /** Fills residuals and Jacobian at y; returns half the sum of squares (mm^2). */
  evaluate(y: Float64Array): number {
    const { data, columns } = this.jacobian;
    data.fill(0);
    let cost = 0;
    for (const [block, rows] of this.rowsOfBlock) {
      const { r, j } = this.system.evaluate(block, y);
      for (const { row, at } of rows) {
        this.residuals[at] = r[row.part]!;
        cost += r[row.part]! ** 2 / 2;
        this.system.eachEntry(row, j, (column, derivative) => {
          const k = this.place.get(column);
          if (k !== undefined) data[at * columns + k]! += derivative;
        });
      }
    }
    return cost;
  }

  get largest(): number {
    return this.residuals.reduce((largest, r) => Math.max(largest, Math.abs(r)), 0);
  }
}

/**
 * Levenberg-Marquardt (Moré 1978, with the damping rule of Nielsen 1999 simplified to factors) on one piece; moves y in
 * place. With at least as many columns as rows each step is the one of least weighted movement,
 * W^-1 J^T (J W^-1 J^T + mu I)^-1 r: what is left free stays where it is.
 * Returns the largest residual (mm) at the end.
 */
export function minimise(system: System, piece: Piece, y: Float64Array, weight: Float64Array): number {
  const evaluator = new PieceEvaluator(system, piece);
  let cost = evaluator.evaluate(y);
  if (piece.columns.length === 0 || evaluator.largest <= FULFILLED * 1e-3) return evaluator.largest;
  const inverse = Float64Array.from(piece.columns, (column) => 1 / weight[column]!);
  let damping = 1e-8;
  for (let step = 0; step < MOST_STEPS; step++) {
    const move = stepOf(evaluator, inverse, damping);
    const before = piece.columns.map((column) => y[column]!);
    if (move) piece.columns.forEach((column, k) => (y[column]! += move[k]!));
    const next = move ? evaluator.evaluate(y) : Infinity;
    if (next < cost) {
      cost = next;
      damping = Math.max(damping / 10, 1e-13);
      if (evaluator.largest <= FULFILLED * 1e-3) break;
      continue;
    }
    piece.columns.forEach((column, k) => (y[column] = before[k]!));
    cost = evaluator.evaluate(y);
    // at the level of rounding no step improves any more
    if (evaluator.largest <= FULFILLED / 10 || damping > 1e8) break;
    damping *= 10;
  }
  return evaluator.largest;
}

/** The damped step, or undefined where the factorisation breaks down. */
function stepOf(evaluator: PieceEvaluator, inverse: Float64Array, damping: number): Float64Array | undefined {
  const { rows: m, columns: n } = evaluator.jacobian;
  return m <= n ? leastMovement(evaluator, inverse, damping) : leastSquares(evaluator, damping);
}

function leastMovement(evaluator: PieceEvaluator, inverse: Float64Array, damping: number): Float64Array | undefined {
  const { rows: m, columns: n, data: j } = evaluator.jacobian;
  const normal = new Float64Array(m * m);
  let largest = 0;
  for (let a = 0; a < m; a++)
    for (let b = 0; b <= a; b++) {
      let sum = 0;
      for (let k = 0; k < n; k++) sum += j[a * n + k]! * inverse[k]! * j[b * n + k]!;
      normal[a * m + b] = sum;
      if (a === b) largest = Math.max(largest, sum);
    }
  for (let a = 0; a < m; a++) normal[a * m + a]! += damping * (largest || 1);
  if (!choleskyInPlace(normal, m)) return undefined;
  const z = Float64Array.from(evaluator.residuals);
  choleskySolve(normal, m, z);
  const move = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    let sum = 0;
    for (let a = 0; a < m; a++) sum += j[a * n + k]! * z[a]!;
    move[k] = -inverse[k]! * sum;
  }
  return move;
}

function leastSquares(evaluator: PieceEvaluator, damping: number): Float64Array | undefined {
  const { rows: m, columns: n, data: j } = evaluator.jacobian;
  const normal = new Float64Array(n * n);
  const move = new Float64Array(n);
  let largest = 0;
  for (let a = 0; a < n; a++) {
    for (let b = 0; b <= a; b++) {
      let sum = 0;
      for (let i = 0; i < m; i++) sum += j[i * n + a]! * j[i * n + b]!;
      normal[a * n + b] = sum;
      if (a === b) largest = Math.max(largest, sum);
    }
    for (let i = 0; i < m; i++) move[a]! -= j[i * n + a]! * evaluator.residuals[i]!;
  }
  for (let a = 0; a < n; a++) normal[a * n + a]! += damping * (largest || 1);
  if (!choleskyInPlace(normal, n)) return undefined;
  choleskySolve(normal, n, move);
  return move;
}
