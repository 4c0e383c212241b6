export * from './entities/index.ts';
export * from './relations/index.ts';
export * from './geometry.ts';
export type { Similarity } from './similarity.ts';
export * from './annotation.ts';
export * from './annotation-layout.ts';
export * from './solve-sketch.ts';
export * from './regions/index.ts';
export { halfAxis, isAxisLike, likelyAxis, ON_LINE } from './half-profile.ts';
export { wallsAlong, wallWords, type Wall } from './walls.ts';
export * from './figures/index.ts';
export * from './arcs.ts';
export * from './advice/index.ts';
export * from './editing/index.ts';
export * from './patterns/index.ts';
export { played, type FreeMotion } from './motions.ts';
export {
  along,
  arcBetween,
  areaShare,
  derivatives,
  fullCircle,
  inTurn,
  lengthOf,
  nearestParameter,
  stretch,
  nearestOn,
  polyline,
  reversed,
  type Piece,
  intersections,
} from './pieces/index.ts';
