import { coordinateKey, type CoordinateKey } from '../naming/index.ts';
import {
  add3,
  cross3,
  inner,
  nearestInPolyhedron,
  norm,
  rangeSplit,
  sub3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Contacts, Touch } from './contacts.ts';
import { JOINTS } from './joints.ts';
import { MechanismEquations, scaleOf, type Coordinates, type Mechanism, type Pose } from './mechanism.ts';
import { MotionMetric, type Twist } from './motion-metric.ts';
import { originOf } from './pose.ts';

/** How everything goes in a pose: derivatives by the way of what drives it. */
export interface Rates {
  /** By the places of the bodies, of their origins. */
  readonly bodies: readonly Twist[];
  /** rad or mm */
  readonly coordinates: Coordinates;
}

/** First and second derivatives; the second is not told where what touches changes. */
export interface Motion {
  readonly first: Rates;
  readonly second: Rates | undefined;
}

/** How far to both sides of a pose its equations are looked at, as a share of the size. */
const BESIDE = 1e-5;
/** What is missed by less than this share of what is asked is fulfilled. */
const MISSED = 1e-7;
/** A push that is rounding. */
const PUSHING = 1e-9;

/** How a place goes that a body carries, so far from where its twist is told: first and second derivatives (Euler). */
export function carriedBy(first: Twist, second: Twist | undefined, arm: Vec3) {
  const around = cross3(first.turn, arm);
  return {
    first: add3(first.shift, around),
    second: second && add3(second.shift, add3(cross3(second.turn, arm), cross3(first.turn, around))),
  };
}

/** Equations at a pose: the rows as the metric counts, and what each is to come to. */
interface Linear {
  readonly rows: readonly Float64Array[];
  readonly asked: readonly number[];
}

/**
 * How a mechanism goes in its poses while coordinates are driven, from its equations: J v = what is driven asks, and
 * J a = - J' v (Haug 1989, ch. 3). J' along the motion is the difference of J on both sides of the pose. What touches does not
 * come nearer; what nothing tells goes by the least motion.
 */
export class RateEquations {
  private readonly metric: MotionMetric;
  private readonly all: MechanismEquations;
  private readonly keys: readonly CoordinateKey[];

  /** @param prescribed the coordinates that are driven */
  constructor(
    private readonly mechanism: Mechanism,
    prescribed: readonly CoordinateKey[],
    private readonly contacts?: Contacts,
  ) {
    this.metric = new MotionMetric(mechanism, prescribed, contacts?.boxes ?? []);
    const { mechanism: merged } = this.metric.equations;
    this.keys = merged.joints.flatMap(({ id, kind }) => JOINTS[kind].leaves.map((name) => coordinateKey(id, name)));
    this.all = new MechanismEquations({ ...merged, relations: [], ratios: [] }, this.keys);
  }

  /**
   * @param driven how far each coordinate that is driven goes by a unit of the way, rad or mm; it goes evenly
   * @returns undefined at a dead point: nothing moves as is asked, or only infinitely fast
   */
  at(pose: Pose, driven: Coordinates): Motion | undefined {
    const { equations, motion } = this.metric;
    const { columns } = equations;
    const poses = motion.reduced.poses(pose);
    const told = this.told(poses, pose.coordinates, driven);
    const touches = this.contacts?.touching(pose) ?? [];
    const first = this.least(
      told,
      touches.map(({ pushes }) => this.metric.rowOf(pushes, poses, columns)),
    );
    if (!first) return undefined;
    const readings = this.readings(poses, pose.coordinates);
    const going: Going = {
      ...{ pose, poses, driven, motion: first.motion },
      coordinates: this.coordinatesOf(readings, first.motion),
      pushing: first.pushing.map((k) => touches[k]!),
    };
    return {
      first: { bodies: this.bodies(going), coordinates: going.coordinates },
      second: this.changing(going, told, readings),
    };
  }

  /** How a motion changes as it goes on; undefined where what touches does not go on touching as it does. */
  private changing(going: Going, told: Linear, readings: readonly Float64Array[]): Rates | undefined {
    const { motion, pose, poses, driven, pushing } = going;
    const { size } = this.mechanism;
    const speed = Math.max(norm(motion), ...[...driven].map(([key, by]) => Math.abs(by) * scaleOf(key, size)));
    const step = (BESIDE * size) / Math.max(speed, BESIDE);
    const [ahead, behind] = [this.beside(going, step), this.beside(going, -step)];
    if (!ahead || !behind) return undefined;
    const bend = (a: readonly Float64Array[], b: readonly Float64Array[]): number[] =>
      a.map((row, k) => (inner(row, motion) - inner(b[k]!, motion)) / (2 * step));
    const pushed = pushing.map(({ pushes }) => this.metric.rowOf(pushes, poses, this.metric.equations.columns));
    const rows = [...told.rows, ...pushed];
    const asked = [...bend(ahead.told, behind.told), ...bend(ahead.pushed, behind.pushed)].map((by) => -by);
    // what goes straight asks for nothing, but for rounding
    const found = this.least({ rows, asked }, [], speed ** 2 / size);
    if (!found) return undefined;
    const straight = this.coordinatesOf(readings, found.motion);
    const curved = bend(ahead.readings, behind.readings);
    return {
      bodies: this.bodies({ pose, poses, motion }, found.motion),
      coordinates: new Map(this.keys.map((key, k) => [key, straight.get(key)! + curved[k]!])),
    };
  }

