import { decompose, type Component, type Subproblem } from './decomposition.ts';
import { SubproblemEvaluator } from './evaluator.ts';
import { minimise, type Minimum, type Solvable } from './levenberg.ts';
import { linearStep } from './linear-step.ts';
import { checkedOptions, sizeOf, type SolverOptions, type SolverSummary, type Termination } from './options.ts';
import type { Problem } from './problem.ts';
import { expand, reduce, startOf, type Loop, type Reduction } from './reduction.ts';
import { System } from './system.ts';

export interface Solution {
  /** The unknowns at the end; at best effort where not `fulfilled`. */
  readonly x: Float64Array;
  /** The reduced unknowns, for rank analysis. */
  readonly y: Float64Array;
  readonly system: System;
  readonly components: readonly Component[];
  /** All residuals within the tolerance and no loop of substitutions open: a separate verdict, not "stopped improving". */
  readonly fulfilled: boolean;
  /** Largest residual or open loop, mm. */
  readonly residual: number;
  readonly loops: readonly Loop[];
  /** Owners of the rows in subproblems that could not be fulfilled. */
  readonly suspects: readonly string[];
  readonly summary: SolverSummary;
  readonly options: SolverOptions;
}

/**
 * Solves from `problem.initial`: eliminates linear substitutions, splits into components and these into blocks in order
 * (union-find, Dulmage-Mendelsohn), each solved by Levenberg-Marquardt, small ones densely.
 */
export const solve = (problem: Problem, options: Partial<SolverOptions> = {}): Solution =>
  new Solver(problem, options).solve();

/** A problem analysed once, to be solved from several places: under the hand each frame starts where the last one ended. */
export class Solver {
  private readonly reduction: Reduction;
  private readonly system: System;
  private readonly components: readonly Component[];
  private readonly ready = new Map<Subproblem, Solvable>();
  private readonly options: SolverOptions;

  constructor(
    private readonly problem: Problem,
    options: Partial<SolverOptions> = {},
  ) {
    this.options = checkedOptions(options);
    this.reduction = reduce(problem);
    this.system = new System(problem, this.reduction);
    this.components = decompose(this.system.rows, this.system.columns);
  }

  solve(initial: Float64Array = this.problem.initial, weights = this.problem.weights): Solution {
    const { system, components, options } = this;
    const size_mm = sizeOf(this.problem.size_mm ?? 0, initial);
    const tolerance_mm = size_mm * options.accuracy;
    const reduction = { ...this.reduction, ...startOf(this.reduction, initial, weights) };
    const y = Float64Array.from(reduction.start);
    const suspects = new Set<string>();
    const minima: Minimum[] = [];
    const solved: Minimise = (subproblem) => {
      const minimum = minimise(this.readied(subproblem), y, reduction.weight, tolerance_mm, options);
      minima.push(minimum);
      return minimum;
    };
    let fallbacks = 0;
    let worst: Termination = 'fulfilled';
    for (const component of components) {
      if (options.strategy === 'in-order') {
        if (isSolvedInOrder(component, solved)) continue;
        // blocks that are singular at this place need each other after all: all rows and columns together
        for (const column of component.all.columns) y[column] = reduction.start[column]!;
        fallbacks++;
      }
      const { termination } = solved(component.all);
      if (termination === 'fulfilled') continue;
      worst = worse(worst, termination);
      const blamed = component.over.rows.length > 0 ? component.over.rows : component.all.rows;
      for (const row of blamed) suspects.add(system.owner(system.rows[row]!));
    }
    const open = reduction.loops.filter((loop) => loop.gap > tolerance_mm);
    for (const loop of open) loop.owners.forEach((owner) => suspects.add(owner));
    if (open.length > 0) worst = worse(worst, 'stalled');
    const gap = open.reduce((largest, loop) => Math.max(largest, loop.gap), 0);
    const residual = Math.max(gap, system.largestResidual(y));
    return {
      x: expand(reduction, y),
      y,
      system,
      components,
      fulfilled: residual <= tolerance_mm && y.every(Number.isFinite),
      residual,
      loops: reduction.loops,
      suspects: [...suspects],
      options,
      summary: {
        size_mm,
        tolerance_mm,
        termination: worst,
        iterations: minima.reduce((sum, { iterations }) => sum + iterations, 0),
        // evaluated only when somebody asks
        get initialCost() {
          return system.cost(reduction.start);
        },
        get finalCost() {
          return system.cost(y);
        },
        subproblems: minima.length,
        fallbacks,
      },
    };
  }

  /** What the problem comes to at a place, and how that changes from there, by its unknowns where none are substituted. */
  linearised(at: Float64Array): { readonly residuals: readonly number[]; readonly rows: readonly Float64Array[] } {
    return this.system.linearised(startOf(this.reduction, at, this.problem.weights).start);
  }

  private readied(subproblem: Subproblem): Solvable {
    let ready = this.ready.get(subproblem);
    if (!ready) this.ready.set(subproblem, (ready = solvable(this.system, subproblem, this.options)));
    return ready;
  }
}

type Minimise = (subproblem: Subproblem) => Minimum;

const isSolvedInOrder = ({ over, blocks, under }: Component, solved: Minimise): boolean =>
  [over, ...blocks, under].every(
    (subproblem) => subproblem.rows.length === 0 || solved(subproblem).termination === 'fulfilled',
  );

/** From the best to the worst. */
const ORDER: readonly Termination[] = ['fulfilled', 'stalled', 'limit', 'not-finite'];
const worse = (a: Termination, b: Termination): Termination => (ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b);

/** A subproblem made ready for the iteration. */
export function solvable(system: System, subproblem: Subproblem, { sparseFrom }: SolverOptions): Solvable {
  const evaluator = new SubproblemEvaluator(system, subproblem);
  return { evaluator, step: linearStep(evaluator, sparseFrom) };
}
