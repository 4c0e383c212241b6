import { add3, sub3, transformDirection, type Vec3 } from '../../math/index.ts';
import type { CurveKind } from './kind.ts';
import { roundKind, transformRound, type Arms, type Round } from './round.ts';

/** From `major` to `minor`, which are its half axes. */
export interface Ellipse extends Round {
  readonly form: 'ellipse';
  readonly major: Vec3;
  readonly minor: Vec3;
}

/** The half axes of an ellipse. */
export const armsOfEllipse = ({ major, minor }: Ellipse): Arms => [major, minor];

export const ellipse: CurveKind<Ellipse> = {
  ...roundKind(armsOfEllipse),
  look: 'ellipse',
  words: (_, length, isClosed, told) => `curved ${told(length)}`,
  transform: (curve, by) => ({
    ...curve,
    ...transformRound(curve, by),
    major: transformDirection(by, curve.major),
    minor: transformDirection(by, curve.minor),
  }),
  hull({ from, to, centre, major, minor }) {
    const ends = [from, to].filter((place) => place !== undefined);
    if (ends.length > 0) return [...ends, centre];
    return [major, minor].flatMap((arm) => [add3(centre, arm), sub3(centre, arm)]);
  },
};
