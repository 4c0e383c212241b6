import { decompose, type Component, type Subproblem } from './decomposition.ts';
import { minimise, type Solvable } from './levenberg.ts';
import { linearStep } from './linear-step.ts';
import { PieceEvaluator } from './piece-evaluator.ts';
import { FULFILLED, type Problem } from './problem.ts';
import { expand, reduce, startOf, type Loop, type Reduction } from './reduction.ts';
import { System } from './system.ts';

export interface Solution {
  /** The unknowns at the end; at best effort where not `fulfilled`. */
  readonly x: Float64Array;
  /** The reduced unknowns, for rank analysis. */
  readonly y: Float64Array;
  readonly system: System;
  readonly components: readonly Component[];
  /** All residuals within FULFILLED and no loop of substitutions open: a separate verdict, not "stopped improving". */
  readonly fulfilled: boolean;
  /** Largest residual or open loop, mm. */
  readonly residual: number;
  readonly loops: readonly Loop[];
  /** Owners of the rows in pieces that could not be fulfilled. */
  readonly suspects: readonly string[];
}

/**
 * Solves from `problem.initial`: eliminates linear substitutions, splits into components and these into blocks in order
 * (methods.md: union-find, Dulmage-Mendelsohn), each solved by Levenberg-Marquardt, small ones densely.
 */
export const solve = (problem: Problem): Solution => new Solver(problem).solve();

/** A problem analysed once, to be solved from several places: under the hand each frame starts where the last one ended. */
export class Solver {
  private readonly reduction: Reduction;
  private readonly system: System;
  private readonly components: readonly Component[];
  private readonly ready = new Map<Subproblem, Solvable>();

  constructor(private readonly problem: Problem) {
    this.reduction = reduce(problem);
    this.system = new System(problem, this.reduction);
    this.components = decompose(this.system.rows, this.system.columns);
  }

  solve(initial: Float64Array = this.problem.initial, weights = this.problem.weights): Solution {
    const { system, components } = this;
    const reduction = { ...this.reduction, ...startOf(this.reduction, initial, weights) };
    const y = Float64Array.from(reduction.start);
    const suspects = new Set<string>();
    for (const component of components) {
      if (!this.problem.together && this.solveInOrder(component, y, reduction.weight)) continue;
      // blocks that are singular at this place need each other after all: all rows and columns together
      for (const column of component.all.columns) y[column] = reduction.start[column]!;
      if (this.minimise(component.all, y, reduction.weight) <= FULFILLED) continue;
      const blamed = component.over.rows.length > 0 ? component.over.rows : component.all.rows;
      for (const row of blamed) suspects.add(system.owner(system.rows[row]!));
    }
    const open = reduction.loops.filter((loop) => loop.gap > FULFILLED);
    for (const loop of open) loop.owners.forEach((owner) => suspects.add(owner));
    const gap = open.reduce((largest, loop) => Math.max(largest, loop.gap), 0);
    const residual = Math.max(gap, system.largestResidual(y));
    return {
      x: expand(reduction, y),
      y,
      system,
      components,
      fulfilled: residual <= FULFILLED && y.every(Number.isFinite),
      residual,
      loops: reduction.loops,
      suspects: [...suspects],
    };
  }

  private solveInOrder(component: Component, y: Float64Array, weight: Float64Array): boolean {
    for (const piece of [component.over, ...component.blocks, component.under]) {
      if (piece.rows.length === 0) continue;
      if (!(this.minimise(piece, y, weight) <= FULFILLED)) return false;
    }
    return true;
  }

  private minimise(piece: Subproblem, y: Float64Array, weight: Float64Array): number {
    let ready = this.ready.get(piece);
    if (!ready) this.ready.set(piece, (ready = solvable(this.system, piece)));
    return minimise(ready, y, weight);
  }
}

/** A piece made ready for the iteration. */
export function solvable(system: System, piece: Subproblem): Solvable {
  const evaluator = new PieceEvaluator(system, piece);
  return { evaluator, step: linearStep(evaluator) };
}
