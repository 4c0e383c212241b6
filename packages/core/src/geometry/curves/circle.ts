import { frameAcross, scale3, transformDirection, type Vec3 } from '../../math/index.ts';
import type { CurveKind } from './kind.ts';
import { roundKind, transformRound, type Arms, type Round } from './round.ts';

/** Counter-clockwise about `axis`. */
export interface Circle extends Round {
  readonly form: 'circle';
  readonly axis: Vec3;
  readonly radius: number;
}

/** Two radii of a circle at a right angle. */
export function armsOfCircle({ centre, axis, radius }: Circle): Arms {
  const { x, y } = frameAcross(centre, axis);
  return [scale3(x, radius), scale3(y, radius)];
}

export const circle: CurveKind<Circle> = {
  ...roundKind(armsOfCircle),
  look: 'circle',
  words: ({ radius }, _, isClosed, told) => (isClosed ? `rim ⌀${told(2 * radius)}` : `arc R${told(radius)}`),
  transform: (curve, by) => ({ ...curve, ...transformRound(curve, by), axis: transformDirection(by, curve.axis) }),
  hull: ({ from, to, centre }) => [from, to, centre].filter((place) => place !== undefined),
  axis: ({ centre, axis }) => ({ origin: centre, direction: axis }),
  radius: ({ radius }) => radius,
};
