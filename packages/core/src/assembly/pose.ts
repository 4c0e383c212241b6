import { add3, cross3, dot3, length3, scale3, type RigidTransform, type Vec3 } from '../math/index.ts';

// Positions of rigid bodies, and small turns from where they are (the exponential map of rotations).

/** The turn by a rotation vector: about its direction, by its length in rad (Rodrigues 1840). */
export function rotateByVector(turn: Vec3, along: Vec3): Vec3 {
  const angle = length3(turn);
  const [s, c] = [sinc(angle), versine(angle)];
  const across = cross3(turn, along);
  return add3(along, add3(scale3(across, s), scale3(cross3(turn, across), c)));
}

/**
 * The transposed left Jacobian of the exponential map, applied to a torque: what a torque in space is as a gradient by the
 * rotation vector (Chirikjian 2011, 10.8.6).
 */
export function torqueOnVector(turn: Vec3, torque: Vec3): Vec3 {
  const angle = length3(turn);
  const [a, b] = [versine(angle), angle < SMALL ? 1 / 6 : (1 - sinc(angle)) / angle ** 2];
  const across = cross3(turn, torque);
  return add3(torque, add3(scale3(across, -a), scale3(cross3(turn, across), b)));
}

/** Below this angle, rad, series are as good as functions, and do not divide by nothing. */
const SMALL = 1e-4;
/** A sine below this is rounding: there is no turn. */
const NO_TURN = 1e-12;

const sinc = (angle: number): number => (angle < SMALL ? 1 - angle ** 2 / 6 : Math.sin(angle) / angle);
/** (1 - cos) / angle^2 */
const versine = (angle: number): number => (angle < SMALL ? 0.5 - angle ** 2 / 24 : (1 - Math.cos(angle)) / angle ** 2);

/** A body moved from a pose: turned by a rotation vector about its own origin, which goes to a place. */
export function displacedPose(base: RigidTransform, origin: Vec3, turn: Vec3): RigidTransform {
  const column = (k: number) => rotateByVector(turn, base.map((row) => row[k]) as unknown as Vec3);
  const columns = [column(0), column(1), column(2)];
  return [0, 1, 2].map((r) => [
    columns[0]![r as 0 | 1 | 2],
    columns[1]![r as 0 | 1 | 2],
    columns[2]![r as 0 | 1 | 2],
    origin[r as 0 | 1 | 2],
  ]) as unknown as RigidTransform;
}

/** The pose that follows two others when a body goes on as it went, for so many times as far. */
export function extrapolatedPose(before: RigidTransform, now: RigidTransform, share: number): RigidTransform {
  const [p, q] = [originOf(before), originOf(now)];
  const way = scale3(add3(q, scale3(p, -1)), share);
  return displacedPose(now, add3(q, way), scale3(turnBetween(before, now), share));
}

/** The rotation vector of the turn from one pose to another, below half a turn. */
export function turnBetween(from: RigidTransform, to: RigidTransform): Vec3 {
  // the turn in space: the columns of the one as the rows of the other have them
  const r = (i: number, j: number) => [0, 1, 2].reduce((sum, k) => sum + to[i]![k]! * from[j]![k]!, 0);
  const across: Vec3 = [(r(2, 1) - r(1, 2)) / 2, (r(0, 2) - r(2, 0)) / 2, (r(1, 0) - r(0, 1)) / 2];
  const sine = length3(across);
  const cosine = (r(0, 0) + r(1, 1) + r(2, 2) - 1) / 2;
  return sine < NO_TURN ? across : scale3(across, Math.atan2(sine, cosine) / sine);
}

/** Where the origin of a body lies. */
export const originOf = (pose: RigidTransform): Vec3 => pose.map((row) => row[3]) as unknown as Vec3;

/** The columns made orthonormal again: rounding adds up over many steps. */
export function orthonormalised(pose: RigidTransform): RigidTransform {
  const column = (k: number) => pose.map((row) => row[k]) as unknown as Vec3;
  const unit = (a: Vec3): Vec3 => scale3(a, 1 / length3(a));
  const x = unit(column(0));
  const y = unit(add3(column(1), scale3(x, -dot3(x, column(1)))));
  const z = cross3(x, y);
  return [0, 1, 2].map((r) => [x[r]!, y[r]!, z[r]!, pose[r]![3]]) as unknown as RigidTransform;
}
