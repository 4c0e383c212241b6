export * from './vector.ts';
export * from './frame.ts';
export * from './matrix.ts';
export * from './random.ts';
export * from './dual.ts';
export * from './sparse.ts';
export * from './null-space.ts';
export * from './orthonormal.ts';
