export { arcBetween, fullCircle, type Arc } from './arc.ts';
export { fromQuadratic, type Bezier } from './bezier.ts';
export { carrierOf, ellipseBetween, fullEllipse, onEllipse } from './ellipse.ts';
export { boxAround, boxesOverlap, inTurn, TURN, type Box } from './form.ts';
export { intersections, parameterAt } from './intersections.ts';
export type { Segment } from './segment.ts';
export {
  along,
  areaShare,
  boxOf,
  crossings,
  derivatives,
  leaving,
  lengthOf,
  nearestOn,
  nearestParameter,
  polyline,
  reversed,
  scaled,
  stretch,
  type Piece,
} from './piece.ts';
