export * from './entities/index.ts';
export * from './relations/index.ts';
export * from './geometry.ts';
export * from './annotation.ts';
export * from './solve-sketch.ts';
export * from './regions/index.ts';
export * from './figures.ts';
export * from './arcs.ts';
export { along, arcBetween, fullCircle, nearestOn, polyline, type Piece } from './pieces.ts';
