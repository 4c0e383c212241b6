export type { Axis } from './axis.ts';
export * from './curves/index.ts';
export * from './surfaces/index.ts';
export { nearestOf } from './nearest.ts';
