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

/**
 * The frame of a plane with this unit normal. Its x is `along`, or, where that is not given, level: y then points up as
 * far as it can, and on planes that lie nearly flat to the back. So Front, Top and Right come out as they are.
 */
export function frameOn(origin: Vec3, normal: Vec3, along?: Vec3): Frame {
  const x = along && direction3(squareTo3(along, normal));
  if (x) return { origin, x, y: cross3(normal, x), z: normal };
  const up: Vec3 = Math.abs(normal[2]) > STEEP ? [0, 1, 0] : [0, 0, 1];
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

/**
 * The frame of a plane that stood as `was` and stands as `now`: its x turns with it by the shortest way, so that it never
 * jumps, however it leans. Where it was turned right over there is no shortest way, and it is `now`.
 */
export function carriedFrame(was: Frame, now: Frame): Frame {
  const [lean, sum] = [1 + dot3(was.z, now.z), add3(was.z, now.z)];
  if (lean < TURNED_OVER) return now;
  const x = sub3(was.x, scale3(sum, dot3(now.z, was.x) / lean));
  return length3(sub3(x, now.x)) < SAME ? now : frameOn(now.origin, now.z, x);
}

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