  /** All equations a little further on a motion; undefined where what pushes does not do so there. */
  private beside({ pose, poses, driven, motion, coordinates, pushing }: Going, step: number): Side | undefined {
    const { equations, motion: merged } = this.metric;
    const plain = this.metric.plain(motion, poses).map((c) => step * c);
    const moved = equations.moved({ ...pose, poses }, plain);
    const there = new Map([...pose.coordinates].map(([key, c]) => [key, c + step * (coordinates.get(key) ?? 0)]));
    const near =
      pushing.length === 0
        ? []
        : this.contacts!.touching({ poses: merged.reduced.whole(moved) }, BESIDE * this.mechanism.size);
    const still = pushing.flatMap(
      ({ pair, key }) => near.find((touch) => pair === touch.pair && key === touch.key) ?? [],
    );
    if (still.length < pushing.length) return undefined;
    return {
      told: this.told(moved, there, driven).rows,
      pushed: still.map(({ pushes }) => this.metric.rowOf(pushes, moved, equations.columns)),
      readings: this.readings(moved, there),
    };
  }

  /** What joints, relations, ratios and what is driven ask of a motion. */
  private told(poses: readonly RigidTransform[], coordinates: Coordinates, driven: Coordinates): Linear {
    const { equations } = this.metric;
    const pose = { ...AT_REST, poses, coordinates };
    const { residuals, rows, keys } = equations.linearised(pose, coordinates);
    const ahead = new Map([...driven].map(([key, by]) => [key, (coordinates.get(key) ?? 0) + by]));
    // ratios are linear in what is driven
    const after = equations.linearised(pose, ahead).residuals;
    return {
      rows: rows.map((row) => this.metric.weighed(row, poses, equations.columns)),
      asked: keys.map((key, k) =>
        key === undefined ? residuals[k]! - after[k]! : (driven.get(key) ?? 0) * scaleOf(key, this.mechanism.size),
      ),
    };
  }

  /**
   * The least motion that does what is asked, and brings nothing that touches nearer.
   * @param scale how large what is asked may be at least, so that rounding is known for that
   */
  private least({ rows, asked }: Linear, touching: readonly Float64Array[], scale = 0) {
    const { columns } = this.metric.equations;
    const { free, particular } = rangeSplit(rows, columns);
    const base = particular(asked);
    const most = Math.max(...asked.map(Math.abs), scale);
    if (rows.some((row, k) => Math.abs(inner(row, base) - asked[k]!) > MISSED * most)) return undefined;
    const found = nearestInPolyhedron(
      new Float64Array(free.length),
      touching.map((row) => ({ along: Float64Array.from(free, (way) => inner(row, way)), least: -inner(row, base) })),
    );
    if (!found) return undefined;
    const motion = Float64Array.from(base);
    free.forEach((way, n) => way.forEach((c, at) => (motion[at]! += found.at[n]! * c)));
    return { motion, pushing: [...found.pushes.keys()].filter((k) => found.pushes[k]! > PUSHING) };
  }

  /** How each coordinate changes with a motion, by the order of the keys. */
  private readings(poses: readonly RigidTransform[], coordinates: Coordinates): Float64Array[] {
    const { rows, keys } = this.all.linearised({ ...AT_REST, poses, coordinates }, coordinates);
    const { columns } = this.metric.equations;
    return this.keys.map((key) => {
      const row = rows[keys.indexOf(key)]!.map((c) => c / scaleOf(key, this.mechanism.size));
      return this.metric.weighed(row, poses, columns);
    });
  }

  private coordinatesOf = (rows: readonly Float64Array[], motion: Float64Array): Coordinates =>
    new Map(this.keys.map((key, k) => [key, inner(rows[k]!, motion)]));

  /** How all bodies go by the motion of what they are part of, and how that changes where a second one is told. */
  private bodies({ pose, poses, motion }: Pick<Going, 'pose' | 'poses' | 'motion'>, second?: Float64Array) {
    const { part } = this.metric.motion.reduced;
    return pose.poses.map((own, body): Twist => {
      const [going, changing] = [motion, second].map((one) => one && this.metric.twistOf(one, part[body]!));
      const arm = sub3(originOf(own), this.metric.middleOf(part[body]!, poses));
      const origin = carriedBy(going!, changing, arm);
      return changing ? { shift: origin.second!, turn: changing.turn } : { shift: origin.first, turn: going!.turn };
    });
  }
}

/** Equations beside a pose: what is told, what touches as far as it still does there, and the coordinates. */
interface Side {
  readonly told: readonly Float64Array[];
  readonly pushed: readonly Float64Array[];
  readonly readings: readonly Float64Array[];
}

/** A motion in a pose. */
interface Going {
  readonly pose: Pose;
  /** Of the bodies of the merged mechanism. */
  readonly poses: readonly RigidTransform[];
  readonly driven: Coordinates;
  readonly motion: Float64Array;
  readonly coordinates: Coordinates;
  /** What pushes and is pushed. */
  readonly pushing: readonly Touch[];
}

const AT_REST: Omit<Pose, 'poses' | 'coordinates'> = { fulfilled: true, residual: 0, suspects: [] };
