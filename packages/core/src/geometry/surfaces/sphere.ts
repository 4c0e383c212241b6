import { transformPoint, type Vec3 } from '../../math/index.ts';
import type { SurfaceKind } from './kind.ts';

export interface Sphere {
  readonly form: 'sphere';
  readonly centre: Vec3;
  readonly radius: number;
}

export const sphere: SurfaceKind<Sphere> = {
  look: 'sphere',
  words: ({ radius }, told) => `ball ⌀${told(2 * radius)}`,
  transform: (surface, by) => ({ ...surface, centre: transformPoint(by, surface.centre) }),
  centre: ({ centre }) => centre,
  radius: ({ radius }) => radius,
  toldRadius: ({ radius }) => radius,
};
