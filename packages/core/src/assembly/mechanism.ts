import { coordinateKey, isAngle, isTurn, type Coordinate, type CoordinateKey } from '../naming/index.ts';
import { add3, dot3, transformPoint, sub3, transformDirection, type RigidTransform, type Vec3 } from '../math/index.ts';
import { freedoms, Solver, type Block, type Freedoms, type Solution } from '../solver/index.ts';
import {
  bodiesOf,
  isAngular,
  overSides,
  SPACE,
  valueOf,
  type BodyIndex,
  type Direction,
  type Equation,
  type Gradient,
  type Place,
  type Positions,
} from './equations.ts';
import { coordinateEquation, jointEquations, JOINTS, type Carried, type JointName } from './joints.ts';
import { displacedPose, originOf, orthonormalised, torqueOnVector, rotateByVector } from './pose.ts';

/** Rigid bodies and what holds them together: the mechanics of an assembly, without the shapes of its parts. */
export interface Mechanism {
  readonly bodies: readonly Body[];
  readonly joints: readonly Joint[];
  readonly relations: readonly Relation[];
  readonly ratios: readonly Ratio[];
  readonly limits: Limits;
  /** About how large it is, mm: how much a turn weighs against a shift. */
  readonly size: number;
}

export interface Body {
  readonly id: string;
  readonly pose: RigidTransform;
  /** Does it stand still in space? */
  readonly grounded: boolean;
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
  /** Which of the two ways round, where its equations would hold both ways. */
  readonly facing?: Facing;
}

/** Two directions that come to look the same way, or against each other. */
export interface Facing {
  readonly a: Direction;
  readonly b: Direction;
  readonly is: 1 | -1;
}

/** The relation with every place and direction in it changed. */
export const overRelation = (
  { id, equations, facing }: Relation,
  change: <S extends Place | Direction>(side: S) => S,
): Relation => ({
  id,
  equations: equations.map((equation) => overSides(equation, change)),
  ...(facing ? { facing: { ...facing, a: change(facing.a), b: change(facing.b) } } : {}),
});

/** Two coordinates that go together: `second` changes by `factor` times what `first` does (gears, rack and pinion). */
export interface Ratio {
  readonly id: string;
  readonly first: CoordinateKey;
  readonly second: CoordinateKey;
  readonly factor: number;
}

/** What coordinates may come to, rad or mm. */
export type Limits = ReadonlyMap<CoordinateKey, readonly [least: number, most: number]>;

/** Values of coordinates, rad or mm. */
export type Coordinates = ReadonlyMap<CoordinateKey, number>;

export interface Pose {
  /** By the places of the bodies. */
  readonly poses: readonly RigidTransform[];
  readonly coordinates: Coordinates;
  readonly fulfilled: boolean;
  /** The largest residual, mm. */
  readonly residual: number;
  /** Ids of joints, relations and ratios that could not all be fulfilled. */
  readonly suspects: readonly string[];
}

