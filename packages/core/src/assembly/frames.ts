import {
  add3,
  frameOn,
  transformPoint,
  transformFrame,
  inverse,
  scale3,
  rotation,
  transformDirection,
  compose,
  translation,
  type Frame,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { radiusOfSurface } from '../geometry/index.ts';
import { axisOf, middleOf, planeOf, pointOf, type Thing } from '../references/index.ts';
import type { Carried } from './joints.ts';
import type { Feature } from './relations.ts';
import type { Spot } from './records.ts';

/**
 * The frame that a thing of a part carries: on the middle of a flat face with z out of it, along what is straight or
 * round, at a place; a datum frame as it is. Undefined for what has none.
 */
export function frameOf(thing: Thing, spot: Spot = 'middle'): Frame | undefined {
  const plane = planeOf(thing);
  if (plane) return { ...plane, origin: middleOf(thing) ?? plane.origin };
  const axis = axisOf(thing);
  if (!axis) {
    const at = pointOf(thing);
    return at && frameOn(at, [0, 0, 1]);
  }
  const { origin, direction, stretch, side } = axis;
  const [from, to] = stretch ?? [origin, origin];
  const share = { start: 0, middle: 0.5, end: 1 }[spot];
  return frameOn(add3(scale3(from, 1 - share), scale3(to, share)), direction, side);
}

/** Has the thing ends to choose from? */
export const hasEnds = (thing: Thing): boolean => planeOf(thing) === undefined && axisOf(thing)?.stretch !== undefined;

/** What a relation takes of a thing; undefined for what is neither flat, nor round or straight, nor a place. */
export function featureOf(thing: Thing, body: number): Feature | undefined {
  const plane = planeOf(thing);
  if (plane) return { body, form: 'plane', at: middleOf(thing) ?? plane.origin, along: plane.z };
  const axis = axisOf(thing);
  if (axis) {
    const radius = thing.to === 'face' ? radiusOfSurface(thing.face.surface) : undefined;
    const centre = pointOf(thing);
    return {
      ...{ body, form: 'axis', at: centre ?? axis.origin, along: axis.direction },
      ...(radius !== undefined && { radius }),
      ...(centre && { isRim: true }),
    };
  }
  const at = pointOf(thing);
  return at && { body, form: 'point', at };
}

/** A feature elsewhere. */
export const transformFeature = (feature: Feature, by: RigidTransform): Feature =>
  'along' in feature
    ? { ...feature, at: transformPoint(by, feature.at), along: transformDirection(by, feature.along) }
    : { ...feature, at: transformPoint(by, feature.at) };

/** The frame looking the other way: half a turn about its x. */
export const flipped = ({ origin, x, y, z }: Frame): Frame => ({ origin, x, y: scale3(y, -1), z: scale3(z, -1) });

/** A pose by numbers, mm and rad: turned about the x, then the y, then the z axis of space, then shifted. */
export const poseBy = (at: Vec3, [x, y, z]: Vec3): RigidTransform =>
  [
    rotation(NOWHERE, [1, 0, 0], x),
    rotation(NOWHERE, [0, 1, 0], y),
    rotation(NOWHERE, [0, 0, 1], z),
    translation(at),
  ].reduce(compose);
const NOWHERE: Vec3 = [0, 0, 0];

/** A cosine so near to 1 is 1, to rounding. */
const STRAIGHT = 1e-12;

/** The turns about the x, y and z axes of space that a pose comes to, rad; about y within a quarter turn. */
export function turnsOf([row0, row1, row2]: RigidTransform): Vec3 {
  const y = Math.asin(Math.max(-1, Math.min(1, -row2[0])));
  // looking straight along z two of the turns are about one axis: all of it is told about z
  if (Math.abs(row2[0]) > 1 - STRAIGHT) return [0, y, Math.atan2(-row0[1], row1[1])];
  return [Math.atan2(row2[1], row2[2]), y, Math.atan2(row1[0], row0[0])];
}

/** The second side of a joint that is held as drawn: it carries the frame of the first, where both are drawn. */
export const asDrawn = (
  { a, b }: { readonly a: Carried; readonly b: Pick<Carried, 'body'> },
  drawn: readonly RigidTransform[],
): Carried => ({
  body: b.body,
  frame: transformFrame(a.frame, compose(drawn[a.body]!, inverse(drawn[b.body]!))),
});
