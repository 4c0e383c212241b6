import {
  add3,
  cross3,
  direction3,
  dot3,
  frameAcross,
  frameOn,
  heightOver,
  isLevelGround,
  middle3,
  scale3,
  sub3,
  type Frame,
  type Vec3,
} from '../../math/index.ts';
import { axisOf, curvesOf, planeOf, pointOf, tangentNear, type Datum, type Thing } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { datumKind, type Construction } from '../datum.ts';

const plane = (frame: Frame): Result<Datum> => ok({ form: 'plane', frame });
const PLANE = { accepts: 'plane', label: 'plane' } as const;
const POINT = { accepts: 'point', label: 'point' } as const;

/**
 * Square to a curve at the place of it that is nearest to a point; the curve leaves forwards.
 * @param side its x, or what that is drawn towards
 */
const squareTo = (side: (curve: Thing, heading: Vec3) => Vec3 | undefined): Construction => ({
  title: 'square to',
  asks: [
    { accepts: 'curve', label: 'curve' },
    { accepts: 'point', label: 'at', joint: 'at' },
  ],
  make([curve, at]) {
    const near = tangentNear(curvesOf(curve!), pointOf(at!)!);
    return near ? plane(frameOn(near.at, near.along, side(curve!, near.along))) : fail('datum.tangent');
  },
});

/** What is level beside a curve: out of an upright plane in which it lies, else within that. Of a straight edge its side. */
function besideCurve(curve: Thing, heading: Vec3): Vec3 | undefined {
  const axis = axisOf(curve);
  const round = axis && Math.abs(dot3(axis.direction, heading)) < 0.5 ? axis.direction : undefined;
  const normal = curve.to === 'drawn' ? curve.normal : round;
  if (!normal) return axis?.side;
  return isLevelGround(normal) ? cross3(scale3(normal, Math.sign(normal[2])), heading) : scale3(normal, -1);
}

const ways = {
  /** Forwards along the normal of the source; its x and y stay. */
  offset: {
    title: 'offset from',
    asks: [PLANE],
    number: { label: 'offset', asks: LENGTH, initial: '10 mm' },
    make([source], by) {
      const frame = planeOf(source!)!;
      return plane({ ...frame, origin: add3(frame.origin, scale3(frame.z, by)) });
    },
  },
  halfway: {
    title: 'halfway between',
    asks: [PLANE, { accepts: 'plane', label: 'other plane' }],
    make: ([first, second]) => halfway(planeOf(first!)!, planeOf(second!)!),
  },
  /** Turned about an axis that lies along it, counter-clockwise seen against the axis. */
  angle: {
    title: 'turned from',
    asks: [PLANE, { accepts: 'axis', label: 'axis', joint: 'about' }],
    number: { label: 'angle', asks: ANGLE, initial: '45 deg' },
    make([source, about], by) {
      const frame = planeOf(source!)!;
      const { origin, direction } = axisOf(about!)!;
      if (Math.abs(dot3(frame.z, direction)) > 1e-6) return fail('datum.apart');
      const normal = add3(scale3(frame.z, Math.cos(by)), scale3(cross3(direction, frame.z), Math.sin(by)));
      return plane(frameOn(origin, normal, direction));
    },
  },
  parallel: {
    title: 'parallel to',
    asks: [PLANE, { accepts: 'point', label: 'through', joint: 'through' }],
    make([source, through]) {
      const frame = planeOf(source!)!;
      return plane({ ...frame, origin: add3(frame.origin, scale3(frame.z, heightOver(frame, pointOf(through!)!))) });
    },
  },
  points: {
    title: 'through',
    asks: [POINT, { accepts: 'point', label: 'second point' }, { accepts: 'point', label: 'third point' }],
    make(things) {
      const [a, b, c] = things.map((thing) => pointOf(thing)!) as [Vec3, Vec3, Vec3];
      const normal = direction3(cross3(sub3(b, a), sub3(c, a)));
      return normal ? plane(frameOn(a, normal, sub3(b, a))) : fail('datum.line');
    },
  },
  /** Its directions are those of the plane of the curve, so that they do not jump however that runs. */
  square: squareTo(besideCurve),
  /** Its directions are the usual ones, which turn by a quarter where the curve gets steep. */
  normal: { ...squareTo(() => undefined), superseded: true },
} satisfies Record<string, Construction>;

/** Between parallel planes in the middle; between others through the line where they meet, halving the angle. */
function halfway(first: Frame, second: Frame): Result<Datum> {
  const facing = dot3(first.z, second.z) < 0 ? scale3(second.z, -1) : second.z;
  const normal = direction3(add3(first.z, facing))!;
  const line = direction3(cross3(first.z, second.z));
  if (!line || Math.abs(dot3(first.z, second.z)) > 1 - 1e-12) {
    const at = middle3(first.origin, add3(first.origin, scale3(first.z, heightOver(first, second.origin))));
    return plane({ ...first, origin: at });
  }
  return plane(frameAcross(meetingPlace(first, second), normal, line));
}

/** A place on the line in which two planes meet: the one nearest to the first's origin. */
function meetingPlace(first: Frame, second: Frame): Vec3 {
  // within the first plane straight towards the second
  const towards = direction3(sub3(second.z, scale3(first.z, dot3(first.z, second.z))))!;
  return sub3(first.origin, scale3(towards, heightOver(second, first.origin) / dot3(towards, second.z)));
}

export const datumPlane = datumKind('datum-plane', {
  title: 'Datum plane',
  noun: 'Plane',
  verb: { key: 'D', says: 'A plane to draw on or to measure from: offset, tilted, between or through what is picked.' },
  ways,
});
