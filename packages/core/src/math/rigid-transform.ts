import { add3, cross3, dot3, scale3, sub3, type Vec3 } from './vector.ts';
import type { Frame } from './frame.ts';

/** A motion of space without change of shape, mirroring allowed: three rows of a matrix with the shift in the last column. */
export type RigidTransform = readonly [row: Row, row: Row, row: Row];
type Row = readonly [x: number, y: number, z: number, shift: number];

export const IDENTITY: RigidTransform = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];

/** The shift by a vector. */
export const translation = (by: Vec3): RigidTransform =>
  IDENTITY.map((row, k) => [row[0], row[1], row[2], by[k]!]) as unknown as RigidTransform;

// Written out: motions and views call these for every place.

/** Where a point comes to. */
export const transformPoint = ([a, b, c]: RigidTransform, [x, y, z]: Vec3): Vec3 => [
  a[0] * x + a[1] * y + a[2] * z + a[3],
  b[0] * x + b[1] * y + b[2] * z + b[3],
  c[0] * x + c[1] * y + c[2] * z + c[3],
];

/** A direction, turned or mirrored but not shifted. */
export const transformDirection = ([a, b, c]: RigidTransform, [x, y, z]: Vec3): Vec3 => [
  a[0] * x + a[1] * y + a[2] * z,
  b[0] * x + b[1] * y + b[2] * z,
  c[0] * x + c[1] * y + c[2] * z,
];

/** Where a frame comes to. */
export const transformFrame = ({ origin, x, y, z }: Frame, by: RigidTransform): Frame => ({
  origin: transformPoint(by, origin),
  x: transformDirection(by, x),
  y: transformDirection(by, y),
  z: transformDirection(by, z),
});

/** First `first`, then `then`. */
export const compose = ([p, q, r]: RigidTransform, [a, b, c]: RigidTransform): RigidTransform => [
  composedRow(a, p, q, r),
  composedRow(b, p, q, r),
  composedRow(c, p, q, r),
];

const composedRow = ([x, y, z, shift]: Row, p: Row, q: Row, r: Row): Row => [
  x * p[0] + y * q[0] + z * r[0],
  x * p[1] + y * q[1] + z * r[1],
  x * p[2] + y * q[2] + z * r[2],
  x * p[3] + y * q[3] + z * r[3] + shift,
];

/** The transform that takes back another without mirroring. */
export const inverse = ([a, b, c]: RigidTransform): RigidTransform => [
  [a[0], b[0], c[0], -(a[0] * a[3] + b[0] * b[3] + c[0] * c[3])],
  [a[1], b[1], c[1], -(a[1] * a[3] + b[1] * b[3] + c[1] * c[3])],
  [a[2], b[2], c[2], -(a[2] * a[3] + b[2] * b[3] + c[2] * c[3])],
];

/** The linear map with these images of the axes that keeps a place where it is. */
function about(place: Vec3, image: (along: Vec3) => Vec3): RigidTransform {
  const columns = [image([1, 0, 0]), image([0, 1, 0]), image([0, 0, 1])] as const;
  const moved = add3(add3(scale3(columns[0], place[0]), scale3(columns[1], place[1])), scale3(columns[2], place[2]));
  const shift = sub3(place, moved);
  return ([0, 1, 2] as const).map((k) => [
    columns[0][k],
    columns[1][k],
    columns[2][k],
    shift[k],
  ]) as unknown as RigidTransform;
}

/** Turns about an axis (a unit vector), counter-clockwise seen against it (Rodrigues 1840). */
export function rotation(origin: Vec3, axis: Vec3, angle: number): RigidTransform {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return about(origin, (along) =>
    add3(add3(scale3(along, c), scale3(cross3(axis, along), s)), scale3(axis, dot3(axis, along) * (1 - c))),
  );
}

/** Mirrors in the plane of a frame. */
export const reflection = ({ origin, z }: Frame): RigidTransform =>
  about(origin, (along) => sub3(along, scale3(z, 2 * dot3(along, z))));

/** Takes one frame to another. */
export function frameToFrame(from: Frame, to: Frame): RigidTransform {
  const turned = (along: Vec3): Vec3 =>
    add3(add3(scale3(to.x, dot3(along, from.x)), scale3(to.y, dot3(along, from.y))), scale3(to.z, dot3(along, from.z)));
  return compose(about(from.origin, turned), translation(sub3(to.origin, from.origin)));
}
