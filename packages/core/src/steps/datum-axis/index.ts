import { cross3, direction3, dot3, heightOver, scale3, sub3, type Vec3 } from '../../math/index.ts';
import { axisOf, planeOf, pointOf, type Datum } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { datumKind, type Construction } from '../datum.ts';

const through = (origin: Vec3, direction: Vec3, side?: Vec3): Result<Datum> =>
  ok({ form: 'axis', origin, direction, ...(side && { side }) });
const axis = (origin: Vec3, direction: Vec3 | undefined, trouble: string): Result<Datum> =>
  direction ? through(origin, direction) : fail(trouble);

const ways = {
  along: {
    title: 'along',
    asks: [{ accepts: 'axis', label: 'edge or round face' }],
    make([source]) {
      const { origin, direction, side } = axisOf(source!)!;
      return through(origin, direction, side);
    },
  },
  points: {
    title: 'through',
    asks: [
      { accepts: 'point', label: 'point' },
      { accepts: 'point', label: 'second point' },
    ],
    make([first, second]) {
      const [a, b] = [pointOf(first!)!, pointOf(second!)!];
      return axis(a, direction3(sub3(b, a)), 'datum.same');
    },
  },
  planes: {
    title: 'at the meeting of',
    asks: [
      { accepts: 'plane', label: 'plane' },
      { accepts: 'plane', label: 'other plane' },
    ],
    make([first, second]) {
      const [a, b] = [planeOf(first!)!, planeOf(second!)!];
      const towards = direction3(sub3(b.z, scale3(a.z, dot3(a.z, b.z))));
      if (!towards || Math.abs(dot3(a.z, b.z)) > 1 - 1e-12) return fail('datum.parallel');
      const at = sub3(a.origin, scale3(towards, heightOver(b, a.origin) / dot3(towards, b.z)));
      return axis(at, direction3(cross3(a.z, b.z)), 'datum.parallel');
    },
  },
  square: {
    title: 'square to',
    asks: [
      { accepts: 'plane', label: 'plane' },
      { accepts: 'point', label: 'through', joint: 'through' },
    ],
    make([source, point]) {
      const { x, z } = planeOf(source!)!;
      return through(pointOf(point!)!, z, x);
    },
  },
} satisfies Record<string, Construction>;

export const datumAxis = datumKind('datum-axis', {
  title: 'Datum axis',
  noun: 'Axis',
  verb: { key: 'A', says: 'A line to turn about or to run along, from what is picked.' },
  ways,
});
