import { axisOfCurve, centreOfCurve, radiusOfCurve } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import { fingerprintOfEdge } from '../fingerprints.ts';
import { transformEdge } from './facts.ts';
import { ELSEWHERE, type ThingKind } from './kind.ts';

export interface EdgeThing {
  readonly to: 'edge';
  readonly edge: EdgeFacts;
  readonly body: number;
}

export const edge: ThingKind<EdgeThing> = {
  transform: (thing, by) => ({ to: 'edge', edge: transformEdge(thing.edge, by), body: ELSEWHERE }),
  name: (thing) => thing.edge.name,
  fingerprint: (thing) => fingerprintOfEdge(thing.edge),
  axis: (thing) => axisOfCurve(thing.edge.curve),
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