/** A mechanism as it stands: every coordinate measured, none prescribed. */
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
  poses: readonly RigidTransform[],
  before: Coordinates,
): Map<CoordinateKey, number> {
  const found = new Map<CoordinateKey, number>();
  for (const { id, kind, a, b } of mechanism.joints) {
    const [pa, pb] = [a, b].map(({ body }) => (body === SPACE ? undefined : poses[body]));
    const place = (pose: RigidTransform | undefined, at: Vec3) => (pose ? transformPoint(pose, at) : at);
    const along = (pose: RigidTransform | undefined, u: Vec3) => (pose ? transformDirection(pose, u) : u);
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
      const key = coordinateKey(id, coordinate);
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

/** All equations of a mechanism near a pose. */
export interface LinearMotion {
  readonly residuals: readonly number[];
  /** Derivatives by the shift of each body and by its turn times the size. */
  readonly rows: readonly Float64Array[];
  /** By the rows: the coordinate that it prescribes. */
  readonly keys: readonly (CoordinateKey | undefined)[];
}

/** What is solved: only the equations of directions, by turns; or all, by shifts; or all by both. */
export type Stage = 'turns' | 'shifts' | 'all';

/**
 * A mechanism made ready to be solved from several poses. Unknowns are the shift of each free body and its turn from
 * where it is, as a rotation vector times the size; the coordinates that are tied to each other; and where a place that
 * is grabbed comes to.
 */
export class MechanismEquations {
  /** Where the unknowns of each body begin, its shift before its turn; below 0 where it is grounded. */
  readonly at: readonly number[];
  readonly tied: ReadonlyMap<CoordinateKey, number>;
  private readonly goal: number;
  private readonly unknowns: number;
  private readonly solver: Solver;
  /** By the rows: which coordinate it prescribes. */
  private readonly keys: (CoordinateKey | undefined)[] = [];
  /** From where it is being solved, and what is prescribed there: the equations read them. */
  private from: Pose;
  private values: Coordinates = new Map();

  /**
   * @param prescribed coordinates that are given values when it is solved
   * @param grabbed a place of a body that is pulled somewhere
   */
  constructor(
    readonly mechanism: Mechanism,
    readonly prescribed: readonly CoordinateKey[] = [],
    private readonly grabbed?: Place,
    private readonly stage: Stage = 'all',
  ) {
    let next = 0;
    this.at = mechanism.bodies.map(({ grounded }) => (grounded ? -1 : (next += 6) - 6));
    const ratios = mechanism.ratios.flatMap(({ first, second }) => [first, second]);
    const tied = [...new Set(ratios)].filter((key) => !prescribed.includes(key));
    this.tied = new Map(tied.map((key, k) => [key, next + k]));
    this.goal = next + tied.length;
    this.unknowns = this.goal + (grabbed ? 3 : 0);
    this.from = restOf(mechanism);
    this.solver = new Solver(
      {
        initial: new Float64Array(this.unknowns),
        blocks: this.blocks(),
        substitutions: [],
        size_mm: mechanism.size,
      },
      { strategy: 'together' },
    );
  }

  /**
   * The pose nearest to another in which everything holds, prescribed coordinates have these values, and what is grabbed comes
   * as near to a place as it can.
   */
  solve(from: Pose, values: Coordinates = new Map(), goal?: Vec3): Pose {
    const solution = this.solution(from, values, goal);
    const poses = from.poses.map((base, k) => {
      const at = this.at[k]!;
      if (at < 0) return base;
      return orthonormalised(
        displacedPose(base, vector(solution.x, at), scaled(solution.x, at + 3, 1 / this.mechanism.size)),
      );
    });
    return {
      poses,
      coordinates: measured(this.mechanism, poses, from.coordinates),
      fulfilled: solution.fulfilled,
      residual: solution.residual,
      suspects: solution.suspects,
    };
  }

  /** What can still move there, with the coordinates prescribed that are. */
  freedoms(at: Pose, tolerance?: number): Freedoms {
    return freedoms(this.solution(at, at.coordinates), tolerance);
  }

  /**
   * What everything comes to in a pose, and how that changes with a small motion from there.
   * @param coordinates of that pose; ratios count from those that it carries
   */
  linearised(from: Pose, values: Coordinates, coordinates = from.coordinates): LinearMotion {
    [this.from, this.values] = [from, values];
    const { residuals, rows } = this.solver.linearised(this.begin(from, coordinates));
    return { residuals, rows, keys: this.keys };
  }

  /** How many unknowns a small motion has. */
  get columns(): number {
    return this.unknowns;
  }

  /** Where bodies are after a small motion from a pose. */
  moved(from: Pose, by: Float64Array): RigidTransform[] {
    return from.poses.map((base, k) => {
      const at = this.at[k]!;
      if (at < 0) return base;
      const origin = add3(originOf(base), vector(by, at));
      return orthonormalised(displacedPose(base, origin, scaled(by, at + 3, 1 / this.mechanism.size)));
    });
  }

  private begin(from: Pose, coordinates = from.coordinates): Float64Array {
    const initial = new Float64Array(this.unknowns);
    this.at.forEach((at, k) => at >= 0 && initial.set(originOf(from.poses[k]!), at));
    for (const [key, at] of this.tied) initial[at] = (coordinates.get(key) ?? 0) * scaleOf(key, this.mechanism.size);
    return initial;
  }

  private solution(from: Pose, values: Coordinates, goal?: Vec3): Solution {
    [this.from, this.values] = [from, values];
    const initial = this.begin(from);
    const weights = new Float64Array(this.unknowns).fill(1);
    this.at.forEach((at) => at >= 0 && this.stage === 'shifts' && weights.fill(FIRM, at + 3, at + 6));
    if (this.grabbed) {
      initial.set(goal ?? transformPoint(from.poses[this.grabbed.body]!, this.grabbed.at), this.goal);
      weights.fill(PULL, this.goal);
    }
    return this.solver.solve(initial, weights);
  }

  /** What a coordinate that is prescribed is to come to. */
  private prescribedAt = (key: CoordinateKey): number => this.values.get(key) ?? this.from.coordinates.get(key) ?? 0;

  private blocks(): Block[] {
    const { joints, relations, ratios } = this.mechanism;
    const counts = (equation: Equation) => this.stage !== 'turns' || isAngular(equation);
    return [
      ...joints.flatMap(({ id, kind, a, b }) => [
        ...jointEquations(JOINTS[kind], a, b)
          .filter(counts)
          .map((equation) => this.block(id, equation)),
        ...JOINTS[kind].leaves.flatMap((coordinate) => {
          if (!isTurn(coordinate) && this.stage === 'turns') return [];
          const key = coordinateKey(id, coordinate);
          if (this.prescribed.includes(key)) return [this.block(id, coordinateEquation(coordinate, a, b, NONE), key)];
          const at = this.tied.get(key);
          return at === undefined ? [] : [this.block(id, coordinateEquation(coordinate, a, b, at))];
        }),
      ]),
      ...relations.flatMap(({ id, equations }) => equations.filter(counts).map((equation) => this.block(id, equation))),
      ...ratios.map((ratio) => this.ratio(ratio)),
      ...(this.grabbed ? this.pull(this.grabbed).map((equation) => this.block('grab', equation)) : []),
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

  /** @param prescribed the coordinate of the equation, where that is prescribed */
  private block(owner: string, equation: Equation, prescribed?: CoordinateKey): Block {
    this.keys.push(prescribed);
    const bodies = bodiesOf(equation).filter((body) => body !== SPACE && this.at[body]! >= 0);
    const coordinate = prescribed === undefined && 'coordinate' in equation ? equation.coordinate : undefined;
    const unknowns = [
      ...bodies.flatMap((body) => Array.from({ length: 6 }, (_, k) => this.at[body]! + k)),
      ...(coordinate === undefined ? [] : [coordinate]),
    ];
    const { size } = this.mechanism;
    const scales = {
      unit: isAngular(equation) ? size : 1,
      size,
      // the coordinate of a turn is an angle, kept as a length like all else
      coordinate: equation.form === 'turn' ? 1 / size : 1,
    };
    const linearisation = new Linearisation(bodies, scales, (body) => this.from.poses[body]!);
    return {
      owner,
      unknowns,
      residuals: 1,
      evaluate: (p, r, j) => {
        linearisation.begin(p, j, prescribed === undefined ? undefined : this.prescribedAt(prescribed));
        r[0] = scales.unit * valueOf(equation, linearisation, linearisation);
      },
    };
  }

  /** Both change together from where they are. */
  private ratio({ id, first, second, factor }: Ratio): Block {
    const { size } = this.mechanism;
    const sides = [first, second].map((key, k) => ({
      key,
      // in the unit of the second
      factor: (k === 0 ? -factor : 1) * scaleOf(second, size),
      at: this.tied.get(key),
      scale: 1 / scaleOf(key, size),
    }));
    const free = sides.filter(({ at }) => at !== undefined);
    this.keys.push(undefined);
    return {
      owner: id,
      unknowns: free.map(({ at }) => at!),
      residuals: 1,
      evaluate: (p, r, j) => {
        r[0] = 0;
        for (const side of sides) {
          const k = free.indexOf(side);
          const value = k < 0 ? this.prescribedAt(side.key) : p[k]! * side.scale;
          r[0] += side.factor * (value - (this.from.coordinates.get(side.key) ?? 0));
          if (k >= 0) j[k] = side.factor * side.scale;
        }
      },
    };
  }
}

interface Scales {
  /** Of the residual: angles count as lengths of an arc. */
  readonly unit: number;
  readonly size: number;
  readonly coordinate: number;
}

/** The bodies of one equation as its unknowns place them, and where its gradient goes. */
class Linearisation implements Positions, Gradient {
  private p: Float64Array = new Float64Array(0);
  private j: Float64Array = new Float64Array(0);
  private prescribed: number | undefined;

  constructor(
    private readonly bodies: readonly BodyIndex[],
    private readonly scales: Scales,
    private readonly poseOf: (body: BodyIndex) => RigidTransform,
  ) {}

  /** @param prescribed what its coordinate comes to, where that is no unknown */
  begin(p: Float64Array, j: Float64Array, prescribed: number | undefined): void {
    j.fill(0);
    [this.p, this.j, this.prescribed] = [p, j, prescribed];
  }

  direction({ body, along }: Direction): Vec3 {
    if (body === SPACE) return along;
    const base = transformDirection(this.poseOf(body), along);
    const turn = this.turnOf(body);
    return turn ? rotateByVector(turn, base) : base;
  }

  arm = ({ body, at }: Place): Vec3 => this.direction({ body, along: at });

  place(place: Place): Vec3 {
    if (place.body === SPACE) return place.at;
    const k = this.bodies.indexOf(place.body);
    const origin = k < 0 ? originOf(this.poseOf(place.body)) : vector(this.p, 6 * k);
    return add3(origin, this.arm(place));
  }

  /** It is the last of the unknowns. */
  coordinate = (): number => this.prescribed ?? this.p[6 * this.bodies.length]! * this.scales.coordinate;

  slope(_: number, slope: number): void {
    if (this.prescribed === undefined)
      this.j[6 * this.bodies.length] = this.scales.unit * this.scales.coordinate * slope;
  }

  force(body: BodyIndex, [x, y, z]: Vec3): void {
    const k = this.bodies.indexOf(body);
    if (k < 0) return;
    const { unit } = this.scales;
    this.j[6 * k]! += unit * x;
    this.j[6 * k + 1]! += unit * y;
    this.j[6 * k + 2]! += unit * z;
  }

  torque(body: BodyIndex, torque: Vec3): void {
    const turn = this.turnOf(body);
    if (!turn) return;
    const at = 6 * this.bodies.indexOf(body) + 3;
    const share = this.scales.unit / this.scales.size;
    const [x, y, z] = torqueOnVector(turn, torque);
    this.j[at]! += share * x;
    this.j[at + 1]! += share * y;
    this.j[at + 2]! += share * z;
  }

  private turnOf(body: BodyIndex): Vec3 | undefined {
    const k = this.bodies.indexOf(body);
    return k < 0 ? undefined : scaled(this.p, 6 * k + 3, 1 / this.scales.size);
  }
}

/** A coordinate that is no unknown. */
const NONE = -1;

/** How much less willing the goal of a pull is to move than the bodies are. */
const PULL = 1e4;
/** How much less willing bodies are to turn than to shift, where shifts alone are to do it: not at all, to rounding. */
const FIRM = 1e12;
const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** What a value of a coordinate counts as a length: angles as arcs of the size. */
export const scaleOf = (key: CoordinateKey, size: number): number => (isAngle(key) ? size : 1);

const vector = (x: Float64Array, at: number): Vec3 => [x[at]!, x[at + 1]!, x[at + 2]!];
const scaled = (x: Float64Array, at: number, by: number): Vec3 => [x[at]! * by, x[at + 1]! * by, x[at + 2]! * by];
