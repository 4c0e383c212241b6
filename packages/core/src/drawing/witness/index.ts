export { Witness, type WitnessedFace } from './witness.ts';
export { placesOfFace } from './places.ts';
export { Span } from './span.ts';
export { pointOn, spotOf, wayOf, type Spot } from './spots.ts';
export type { MovingSurface } from './surfaces.ts';
