import {
  boxCorners,
  boxRound,
  cross3,
  distance3,
  middle3,
  scale3,
  sub3,
  transformDirection,
  transformPoint,
  type Box3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { CoordinateKey } from '../naming/index.ts';
import { scaleOf, type Coordinates, type Mechanism, type MechanismEquations } from './mechanism.ts';
import { MergedEquations } from './merged.ts';
import { turnBetween } from './pose.ts';

/** A place in space that a body carries, and a direction. */
export interface Push {
  readonly body: number;
  readonly at: Vec3;
  readonly along: Vec3;
}

/** How a body goes: a place of it, mm, and its turn, rad, by a unit of what drives it. */
export interface Twist {
  readonly shift: Vec3;
  readonly turn: Vec3;
}

interface Middle {
  /** In the coordinates of the body. */
  readonly at: Vec3;
  /** How far from the middle a turn counts, mm: the radius of gyration of a box. */
  readonly reach: number;
}

/**
 * How small motions of a mechanism are counted where the least is sought: each body by the shift of the middle of what it
 * carries, and by its turn times how far that reaches. What is rigid is one body.
 */
export class MotionMetric {
  readonly motion: MergedEquations;
  readonly equations: MechanismEquations;
  private readonly part: readonly number[];
  private readonly middles: readonly Middle[];

  /**
   * @param prescribed coordinates that are given values
   * @param boxes by the places of the bodies: what they carry, in their own coordinates
   */
  constructor(
    private readonly mechanism: Mechanism,
    prescribed: readonly CoordinateKey[],
    boxes: readonly (Box3 | undefined)[],
  ) {
    this.motion = new MergedEquations(mechanism, prescribed);
    const { equations, part, local } = this.motion.reduced;
    [this.equations, this.part] = [equations, part];
    this.middles = equations.mechanism.bodies.map((_, k) => {
      const own = part.flatMap((to, body) => {
        const box = boxes[body];
        if (to !== k || !box) return [];
        return boxCorners(box).map((corner) => {
          const at = transformPoint(local[body]!, corner);
          return { low: at, high: at };
        });
      });
      const box = boxRound(own);
      return box
        ? { at: middle3(box.low, box.high), reach: Math.max(distance3(box.low, box.high) / Math.sqrt(12), 1e-3) }
        : { at: [0, 0, 0] as const, reach: mechanism.size };
    });
  }

  /** A row of derivatives by shifts of origins and turns times the size, as it is counted here. */
  weighed(row: Float64Array, poses: readonly RigidTransform[], columns: number): Float64Array {
    const found = new Float64Array(columns);
    found.set(row);
    const { size } = this.mechanism;
    this.equations.at.forEach((at, body) => {
      if (at < 0) return;
      const force: Vec3 = [row[at]!, row[at + 1]!, row[at + 2]!];
      const torque: Vec3 = [row[at + 3]! * size, row[at + 4]! * size, row[at + 5]! * size];
      const { reach } = this.middles[body]!;
      found.set(scale3(sub3(torque, cross3(this.armOf(body, poses), force)), 1 / reach), at + 3);
    });
    return found;
  }

  /** How what is pushed changes with a small motion. */
  rowOf(pushes: readonly Push[], poses: readonly RigidTransform[], columns: number): Float64Array {
    const row = new Float64Array(columns);
    for (const { body, at: place, along } of pushes) {
      const merged = this.part[body]!;
      const at = this.equations.at[merged]!;
      if (at < 0) continue;
      const { reach } = this.middles[merged]!;
      const torque = cross3(sub3(place, this.middleOf(merged, poses)), along);
      for (let n = 0; n < 3; n++) {
        row[at + n]! += along[n]!;
        row[at + 3 + n]! += torque[n]! / reach;
      }
    }
    return row;
  }

  /** The motion from poses to others, as rows count it. */
  gone(
    from: readonly RigidTransform[],
    to: readonly RigidTransform[],
    before: Coordinates,
    now: Coordinates,
    columns: number,
  ): Float64Array {
    const found = new Float64Array(columns);
    this.equations.at.forEach((at, body) => {
      if (at < 0) return;
      const { at: middle, reach } = this.middles[body]!;
      found.set(sub3(transformPoint(to[body]!, middle), transformPoint(from[body]!, middle)), at);
      found.set(scale3(turnBetween(from[body]!, to[body]!), reach), at + 3);
    });
    for (const [key, at] of this.equations.tied)
      found[at] = ((now.get(key) ?? 0) - (before.get(key) ?? 0)) * scaleOf(key, this.mechanism.size);
    return found;
  }

  /** A small motion that is counted here, by shifts of origins and turns times the size. */
  plain(motion: Float64Array, poses: readonly RigidTransform[]): Float64Array {
    const found = Float64Array.from(motion);
    this.equations.at.forEach((at, body) => {
      if (at < 0) return;
      const turn = scale3([motion[at + 3]!, motion[at + 4]!, motion[at + 5]!], 1 / this.middles[body]!.reach);
      const middle: Vec3 = [motion[at]!, motion[at + 1]!, motion[at + 2]!];
      found.set(sub3(middle, cross3(turn, this.armOf(body, poses))), at);
      found.set(scale3(turn, this.mechanism.size), at + 3);
    });
    return found;
  }

  /** How a body of the merged mechanism goes, at its middle; what is grounded stands still. */
  twistOf(motion: Float64Array, body: number): Twist {
    const at = this.equations.at[body]!;
    if (at < 0) return { shift: [0, 0, 0], turn: [0, 0, 0] };
    const turn: Vec3 = [motion[at + 3]!, motion[at + 4]!, motion[at + 5]!];
    return {
      shift: [motion[at]!, motion[at + 1]!, motion[at + 2]!],
      turn: scale3(turn, 1 / this.middles[body]!.reach),
    };
  }

  /** Where the middle of a body of the merged mechanism lies. */
  middleOf = (body: number, poses: readonly RigidTransform[]): Vec3 =>
    transformPoint(poses[body]!, this.middles[body]!.at);

  private armOf = (body: number, poses: readonly RigidTransform[]): Vec3 =>
    transformDirection(poses[body]!, this.middles[body]!.at);
}
