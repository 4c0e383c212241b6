export { MovingFaces, type WitnessedFace } from './moving-faces.ts';
export { Witness } from './witness.ts';
export { placesOfFace } from './places.ts';
export { Span } from './span.ts';
export { pointOn, spotOf, wayOf, type Spot } from './spots.ts';
