import type { CoordinateKey } from '../naming/index.ts';
import {
  inner,
  nearestInPolyhedron,
  norm,
  rangeSplit,
  type Box3,
  type HalfSpace,
  type RigidTransform,
} from '../math/index.ts';
import {
  measured,
  MechanismEquations,
  scaleOf,
  type Coordinates,
  type LinearMotion,
  type Mechanism,
  type Pose,
} from './mechanism.ts';
import { MotionMetric, type Push } from './motion-metric.ts';

/** What may not come below 0, mm, and how it changes: by what a place of a body moves along a direction of space. */
export interface Unilateral {
  readonly value: number;
  readonly pushes: readonly Push[];
}

/** What is asked: to be as near to a pose as can be, in mm at the middles of the bodies and by their turns. */
export interface Wanted<U extends Unilateral> {
  readonly target: Pose;
  /** Where the step begins: a coordinate that is beyond its limit there may stay there. */
  readonly from: Pose;
  /** What is prescribed at a share of the way. */
  at(share: number): Coordinates;
  /** The share that is to be reached. */
  readonly share: number;
  /** The share that was reached; where it is told, the way may end anywhere between. */
  readonly reached?: number;
  /** What may not come below 0, in a pose. */
  unilaterals(pose: Pick<Pose, 'poses'>): readonly U[];
}

interface Kept<U extends Unilateral> {
  readonly pose: Pose;
  readonly share: number;
  /** What holds something off there, and coordinates whose limits do. */
  readonly pushing: readonly U[];
  readonly stops: readonly CoordinateKey[];
}

/** A length, mm, or share, that is rounding: of steps, and of what is below 0. */
const SETTLED = 1e-9;
const MOST_STEPS = 40;
/** How much more what is prescribed counts than all else, where it may stay behind. */
const INSISTENT = 1e4;

/**
 * A mechanism under conditions that hold to one side only: parts that touch do not enter each other, coordinates do not pass
 * their limits. A pose is sought that is nearest to a target; each step solves the linear problem exactly (sequential quadratic
 * programming: Nocedal, Wright 2006, ch. 18) in the freedoms that the joints leave.
 */
export class UnilateralEquations {
  private readonly metric: MotionMetric;
  private readonly equations: MechanismEquations;
  private readonly limits: MechanismEquations;

  /**
   * @param prescribed coordinates that are given values
   * @param boxes by the places of the bodies: what they carry, in their own coordinates
   */
  constructor(
    private readonly mechanism: Mechanism,
    prescribed: readonly CoordinateKey[],
    boxes: readonly (Box3 | undefined)[],
  ) {
    this.metric = new MotionMetric(mechanism, prescribed, boxes);
    this.equations = this.metric.equations;
    const { mechanism: merged } = this.equations;
    const limited = [...merged.limits.keys()].filter((key) => !prescribed.includes(key));
    this.limits = new MechanismEquations({ ...merged, relations: [], ratios: [] }, limited);
  }

  /** The nearest pose in which everything holds; undefined where there is none, or none is found. */
  nearest<U extends Unilateral>(wanted: Wanted<U>): Kept<U> | undefined {
    const { target, reached } = wanted;
    const { poses: reduced, whole } = this.metric.motion.reduced;
    const begun = reduced(target);
    const columns = this.equations.columns + (reached === undefined ? 0 : 1);
    const insisting = reached === undefined ? 0 : this.insistence(wanted);
    let [poses, share]: [readonly RigidTransform[], number] = [begun, wanted.share];
    let [pushing, stops]: [readonly U[], readonly CoordinateKey[]] = [[], []];
    let last = Infinity;
    for (let k = 0; k < MOST_STEPS; k++) {
      const coordinates = measured(this.equations.mechanism, poses, target.coordinates);
      const told = this.told({ ...target, poses }, coordinates, wanted, share, columns, insisting);
      const unilaterals = wanted.unilaterals({ poses: whole(poses) });
      const limits = this.limitRows(poses, coordinates, wanted.from.coordinates, columns);
      const rows = [
        ...unilaterals.map((one) => ({ value: one.value, row: this.metric.rowOf(one.pushes, poses, columns) })),
        ...limits,
        ...(reached === undefined ? [] : slackRows(share - reached, wanted.share - share, columns, insisting)),
      ];
      const off = Math.max(...told.residuals.map(Math.abs), ...rows.map(({ value }) => -value), 0);
      if (last < SETTLED && off < 10 * SETTLED * Math.max(1, this.mechanism.size / 100))
        return {
          pose: { ...target, poses: whole(poses), coordinates, fulfilled: true, suspects: [] },
          ...{ share, pushing, stops },
        };
      const { free, particular } = rangeSplit(told.rows, columns);
      const base = particular(told.residuals.map((residual) => -residual));
      const gone = this.metric.gone(begun, poses, target.coordinates, coordinates, columns);
      if (reached !== undefined) gone[columns - 1] = insisting * (share - wanted.share);
      const halfSpaces = rows.map(({ value, row }): HalfSpace => ({
        along: Float64Array.from(free, (way) => inner(row, way)),
        least: -value - inner(row, base),
      }));
      const found = nearestInPolyhedron(
        Float64Array.from(free, (way) => -inner(gone, way)),
        halfSpaces,
      );
      if (!found) return undefined;
      const step = Float64Array.from(base);
      free.forEach((way, n) => way.forEach((c, at) => (step[at]! += found.at[n]! * c)));
      last = norm(step);
      const isPushing = (n: number) => found.pushes[n]! > SETTLED;
      pushing = unilaterals.filter((_, n) => isPushing(n));
      stops = limits.filter((_, n) => isPushing(unilaterals.length + n)).map(({ key }) => key);
      poses = this.equations.moved({ ...NOWHERE, poses }, this.metric.plain(step, poses));
      if (reached !== undefined) share += step[columns - 1]! / insisting;
    }
    return undefined;
  }

