import { decompose, type Component } from './decomposition.ts';
import { minimise } from './levenberg.ts';
import { FULFILLED, type Problem } from './problem.ts';
import { expand, reduce, type Loop } from './reduction.ts';
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
 * (methods.md: union-find, Dulmage-Mendelsohn), each solved densely by Levenberg-Marquardt.
 */
export function solve(problem: Problem): Solution {
  const reduction = reduce(problem);
  const system = new System(problem, reduction);
  const components = decompose(system.rows, system.columns);
  const y = Float64Array.from(reduction.start);
  const suspects = new Set<string>();
  for (const component of components) {
    if (solveInOrder(system, component, y, reduction.weight)) continue;
    // blocks that are singular at this place need each other after all: all rows and columns together
    for (const column of component.whole.columns) y[column] = reduction.start[column]!;
    const residual = minimise(system, component.whole, y, reduction.weight);
    if (residual <= FULFILLED) continue;
    const blamed = component.over.rows.length > 0 ? component.over.rows : component.whole.rows;
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

function solveInOrder(system: System, component: Component, y: Float64Array, weight: Float64Array): boolean {
  for (const piece of [component.over, ...component.blocks, component.under]) {
    if (piece.rows.length === 0) continue;
    if (!(minimise(system, piece, y, weight) <= FULFILLED)) return false;
  }
  return true;
}
