export * from './copies.ts';
export * from './corners.ts';
export * from './edit.ts';
export * from './offset.ts';
export * from './trim.ts';
