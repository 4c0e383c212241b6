/** Points and directions as plain tuples; lengths in mm. */
export type Vec2 = readonly [x: number, y: number];
export type Vec3 = readonly [x: number, y: number, z: number];

export const sub2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
export const add2 = (a: Vec2, b: Vec2): Vec2 => [a[0] + b[0], a[1] + b[1]];
export const scale2 = (a: Vec2, s: number): Vec2 => [a[0] * s, a[1] * s];
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
/** z component of a x b: positive when b turns left of a. */
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
export const length2 = (a: Vec2): number => Math.hypot(a[0], a[1]);
export const distance2 = (a: Vec2, b: Vec2): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
export const middle2 = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
/** a turned left by 90 degrees. */
export const left2 = (a: Vec2): Vec2 => [-a[1], a[0]];

/** The foot of the perpendicular from a place to the line through a and b. */
export function footOnLine2(place: Vec2, a: Vec2, b: Vec2): Vec2 {
  const u = direction2(sub2(b, a)) ?? [1, 0];
  return add2(a, scale2(u, dot2(sub2(place, a), u)));
}

/** The mirror image of a place in the line through a and b. */
export const mirrored2 = (place: Vec2, a: Vec2, b: Vec2): Vec2 => sub2(scale2(footOnLine2(place, a, b), 2), place);

/** Signed distance of a place from the line through a and b: positive on its left. */
export const offLine2 = (place: Vec2, a: Vec2, b: Vec2): number =>
  cross2(direction2(sub2(b, a)) ?? [1, 0], sub2(place, a));

/** Unit vector, or undefined where the length is too small to have a direction. */
export function direction2(a: Vec2): Vec2 | undefined {
  const length = length2(a);
  return length > 1e-12 ? [a[0] / length, a[1] / length] : undefined;
}

export const add3 = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const scale3 = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** A right-handed plane frame in space: sketch (u, v) lies at origin + u x + v y; z = x cross y. */
export interface Frame {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly z: Vec3;
}

export const toSpace = (frame: Frame, [u, v]: Vec2, height = 0): Vec3 =>
  add3(frame.origin, add3(add3(scale3(frame.x, u), scale3(frame.y, v)), scale3(frame.z, height)));

export function toPlane(frame: Frame, point: Vec3): Vec2 {
  const offset: Vec3 = [point[0] - frame.origin[0], point[1] - frame.origin[1], point[2] - frame.origin[2]];
  return [dot3(offset, frame.x), dot3(offset, frame.y)];
}
