import type { SurfaceKind } from './kind.ts';
import { transformTurned, type Turned } from './turned.ts';

/** A ring: of the round section `minor` is the radius; its middle goes round `origin` at the distance `major`. */
export interface Torus extends Turned {
  readonly form: 'torus';
  readonly major: number;
  readonly minor: number;
}

export const torus: SurfaceKind<Torus> = {
  look: 'surface',
  words: ({ minor }, told) => `rounded R${told(minor)}`,
  transform: transformTurned,
  along: ({ axis }) => axis,
  toldRadius: ({ minor }) => minor,
};
