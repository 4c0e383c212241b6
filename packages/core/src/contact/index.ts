export { contactShape, type ContactShape } from './shape.ts';
export { ShapePair, type BoxedShape, type ShapeNearest } from './pair.ts';
export type { ShapeGap } from './near.ts';
