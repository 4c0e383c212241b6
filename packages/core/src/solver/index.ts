export * from './problem.ts';
export { minimalConflict } from './conflict.ts';
export { solve, Solver, type Solution } from './solve.ts';
export { freedoms, type Freedoms, type FreeGroup } from './freedoms.ts';
