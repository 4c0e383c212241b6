import { add3, direction3, footOnLine3, middle3, scale3, sub3, transformPoint, type Vec3 } from '../../math/index.ts';
import type { CurveKind } from './kind.ts';

export interface Line {
  readonly form: 'line';
  readonly from: Vec3;
  readonly to: Vec3;
}

/** The unit vector along which it runs; undefined where it has no length. */
export const alongLine = ({ from, to }: Line): Vec3 | undefined => direction3(sub3(to, from));

export const line: CurveKind<Line> = {
  look: 'line',
  words: (_, length, isClosed, told) => `straight ${told(length)}`,
  transform: ({ from, to }, by) => ({ form: 'line', from: transformPoint(by, from), to: transformPoint(by, to) }),
  runs: ({ from, to }) => [(t) => add3(from, scale3(sub3(to, from), t))],
  chords: 1,
  ends: ({ from, to }) => [from, to],
  hull: ({ from, to }) => [from, to],
  marks: ({ from, to }) => [from, middle3(from, to), to],
  nearest: (curve, place) => {
    const along = alongLine(curve);
    return along && { at: footOnLine3(place, curve.from, along), along };
  },
  axis: (curve) => {
    const direction = alongLine(curve);
    return direction && { origin: curve.from, direction, stretch: [curve.from, curve.to] };
  },
};
