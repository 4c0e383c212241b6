import { carriedSide, type Vec3 } from '../../math/index.ts';
import { axisOfCurve, centreOfCurve, radiusOfCurve } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import { fingerprintOfEdge } from '../fingerprints.ts';
import { transformEdge } from './facts.ts';
import { ELSEWHERE, type ThingKind } from './kind.ts';

export interface EdgeThing {
  readonly to: 'edge';
  readonly edge: EdgeFacts;
  readonly body: number;
  /** Its direction or axis when it was chosen: what is told about it turns along from there. */
  readonly was?: Vec3;
}

export const edge: ThingKind<EdgeThing> = {
  transform: (thing, by) => ({ to: 'edge', edge: transformEdge(thing.edge, by), body: ELSEWHERE }),
  name: (thing) => thing.edge.name,
  fingerprint: (thing) => fingerprintOfEdge(thing.edge),
  axis({ edge: { curve }, was }) {
    const axis = axisOfCurve(curve);
    return axis && was ? { ...axis, side: carriedSide(was, axis.direction) } : axis;
  },
  point: (thing) => centreOfCurve(thing.edge.curve),
  middle: (thing) => thing.edge.middle,
  curves: (thing) => [thing.edge],
  readings({ edge: { curve, length } }) {
    const radius = radiusOfCurve(curve);
    return [
      { label: 'length', amount: length, of: 'length' },
      ...(radius === undefined ? [] : [{ label: 'radius', amount: radius, of: 'length' } as const]),
    ];
  },
};
