/** Points and directions as plain tuples; lengths in mm. */
export type Vec2 = readonly [x: number, y: number];
export type Vec3 = readonly [x: number, y: number, z: number];

/** a - b. */
export const sub2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
/** a + b. */
export const add2 = (a: Vec2, b: Vec2): Vec2 => [a[0] + b[0], a[1] + b[1]];
/** a times s. */
export const scale2 = (a: Vec2, s: number): Vec2 => [a[0] * s, a[1] * s];
/** The scalar product. */
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
/** z component of a x b: positive when b turns left of a. */
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
/** The Euclidean length. */
export const length2 = (a: Vec2): number => Math.hypot(a[0], a[1]);
/** How far two places are apart. */
export const distance2 = (a: Vec2, b: Vec2): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
/** Half-way between two places. */
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

/** a + b. */
export const add3 = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** a times s. */
export const scale3 = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
/** The scalar product. */
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** a - b. */
export const sub3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** The vector product a x b. */
export const cross3 = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** The Euclidean length. */
export const length3 = (a: Vec3): number => Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
/** How far two places are apart. */
export const distance3 = (a: Vec3, b: Vec3): number => length3(sub3(a, b));
/** Half-way between two places. */
export const middle3 = (a: Vec3, b: Vec3): Vec3 => scale3(add3(a, b), 0.5);

/** Unit vector, or undefined where the length is too small to have a direction. */
export function direction3(a: Vec3): Vec3 | undefined {
  const length = length3(a);
  return length > 1e-12 ? scale3(a, 1 / length) : undefined;
}

/** What is left of a vector square to a unit vector. */
export const squareTo3 = (a: Vec3, unit: Vec3): Vec3 => sub3(a, scale3(unit, dot3(a, unit)));

/** The foot of the perpendicular from a place to the line through `origin` along a unit vector. */
export const footOnLine3 = (place: Vec3, origin: Vec3, along: Vec3): Vec3 =>
  add3(origin, scale3(along, dot3(sub3(place, origin), along)));
