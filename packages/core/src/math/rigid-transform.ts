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

/** Where a point comes to. */
export const transformPoint = (transform: RigidTransform, place: Vec3): Vec3 =>
  transform.map(([x, y, z, s]) => x * place[0] + y * place[1] + z * place[2] + s) as unknown as Vec3;

/** A direction, turned or mirrored but not shifted. */
export const transformDirection = (transform: RigidTransform, along: Vec3): Vec3 =>
  transform.map(([x, y, z]) => x * along[0] + y * along[1] + z * along[2]) as unknown as Vec3;

/** Where a frame comes to. */
export const transformFrame = ({ origin, x, y, z }: Frame, by: RigidTransform): Frame => ({
  origin: transformPoint(by, origin),
  x: transformDirection(by, x),
  y: transformDirection(by, y),
  z: transformDirection(by, z),
});

/** First `first`, then `then`. */
export function compose(first: RigidTransform, then: RigidTransform): RigidTransform {
  const columns = ([0, 1, 2] as const).map((k) =>
    transformDirection(then, first.map((row) => row[k]) as unknown as Vec3),
  );
  const shift = transformPoint(then, first.map((row) => row[3]) as unknown as Vec3);
  return ([0, 1, 2] as const).map((k) => [
    columns[0]![k],
    columns[1]![k],
    columns[2]![k],
    shift[k],
  ]) as unknown as RigidTransform;
}

/** The transform that takes back another without mirroring. */
export function inverse(pose: RigidTransform): RigidTransform {
  const column = (k: 0 | 1 | 2): Vec3 => [pose[0][k], pose[1][k], pose[2][k]];
  const shift: Vec3 = [pose[0][3], pose[1][3], pose[2][3]];
  return ([0, 1, 2] as const).map((k) => {
    const [x, y, z] = column(k);
    return [x, y, z, -(x * shift[0] + y * shift[1] + z * shift[2])];
  }) as unknown as RigidTransform;
}

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
