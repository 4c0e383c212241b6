import { add3, dot3, scale3, sub3, transformPoint, type RigidTransform, type Vec3 } from '../../math/index.ts';
import { nearestOf } from '../nearest.ts';
import type { CurveKind } from './kind.ts';

// What circles and ellipses have in common: a centre, two conjugate arms, and ends that they need not have.

/** Runs counter-clockwise from `from` to `to`; without ends it is closed. */
export interface Round {
  readonly centre: Vec3;
  readonly from?: Vec3;
  readonly to?: Vec3;
}

/** Two arms at a right angle in the plane of a round curve, in the sense in which it runs, mm. */
export type Arms = readonly [Vec3, Vec3];

const placeAt = (centre: Vec3, [u, v]: Arms, angle: number): Vec3 =>
  add3(centre, add3(scale3(u, Math.cos(angle)), scale3(v, Math.sin(angle))));

/** The ends and the centre elsewhere. */
export const transformRound = ({ centre, from, to }: Round, by: RigidTransform): Round => ({
  centre: transformPoint(by, centre),
  ...(from && to ? { from: transformPoint(by, from), to: transformPoint(by, to) } : {}),
});

const endsOf = ({ from, to }: Round): readonly [] | readonly [Vec3, Vec3] => (from && to ? [from, to] : []);

/** The angle of a place on a curve with these arms, rad. */
export function angleOn(centre: Vec3, arms: Arms, place: Vec3): number {
  const out = sub3(place, centre);
  const [along, across] = arms.map((arm) => dot3(out, arm) / dot3(arm, arm)) as [number, number];
  return Math.atan2(across, along);
}

/** The part of a kind that follows from the arms. */
export const roundKind = <C extends Round>(armsOf: (curve: C) => Arms) =>
  ({
    runs(curve) {
      const arms = armsOf(curve);
      const start = curve.from ? angleOn(curve.centre, arms, curve.from) : 0;
      const turn = curve.from && curve.to ? angleOn(curve.centre, arms, curve.to) - start : 2 * Math.PI;
      const sweep = turn > 1e-12 ? turn : turn + 2 * Math.PI;
      return [(t) => placeAt(curve.centre, arms, start + sweep * t)];
    },
    chords: 72,
    ends: endsOf,
    marks(curve, middle) {
      const [from, to] = endsOf(curve);
      if (from && to) return [from, middle, to];
      const [u, v] = armsOf(curve);
      return [u, v, scale3(u, -1), scale3(v, -1)].map((arm) => add3(curve.centre, arm));
    },
    nearest(curve, place) {
      const arms = armsOf(curve);
      return nearestOf((t) => placeAt(curve.centre, arms, t), place, 0, 2 * Math.PI);
    },
    centre: ({ centre }) => centre,
  }) satisfies Partial<CurveKind<C>>;