  /** The whole way of what is prescribed as a length, so many times: what the share weighs. */
  private insistence({ at, share }: Wanted<Unilateral>): number {
    const [from, to] = [at(share - 1), at(share)];
    const way = [...to].map(([key, value]) => (value - from.get(key)!) * scaleOf(key, this.mechanism.size));
    return INSISTENT * Math.max(1e-6, Math.hypot(...way));
  }

  /** What joints, relations, ratios and what is prescribed tell. */
  private told(
    pose: Pose,
    coordinates: Coordinates,
    { at }: Wanted<Unilateral>,
    share: number,
    columns: number,
    insisting: number,
  ): Pick<LinearMotion, 'residuals' | 'rows'> {
    const { residuals, rows } = this.equations.linearised(pose, at(share), coordinates);
    const weighed = rows.map((row) => this.metric.weighed(row, pose.poses, columns));
    if (insisting > 0) {
      const beside = this.equations.linearised(pose, at(share + BESIDE), coordinates).residuals;
      weighed.forEach((row, k) => (row[columns - 1] = (beside[k]! - residuals[k]!) / BESIDE / insisting));
    }
    return { residuals, rows: weighed };
  }

  /** How far coordinates are within their limits, or within where they were if that was beyond. */
  private limitRows(
    poses: readonly RigidTransform[],
    coordinates: Coordinates,
    before: Coordinates,
    columns: number,
  ): readonly { readonly key: CoordinateKey; readonly value: number; readonly row: Float64Array }[] {
    const { limits, size } = this.limits.mechanism;
    if (this.limits.prescribed.length === 0) return [];
    const { rows, keys } = this.limits.linearised({ ...NOWHERE, poses, coordinates }, coordinates);
    return keys.flatMap((key, k) => {
      const [value, range] = key === undefined ? [] : [coordinates.get(key), limits.get(key)];
      if (key === undefined || value === undefined || !range) return [];
      const was = before.get(key) ?? value;
      const [least, most] = [Math.min(range[0], was), Math.max(range[1], was)];
      const row = this.metric.weighed(rows[k]!, poses, columns);
      const scale = scaleOf(key, size);
      return [
        ...(least > -Infinity ? [{ key, value: scale * (value - least), row }] : []),
        ...(most < Infinity ? [{ key, value: scale * (most - value), row: row.map((c) => -c) }] : []),
      ];
    });
  }
}

/** A share further on, to see how what is prescribed changes. */
const BESIDE = 1e-6;
const NOWHERE: Omit<Pose, 'poses'> = { coordinates: new Map(), fulfilled: true, residual: 0, suspects: [] };

/** The share of the way does not fall behind what was reached, nor go beyond what is asked. */
function slackRows(ahead: number, left: number, columns: number, insisting: number) {
  const row = (sign: 1 | -1) => {
    const only = new Float64Array(columns);
    only[columns - 1] = sign;
    return only;
  };
  return [
    { value: insisting * ahead, row: row(1) },
    { value: insisting * left, row: row(-1) },
  ];
}
