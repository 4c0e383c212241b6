import { dot3, sub3, type Movement, type Vec3 } from '../math/index.ts';
import {
  freedoms,
  GROUND,
  Solver,
  type Block,
  type Freedoms,
  type Problem,
  type Solution,
  type Substitution,
} from '../solver/index.ts';
import {
  isAngular,
  SPACE,
  valueOf,
  type BodyIndex,
  type Direction,
  type Equation,
  type Gradient,
  type Place,
} from './equations.ts';
import { coordinateOf, heldBy, isTurn, JOINTS, type Carried, type Coordinate, type JointName } from './joints.ts';
import { movedBy, movedPose, originOf, squared, torqueOnVector, turnedBy, turnedByVector } from './pose.ts';

/** Rigid bodies and what holds them together: the mechanics of an assembly, without the shapes of its parts. */
export interface Mechanism {
  readonly bodies: readonly Body[];
  readonly joints: readonly Joint[];
  readonly relations: readonly Relation[];
  readonly ratios: readonly Ratio[];
  /** About how large it is, mm: how much a turn weighs against a shift. */
  readonly size: number;
}

export interface Body {
  readonly id: string;
  readonly pose: Movement;
  /** Does it stand still in space? */
  readonly held: boolean;
}

export interface Joint {
  readonly id: string;
  readonly kind: JointName;
  readonly a: Carried;
  readonly b: Carried;
}

/** Equations that hold between bodies besides joints. */
export interface Relation {
  readonly id: string;
  readonly equations: readonly Equation[];
}

/** Two coordinates that go together: `second` changes by `factor` times what `first` does (gears, rack and pinion). */
export interface Ratio {
  readonly id: string;
  readonly first: CoordinateKey;
  readonly second: CoordinateKey;
  readonly factor: number;
}

/** A coordinate of a joint: "j1 turn". */
export type CoordinateKey = `${string} ${Coordinate}`;
export const keyOf = (joint: string, coordinate: Coordinate): CoordinateKey => `${joint} ${coordinate}`;

/** Values of coordinates, rad or mm. */
export type Coordinates = ReadonlyMap<CoordinateKey, number>;

export interface Pose {
  /** By the places of the bodies. */
  readonly poses: readonly Movement[];
  readonly coordinates: Coordinates;
  readonly fulfilled: boolean;
  /** The largest residual, mm. */
  readonly residual: number;
  /** Ids of joints, relations and ratios that could not all be fulfilled. */
  readonly suspects: readonly string[];
}

/** A mechanism as it stands: every coordinate measured, none held. */
export const restOf = (mechanism: Mechanism): Pose => ({
  poses: mechanism.bodies.map(({ pose }) => pose),
  coordinates: measured(
    mechanism,
    mechanism.bodies.map(({ pose }) => pose),
    new Map(),
  ),
  fulfilled: true,
  residual: 0,
  suspects: [],
});

/** The coordinates of all joints where bodies are; angles within half a turn of what they were. */
export function measured(
  mechanism: Mechanism,
  poses: readonly Movement[],
  before: Coordinates,
): Map<CoordinateKey, number> {
  const found = new Map<CoordinateKey, number>();
  for (const { id, kind, a, b } of mechanism.joints) {
    const [pa, pb] = [a, b].map(({ body }) => (body === SPACE ? undefined : poses[body]));
    const place = (pose: Movement | undefined, at: Vec3) => (pose ? movedBy(pose, at) : at);
    const along = (pose: Movement | undefined, u: Vec3) => (pose ? turnedBy(pose, u) : u);
    const [x, y, z] = [a.frame.x, a.frame.y, a.frame.z].map((u) => along(pa, u)) as [Vec3, Vec3, Vec3];
    const way = sub3(place(pb, b.frame.origin), place(pa, a.frame.origin));
    const v = along(pb, b.frame.x);
    const values: Readonly<Record<Coordinate, number>> = {
      turn: Math.atan2(dot3(y, v), dot3(x, v)),
      slide: dot3(way, z),
      'slide x': dot3(way, x),
      'slide y': dot3(way, y),
    };
    for (const coordinate of JOINTS[kind].leaves) {
      const key = keyOf(id, coordinate);
      const was = before.get(key);
      const value = values[coordinate];
      found.set(key, isTurn(coordinate) && was !== undefined ? nearTo(value, was) : value);
    }
  }
  return found;
}

/** The same angle, within half a turn of another. */
const nearTo = (angle: number, other: number): number =>
  angle + 2 * Math.PI * Math.round((other - angle) / (2 * Math.PI));

