export * from './vector.ts';
export * from './matrix.ts';
export * from './random.ts';
export * from './dual.ts';
