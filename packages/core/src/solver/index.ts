export * from './problem.ts';
export { solve, Solver, type Solution } from './solve.ts';
export { freedoms, type Freedoms } from './freedoms.ts';
export type { Loop } from './reduction.ts';
