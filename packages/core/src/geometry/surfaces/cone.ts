import type { SurfaceKind } from './kind.ts';
import { axisOfTurned, transformTurned, type Turned } from './turned.ts';

/** `origin` is its tip, `axis` goes from there into it, `angle` is half of that between its flanks, rad. */
export interface Cone extends Turned {
  readonly form: 'cone';
  readonly angle: number;
}

export const cone: SurfaceKind<Cone> = {
  look: 'cone',
  words: () => 'conical',
  transform: transformTurned,
  along: ({ axis }) => axis,
  axis: axisOfTurned,
};
