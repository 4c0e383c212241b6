import { transformDirection, transformPoint, type Vec3 } from '../../math/index.ts';
import type { SurfaceKind } from './kind.ts';

export interface Plane {
  readonly form: 'plane';
  readonly origin: Vec3;
  readonly normal: Vec3;
}

export const plane: SurfaceKind<Plane> = {
  look: 'plane',
  words: () => 'flat',
  transform: (surface, by) => ({
    ...surface,
    origin: transformPoint(by, surface.origin),
    normal: transformDirection(by, surface.normal),
  }),
  along: ({ normal }) => normal,
};
