import type { SurfaceKind } from './kind.ts';
import { axisOfTurned, transformTurned, type Turned } from './turned.ts';

/** `hollow` where the material is outside: a bore. */
export interface Cylinder extends Turned {
  readonly form: 'cylinder';
  readonly radius: number;
  readonly hollow: boolean;
}

export const cylinder: SurfaceKind<Cylinder> = {
  look: 'cylinder',
  words: ({ radius, hollow }, told) => `${hollow ? 'bore' : 'round'} ⌀${told(2 * radius)}`,
  transform: transformTurned,
  along: ({ axis }) => axis,
  axis: axisOfTurned,
  radius: ({ radius }) => radius,
  toldRadius: ({ radius }) => radius,
};
