import { transformDirection, transformPoint, type Vec3 } from '../../math/index.ts';
import { axisOfCurve, centreOfCurve, type SpaceCurve } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import { transformEdge } from './facts.ts';
import type { ThingKind } from './kind.ts';

/** A curve or a point of a sketch; a curve may come to several that lie in space as one. */
export interface DrawnThing {
  readonly to: 'drawn';
  readonly curves: readonly EdgeFacts[];
  readonly at?: Vec3;
  /** Square to the plane in which it was drawn. */
  readonly normal?: Vec3;
}

/** The curve of what comes to one only. */
const onlyCurve = ({ curves: [first, second] }: DrawnThing): SpaceCurve | undefined =>
  second ? undefined : first?.curve;

export const drawn: ThingKind<DrawnThing> = {
  transform: ({ curves, at, normal }, by) => ({
    to: 'drawn',
    curves: curves.map((edge) => transformEdge(edge, by)),
    ...(at ? { at: transformPoint(by, at) } : {}),
    ...(normal ? { normal: transformDirection(by, normal) } : {}),
  }),
  axis(thing) {
    const curve = onlyCurve(thing);
    return curve && axisOfCurve(curve);
  },
  point(thing) {
    const curve = onlyCurve(thing);
    return thing.at ?? (curve && centreOfCurve(curve));
  },
  curves: ({ curves }) => curves,
};
