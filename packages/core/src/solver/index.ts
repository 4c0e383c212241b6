export * from './problem.ts';
export { minimalConflict } from './conflict.ts';
export { type SolverOptions, type SolverSummary, type Termination } from './options.ts';
export { solve, Solver, type Solution } from './solve.ts';
export { freedoms, type Freedoms, type FreeGroup } from './freedoms.ts';
export type { Loop } from './reduction.ts';
