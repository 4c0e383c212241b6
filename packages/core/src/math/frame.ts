import { rotation, transformDirection, transformFrame } from './rigid-transform.ts';
import { add3, cross3, direction3, dot3, length3, scale3, squareTo3, sub3, type Vec2, type Vec3 } from './vector.ts';

/** A right-handed plane frame in space: sketch (u, v) lies at origin + u x + v y; z = x cross y. */
export interface Frame {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly z: Vec3;
}

/** A place of the plane of a frame in space, or one above it. */
export const toSpace = (frame: Frame, [u, v]: Vec2, height = 0): Vec3 =>
  add3(frame.origin, add3(add3(scale3(frame.x, u), scale3(frame.y, v)), scale3(frame.z, height)));

/** A place of space as seen square on the plane of a frame. */
export function toPlane(frame: Frame, point: Vec3): Vec2 {
  const offset: Vec3 = [point[0] - frame.origin[0], point[1] - frame.origin[1], point[2] - frame.origin[2]];
  return [dot3(offset, frame.x), dot3(offset, frame.y)];
}

/** Signed height of a place over the plane of a frame. */
export const heightOver = (frame: Frame, point: Vec3): number => dot3(sub3(point, frame.origin), frame.z);

/** How near to the vertical a normal counts as level ground, for which y is taken from space's y. */
const STEEP = 0.9;
/** Whether a plane with this unit normal counts as level ground, seen from above or below. */
export const isLevelGround = (normal: Vec3): boolean => Math.abs(normal[2]) > STEEP;

/**
 * The frame of a plane with this unit normal. Its x is `along`, or, where that is not given, level: y then points up as
 * far as it can, and on planes that lie nearly flat to the back. So Front, Top and Right come out as they are.
 */
export function frameOn(origin: Vec3, normal: Vec3, along?: Vec3): Frame {
  const x = along && direction3(squareTo3(along, normal));
  if (x) return { origin, x, y: cross3(normal, x), z: normal };
  const up: Vec3 = isLevelGround(normal) ? [0, 1, 0] : [0, 0, 1];
  const y = direction3(squareTo3(up, normal))!;
  return { origin, x: cross3(y, normal), y, z: normal };
}

/** The frame on a plane whose origin lies nearest to the origin of space: what is drawn keeps its coordinates. */
export const frameAcross = (place: Vec3, normal: Vec3, along?: Vec3): Frame =>
  frameOn(scale3(normal, dot3(place, normal)), normal, along);

/** Directions that differ by less count as one: what is kept of a plane is rounded to ten digits. */
const SAME = 1e-8;
/** A plane that was turned over to within this, as 1 + the cosine, has no shortest way. */
const TURNED_OVER = 1e-6;
/** Normals whose level parts are opposite to within this, as a sine: the plane was tilted over, not turned round. */
const TILTED = 1e-6;

/** The x of a frame, turned with its normal by the shortest way; undefined where it was turned right over. */
function turnedAlong(was: Frame, normal: Vec3): Vec3 | undefined {
  const [lean, sum] = [1 + dot3(was.z, normal), add3(was.z, normal)];
  return lean < TURNED_OVER ? undefined : sub3(was.x, scale3(sum, dot3(normal, was.x) / lean));
}

/** By how much one has to turn about the vertical from one direction to another; none where that is tilted over. */
function turnAboutVertical([ax, ay]: Vec3, [bx, by]: Vec3): number {
  const [cos, sin] = [ax * bx + ay * by, ax * by - ay * bx];
  return cos < 0 && Math.abs(sin) < -TILTED * cos ? 0 : Math.atan2(sin, cos);
}

/**
 * The frame of a plane that stood as `was` and stands as `now`. What leans is turned about the vertical and tilted then,
 * so that level stays level; what lies nearly flat is turned by the shortest way, since its normal hardly tells how it was
 * turned about the vertical; between the two it goes over. So it does not jump, however the plane is tilted. Where a
 * plane was turned right over there is no way that is shorter than others, and it is `now`.
 */
export function carriedFrame(was: Frame, now: Frame): Frame {
  const shortest = turnedAlong(was, now.z);
  if (!shortest) return now;
  const turn = rotation([0, 0, 0], [0, 0, 1], turnAboutVertical(was.z, now.z));
  const round = transformFrame(was, turn);
  const level = turnedAlong(round, now.z) ?? shortest;
  const flat = Math.max(Math.abs(was.z[2]), Math.abs(now.z[2]));
  const share = Math.min(1, (1 - flat) / (1 - STEEP));
  const apart = Math.atan2(dot3(cross3(shortest, level), now.z), dot3(shortest, level));
  const x = share < 1 ? transformDirection(rotation([0, 0, 0], now.z, share * apart), shortest) : level;
  return length3(sub3(x, now.x)) < SAME ? now : frameOn(now.origin, now.z, x);
}

/** A direction square to an axis that was `was` and is `now`, which turns along with it as the frame of a plane does. */
export const carriedSide = (was: Vec3, now: Vec3): Vec3 =>
  carriedFrame(frameOn([0, 0, 0], was), frameOn([0, 0, 0], now)).x;

/** A direction in space, seen in the plane of a frame. */
export const alongPlane = (frame: Frame, a: Vec3): Vec2 => [dot3(a, frame.x), dot3(a, frame.y)];

/** A place on a path and the direction in which it goes on. */
export interface Station {
  readonly at: Vec3;
  readonly heading: Vec3;
}

/**
 * A direction square to a path at one place, carried to the next so that it turns as little as can be (double reflection:
 * Wang, Juettler, Zheng, Liu 2008).
 */
export function carriedAlong(from: Station, side: Vec3, to: Station): Vec3 {
  const mirrored = (a: Vec3, across: Vec3): Vec3 => {
    const square = dot3(across, across);
    return square < 1e-18 ? a : sub3(a, scale3(across, (2 * dot3(across, a)) / square));
  };
  const way = sub3(to.at, from.at);
  const heading = mirrored(from.heading, way);
  return mirrored(mirrored(side, way), sub3(to.heading, heading));
}
