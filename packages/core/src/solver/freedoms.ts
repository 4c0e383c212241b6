import { nullSpace, randomFrom, type NullSpace } from '../math/index.ts';
import type { Component, Piece } from './decomposition.ts';
import { minimise } from './levenberg.ts';
import { PieceEvaluator } from './piece-evaluator.ts';
import { FULFILLED } from './problem.ts';
import { solvable, type Solution } from './solve.ts';

export interface Freedoms {
  readonly count: number;
  /** 1 for each unknown of the problem that can still move. */
  readonly loose: Uint8Array;
  /** One direction of motion each, over the unknowns of the problem. */
  readonly motions: readonly Float64Array[];
  /** Rows that say nothing new (they hold already through the others), or fight. */
  readonly dependent: number;
}

const RANK_TOLERANCE = 1e-7;
const WITNESSES = 2;

/**
 * The freedoms left at a fulfilled solution: unknowns less the generic rank of the Jacobian. Where the blocks are as
 * their structure promises, only the under-determined part needs a null space; elsewhere the whole component is looked
 * at, at witnesses near by (Michelucci, Foufou 2006), since the rank lies where the position is special.
 */
export function freedoms(solution: Solution): Freedoms {
  const { system, components, y } = solution;
  const { column } = system.reduction;
  const motions: Float64Array[] = [];
  let dependent = solution.loops.length;
  for (const component of components) {
    const { piece, revealed } = generic(solution, component, y);
    for (const vector of revealed.basis) {
      const reduced = new Map(piece.columns.map((c, k) => [c, vector[k]!]));
      motions.push(Float64Array.from(column, (c) => (c < 0 ? 0 : (reduced.get(c) ?? 0))));
    }
    const columns = component.whole.columns.length;
    dependent += component.whole.rows.length - (columns - revealed.basis.length);
  }
  const loose = Uint8Array.from(column, (_, i) => (motions.some((motion) => Math.abs(motion[i]!) > 1e-6) ? 1 : 0));
  return { count: motions.length, loose, motions, dependent };
}

interface Revealed {
  readonly piece: Piece;
  readonly revealed: NullSpace;
}

function generic(solution: Solution, component: Component, y: Float64Array): Revealed {
  const { over, blocks, under, whole } = component;
  const rank = (piece: Piece, at: Float64Array): NullSpace => {
    const evaluator = new PieceEvaluator(solution.system, piece);
    evaluator.evaluate(at);
    return nullSpace(evaluator.sparseRows(), piece.columns.length, RANK_TOLERANCE);
  };
  const regular = [over, ...blocks].every(
    (piece) => piece.columns.length === 0 || rank(piece, y).rank === piece.columns.length,
  );
  const free = rank(under, y);
  if (regular && free.rank === under.rows.length) return { piece: under, revealed: free };
  let best = rank(whole, y);
  for (let seed = 1; seed <= WITNESSES && best.basis.length > 0; seed++) {
    const witness = nearby(solution, whole, best, seed);
    if (!witness) continue;
    const there = rank(whole, witness);
    if (there.rank > best.rank) best = there;
  }
  return { piece: whole, revealed: best };
}

/** A place a little along the null space where all relations hold again; undefined if it is not found. */
function nearby(solution: Solution, whole: Piece, at: NullSpace, seed: number): Float64Array | undefined {
  const { system, y } = solution;
  const random = randomFrom(seed);
  const moved = Float64Array.from(y);
  const size = Math.max(1e-3, 1e-3 * y.reduce((largest, entry) => Math.max(largest, Math.abs(entry)), 0));
  for (const vector of at.basis) {
    const largest = vector.reduce((most, entry) => Math.max(most, Math.abs(entry)), 1);
    const along = (size * (random() - 0.5)) / largest;
    whole.columns.forEach((column, k) => (moved[column]! += along * vector[k]!));
  }
  return minimise(solvable(system, whole), moved, system.reduction.weight) <= FULFILLED ? moved : undefined;
}