/**
 * A mechanism made ready to be solved from several poses. Unknowns are the shift of each free body and its turn from
 * where it is, as a rotation vector times the size; and the coordinates that are held or tied to each other.
 */
export class Motion {
  private readonly at: readonly number[];
  private readonly tied: ReadonlyMap<CoordinateKey, number>;
  private readonly unknowns: number;

  /** Of the place that is grabbed: where it shall come to, three unknowns. */
  private readonly goal: number;

  /**
   * @param held coordinates that are given values when it is solved
   * @param grabbed a place of a body that is pulled somewhere
   */
  constructor(
    readonly mechanism: Mechanism,
    private readonly held: readonly CoordinateKey[] = [],
    private readonly grabbed?: Place,
  ) {
    let next = 0;
    this.at = mechanism.bodies.map(({ held: still }) => (still ? -1 : (next += 6) - 6));
    const keys = new Set([...held, ...mechanism.ratios.flatMap(({ first, second }) => [first, second])]);
    this.tied = new Map([...keys].map((key, k) => [key, next + k]));
    this.goal = next + keys.size;
    this.unknowns = this.goal + (grabbed ? 3 : 0);
  }

  /**
   * The pose nearest to another in which everything holds, held coordinates have these values, and what is grabbed comes
   * as near to a place as it can.
   */
  solve(from: Pose, values: Coordinates = new Map(), goal?: Vec3): Pose {
    const solution = this.solution(from, values, goal);
    const poses = this.mechanism.bodies.map(({ pose }, k) => {
      const at = this.at[k]!;
      if (at < 0) return pose;
      const base = from.poses[k]!;
      return squared(movedPose(base, vector(solution.x, at), scaled(solution.x, at + 3, 1 / this.mechanism.size)));
    });
    return {
      poses,
      coordinates: measured(this.mechanism, poses, from.coordinates),
      fulfilled: solution.fulfilled,
      residual: solution.residual,
      suspects: solution.suspects,
    };
  }

  /** What can still move there, with the coordinates held that are. */
  freedoms(at: Pose): Freedoms {
    return freedoms(this.solution(at, at.coordinates));
  }

  /** The unknowns that belong to a body: shift, then turn times size; none where it is held. */
  unknownsOf = (body: BodyIndex): number | undefined => (this.at[body]! < 0 ? undefined : this.at[body]);

  private solution(from: Pose, values: Coordinates, goal?: Vec3): Solution {
    const { size } = this.mechanism;
    const initial = new Float64Array(this.unknowns);
    this.at.forEach((at, k) => {
      if (at >= 0) originOf(from.poses[k]!).forEach((c, n) => (initial[at + n] = c));
    });
    for (const [key, at] of this.tied)
      initial[at] = (values.get(key) ?? from.coordinates.get(key) ?? 0) * scaleOf(key, size);
    const substitutions = this.held.map((key): Substitution => ({
      owner: `held ${key}`,
      a: this.tied.get(key)!,
      b: GROUND,
      offset: initial[this.tied.get(key)!]!,
    }));
    const weights = new Float64Array(this.unknowns).fill(1);
    if (this.grabbed) {
      const reached = goal ?? movedBy(from.poses[this.grabbed.body]!, this.grabbed.at);
      reached.forEach((c, k) => {
        initial[this.goal + k] = c;
        weights[this.goal + k] = PULL;
      });
    }
    const problem: Problem = { initial, blocks: this.blocks(from), substitutions, weights };
    return new Solver(problem).solve();
  }

  private blocks(from: Pose): Block[] {
    const { joints, relations, ratios } = this.mechanism;
    return [
      ...joints.flatMap(({ id, kind, a, b }) => [
        ...heldBy(kind, a, b).map((equation) => this.block(id, equation, from)),
        ...JOINTS[kind].leaves.flatMap((coordinate) => {
          const at = this.tied.get(keyOf(id, coordinate));
          return at === undefined ? [] : [this.block(id, coordinateOf(coordinate, a, b, at), from)];
        }),
      ]),
      ...relations.flatMap(({ id, equations }) => equations.map((equation) => this.block(id, equation, from))),
      ...ratios.map((ratio) => this.ratio(ratio, from)),
      ...(this.grabbed ? this.pull(this.grabbed).map((equation) => this.block('grab', equation, from)) : []),
    ];
  }

