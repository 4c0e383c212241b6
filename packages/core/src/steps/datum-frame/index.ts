import { dot3, frameOn } from '../../math/index.ts';
import { axisOf, planeOf, pointOf } from '../../references/index.ts';
import { fail, ok } from '../../result/index.ts';
import { datumKind, type Construction } from '../datum.ts';

const AT = { accepts: 'point', label: 'origin' } as const;
const PLANE = { accepts: 'plane', label: 'plane of x and y', joint: 'on' } as const;

/** A frame to measure from: its z is the normal of a plane, its x level or along an axis. */
const ways = {
  point: {
    title: 'at',
    asks: [AT, PLANE],
    make: ([at, plane]) => ok({ form: 'frame', frame: frameOn(pointOf(at!)!, planeOf(plane!)!.z, planeOf(plane!)!.x) }),
  },
  axis: {
    title: 'turned, at',
    asks: [AT, PLANE, { accepts: 'axis', label: 'x along', joint: 'with x along' }],
    make([at, plane, along]) {
      const [normal, { direction }] = [planeOf(plane!)!.z, axisOf(along!)!];
      if (Math.abs(dot3(normal, direction)) > 1 - 1e-9) return fail('datum.line');
      return ok({ form: 'frame', frame: frameOn(pointOf(at!)!, normal, direction) });
    },
  },
} satisfies Record<string, Construction>;

export const datumFrame = datumKind('datum-frame', {
  title: 'Datum frame',
  noun: 'Frame',
  verb: { key: '', says: 'An origin with three axes, from what is picked.' },
  ways,
});
