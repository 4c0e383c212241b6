import { add3, dot3, heightOver, middle3, scale3, distance3 } from '../../math/index.ts';
import { axisOf, curvesOf, planeOf, pointOf, tangentNear } from '../../references/index.ts';
import { fail, ok } from '../../result/index.ts';
import { datumKind, type Construction } from '../datum.ts';

const POINT = { accepts: 'point', label: 'point' } as const;

const ways = {
  at: { title: 'at', asks: [POINT], make: ([source]) => ok({ form: 'point', at: pointOf(source!)! }) },
  halfway: {
    title: 'halfway between',
    asks: [POINT, { accepts: 'point', label: 'second point' }],
    make([first, second]) {
      const [a, b] = [pointOf(first!)!, pointOf(second!)!];
      return distance3(a, b) < 1e-9 ? fail('datum.same') : ok({ form: 'point', at: middle3(a, b) });
    },
  },
  crossing: {
    title: 'at the meeting of',
    asks: [
      { accepts: 'axis', label: 'axis' },
      { accepts: 'plane', label: 'plane' },
    ],
    make([line, across]) {
      const [{ origin, direction }, frame] = [axisOf(line!)!, planeOf(across!)!];
      const slope = dot3(direction, frame.z);
      if (Math.abs(slope) < 1e-9) return fail('datum.parallel');
      return ok({ form: 'point', at: add3(origin, scale3(direction, -heightOver(frame, origin) / slope)) });
    },
  },
  near: {
    title: 'on',
    asks: [
      { accepts: 'curve', label: 'curve' },
      { accepts: 'point', label: 'nearest to', joint: 'nearest to' },
    ],
    make([curve, to]) {
      const near = tangentNear(curvesOf(curve!), pointOf(to!)!);
      return near ? ok({ form: 'point', at: near.at }) : fail('datum.tangent');
    },
  },
} satisfies Record<string, Construction>;

export const datumPoint = datumKind('datum-point', {
  title: 'Datum point',
  noun: 'Point',
  verb: { key: 'P', says: 'A point in space, from what is picked.' },
  ways,
});