  /** The place that is grabbed lies at its goal, whose coordinates are unknowns that hardly move. */
  private pull(place: Place): Equation[] {
    return AXES.map((along, k) => ({
      form: 'span',
      from: { body: SPACE, at: [0, 0, 0] },
      to: place,
      along: { body: SPACE, along },
      is: 0,
      coordinate: this.goal + k,
    }));
  }

  private block(owner: string, equation: Equation, from: Pose): Block {
    const { size } = this.mechanism;
    const bodies = bodiesOf(equation).filter((body) => body !== SPACE && this.at[body]! >= 0);
    const coordinate = 'coordinate' in equation ? equation.coordinate : undefined;
    const unknowns = [
      ...bodies.flatMap((body) => Array.from({ length: 6 }, (_, k) => this.at[body]! + k)),
      ...(coordinate === undefined ? [] : [coordinate]),
    ];
    const unit = isAngular(equation) ? size : 1;
    // the coordinate of a turn is an angle, kept as a length like all else
    const scale = equation.form === 'turn' ? 1 / size : 1;
    return {
      owner,
      unknowns,
      residuals: 1,
      evaluate(p, r, j) {
        j.fill(0);
        const local = (body: BodyIndex) => 6 * bodies.indexOf(body);
        const turnOf = (body: BodyIndex): Vec3 | undefined =>
          bodies.includes(body) ? scaled(p, local(body) + 3, 1 / size) : undefined;
        const along = ({ body, along: u }: Direction): Vec3 => {
          if (body === SPACE) return u;
          const base = turnedBy(from.poses[body]!, u);
          const turn = turnOf(body);
          return turn ? turnedByVector(turn, base) : base;
        };
        const arm = ({ body, at }: Place): Vec3 => (body === SPACE ? at : along({ body, along: at }));
        const gradient: Gradient = {
          force(body, force) {
            if (!bodies.includes(body)) return;
            force.forEach((c, k) => (j[local(body) + k]! += unit * c));
          },
          torque(body, torque) {
            const turn = turnOf(body);
            if (!turn) return;
            torqueOnVector(turn, torque).forEach((c, k) => (j[local(body) + 3 + k]! += (unit / size) * c));
          },
          coordinate: (_, slope) => void (j[unknowns.length - 1] = unit * scale * slope),
        };
        r[0] =
          unit *
          valueOf(
            equation,
            {
              direction: along,
              arm,
              place(place) {
                const { body } = place;
                if (body === SPACE) return place.at;
                const origin = bodies.includes(body) ? vector(p, local(body)) : originOf(from.poses[body]!);
                const [x, y, z] = arm(place);
                return [origin[0] + x, origin[1] + y, origin[2] + z];
              },
              coordinate: () => p[unknowns.length - 1]! * scale,
            },
            gradient,
          );
      },
    };
  }

  /** Both change together from where they are. */
  private ratio({ id, first, second, factor }: Ratio, from: Pose): Block {
    const { size } = this.mechanism;
    const [a, b] = [first, second].map((key) => scaleOf(key, size)) as [number, number];
    const [p0, q0] = [first, second].map((key) => from.coordinates.get(key) ?? 0) as [number, number];
    return {
      owner: id,
      unknowns: [this.tied.get(first)!, this.tied.get(second)!],
      residuals: 1,
      evaluate(p, r, j) {
        // in the unit of the second
        r[0] = p[1]! - b * q0 - b * factor * (p[0]! / a - p0);
        [j[0], j[1]] = [(-b * factor) / a, 1];
      },
    };
  }
}

/** How much less willing the goal of a pull is to move than the bodies are. */
const PULL = 1e4;
const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** Angles count as lengths of an arc of the size. */
const scaleOf = (key: CoordinateKey, size: number): number => (key.endsWith(' turn') ? size : 1);

const vector = (x: Float64Array, at: number): Vec3 => [x[at]!, x[at + 1]!, x[at + 2]!];
const scaled = (x: Float64Array, at: number, by: number): Vec3 => [x[at]! * by, x[at + 1]! * by, x[at + 2]! * by];

function bodiesOf(equation: Equation): BodyIndex[] {
  const parts: readonly (Place | Direction | undefined)[] =
    equation.form === 'dot'
      ? [equation.a, equation.b]
      : equation.form === 'turn'
        ? [equation.x, equation.b]
        : equation.form === 'span'
          ? [equation.from, equation.to, equation.along]
          : [equation.from, equation.to, equation.across];
  return [...new Set(parts.flatMap((part) => (part ? [part.body] : [])))];
}
