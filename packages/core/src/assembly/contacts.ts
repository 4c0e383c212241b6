import type { CoordinateKey } from '../naming/index.ts';
import { contactShape, ShapePair, type BoxedShape, type ContactShape, type ShapeGap } from '../contact/index.ts';
import type { BodyMesh, Topology } from '../kernel-port/index.ts';
import {
  boxRound,
  compose,
  inverse,
  scale3,
  transformBox,
  transformDirection,
  transformPoint,
  type Box3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { memberPose, type Member } from './member.ts';
import type { Mechanism, Pose } from './mechanism.ts';
import { Carriers } from './carriers.ts';
import { mayTouch } from './pairs.ts';
import type { Assembly } from './records.ts';
import type { Push } from './motion-metric.ts';
import { UnilateralEquations, type Unilateral, type Wanted } from './unilateral.ts';

/** A body of a member as what may touch. */
interface ContactBody extends BoxedShape {
  readonly member: Member;
}

/** A body of a part, as what may touch. */
export interface TouchingBody {
  readonly part: Id;
  readonly mesh: BodyMesh;
  readonly topology: Topology;
  readonly box: Box3;
  /** How far the mesh may be from the skin, mm. */
  readonly deflection: number;
}

/** What may touch of an assembly that is brought together, as it is told there. */
export function contactsOf(
  assembly: Pick<Assembly, 'pressed' | 'contacts'>,
  { mechanism, members }: { readonly mechanism: Mechanism; readonly members: readonly Member[] },
  bodies: readonly TouchingBody[],
): Contacts {
  return new Contacts(
    mechanism,
    members.flatMap((member) =>
      bodies
        .filter(({ part }) => part === member.part)
        .map((body) => ({ member, box: body.box, shape: touchingShape(body) })),
    ),
    mayTouch(assembly),
  );
}

/** Shapes that were made before, by their meshes. */
const SHAPES = new WeakMap<BodyMesh, ContactShape>();

/** The shape of a body, made once: a page may ask for each beforehand, one at a time. */
export function touchingShape({ mesh, topology, deflection }: TouchingBody): ContactShape {
  let shape = SHAPES.get(mesh);
  if (!shape) SHAPES.set(mesh, (shape = contactShape(mesh, topology, deflection)));
  return shape;
}

/** A place at which two members stand against each other, or nearly do. */
export interface Touch extends Unilateral {
  readonly a: string;
  readonly b: string;
  /** In space. */
  readonly at: Vec3;
  readonly pair: Pair;
  /** The two features that touch, of that pair. */
  readonly key: string;
}

/** A step of a motion, as far as what touches lets it go. */
type KeptStep =
  | {
      readonly kind: 'kept';
      readonly pose: Pose;
      readonly share: number;
      readonly against: readonly Touch[];
      /** Coordinates whose limits hold something off. */
      readonly stops: readonly CoordinateKey[];
    }
  /** It is too long to be sure: this share of it would do. */
  | { readonly kind: 'long'; readonly share: number }
  /** What was pushed is let go somewhere on it: a shorter one comes nearer to where. */
  | { readonly kind: 'leaving' }
  | { readonly kind: 'lost' };

/** Deeper in each other than this, mm, two parts overlap where they begin: they are left alone there until they are apart. */
const OVERLAPPING = 1e-3;
/** Where parts overlap by little that is told by their gaps, mm; by more their meshes tell. */
const SHALLOW = 0.1;
/** What is in each other by less than this, mm, touches. */
const TOUCHING = 1e-8;
/** What is apart by less than this, mm, has not left. */
const RESTING = 1e-7;
/** How far two parts may come to each other in a step that is not known to be clear: shares of the size and of the thinner one. */
const PACE = { size: 0.02, thinnest: 0.8, least: 0.05 };
/** So many times as far as it is asked to go a pair may go, to begin with. */
const DETOUR = 1.2;
const ROUNDS = 4;
/** Where what is pushed is let go is found to so many mm of the way. */
const LET_GO = 4e-3;
/** What is nearer than this share of the pace is minded before it touches. */
const MARGIN = 0.1;

/** Two members that may touch. */
interface Pair {
  readonly a: Member;
  readonly b: Member;
  readonly shapes: ShapePair;
}

interface Travels {
  readonly of: ReadonlyMap<Pair, number>;
  readonly long: number | undefined;
}

type Posed = Pick<Pose, 'poses'>;
type Step = Omit<Wanted<Touch>, 'unilaterals'>;

/**
 * What may touch in a mechanism: keeps its motions out of overlap. Pairs that are near are told by boxes and meshes, gaps by
 * exact surfaces; steps are so short that nothing is passed through (conservative advancement: Mirtich 1996); what is in the
 * way is pushed along by the least motion that its joints leave.
 */
export class Contacts {
  private readonly pairs: readonly Pair[];
  /** By the places of the bodies: what they carry, in their own coordinates. */
  readonly boxes: readonly (Box3 | undefined)[];
  /** What stood against each other in the step before. */
  private pushed: readonly Touch[] = [];
  private readonly equations = new Map<string, UnilateralEquations>();

  /** @param mayMeet by the ids of two members: are they to be kept out of each other? */
  constructor(
    private readonly mechanism: Mechanism,
    bodies: readonly ContactBody[],
    mayMeet: (a: string, b: string) => boolean,
  ) {
    const carriers = new Carriers(mechanism);
    const isStill = ({ member }: ContactBody) => carriers.isStill(member);
    this.pairs = bodies.flatMap((a, i) =>
      bodies.slice(i + 1).flatMap((b): Pair[] => {
        if (carriers.isOne(a.member, b.member) || (isStill(a) && isStill(b)) || !mayMeet(a.member.id, b.member.id))
          return [];
        const thinnest = Math.min(...[a.box, b.box].flatMap(({ low, high }) => high.map((c, k) => c - low[k]!)));
        const pace = Math.max(PACE.least, Math.min(PACE.size * mechanism.size, PACE.thinnest * thinnest));
        // what may move stands against what may not
        const [one, other] = isStill(a) ? [b, a] : [a, b];
        return [{ a: one.member, b: other.member, shapes: new ShapePair(one, other, pace) }];
      }),
    );
    this.boxes = mechanism.bodies.map((_, k) =>
      boxRound(bodies.flatMap(({ member, box }) => (member.body === k ? [transformBox(box, member.local)] : []))),
    );
  }

  get isEmpty(): boolean {
    return this.pairs.length === 0;
  }

  /** Members that stand in each other in a pose, each two once: they are not kept apart there until they have left each other. */
  *overlaps(pose: Posed): Generator<readonly [a: string, b: string] | undefined> {
    const told = new Set<string>();
    for (const pair of this.pairs) {
      const name = `${pair.a.id} ${pair.b.id}`;
      if (told.has(name) || !this.isOverlapping(pair, pose)) {
        yield;
        continue;
      }
      told.add(name);
      yield [pair.a.id, pair.b.id];
    }
  }

  /** Where members touch in a pose, or are in each other or apart by no more than `within`, mm. */
  touching(pose: Posed, within = RESTING): Touch[] {
    return this.pairs.flatMap((pair) => {
      const across = acrossIn(pair, pose);
      if (pair.shapes.isClear(across, within)) return [];
      pair.shapes.prepare(across, within);
      return gapsIn(pair, pose, -within, within);
    });
  }

  private isOverlapping(pair: Pair, pose: Posed): boolean {
    const across = acrossIn(pair, pose);
    const { shapes } = pair;
    if (shapes.apart(across) > 0) return false;
    if (shapes.isOverlapping(across)) return true;
    shapes.prepare(across, SHALLOW);
    return shapes.gaps(across, -SHALLOW, -OVERLAPPING).length > 0;
  }

  /**
   * The pose of a step that keeps everything out of each other, nearest to its target. What is prescribed comes to its values
   * where that can be, and else as far as it can.
   * @param keys of what is prescribed
   * @param isFinest is there no shorter step?
   */
  kept(keys: readonly CoordinateKey[], wanted: Step, isFinest = false): KeptStep {
    const { from, target } = wanted;
    const asked = this.travels(from, target);
    if (asked.long !== undefined) return { kind: 'long', share: asked.long };
    const bounds = new Map<Pair, number>();
    const allow = ({ of }: Travels) =>
      of.forEach((travel, pair) =>
        bounds.set(pair, Math.max(bounds.get(pair) ?? 0, DETOUR * travel + pair.shapes.pace)),
      );
    allow(asked);
    for (let round = 0; round < ROUNDS; round++) {
      const step = this.stepWithin(keys, wanted, bounds);
      if (step.kind !== 'kept') return step;
      const gone = step.pose === target ? asked : this.travels(from, step.pose);
      if (gone.long !== undefined) return { kind: 'long', share: gone.long };
      // what is pushed along may go further than what pushes
      const isFarther = [...gone.of].some(([pair, travel]) => travel > bounds.get(pair)!);
      if (isFarther) {
        allow(gone);
        continue;
      }
      if (!isFinest && Math.max(...gone.of.values()) > LET_GO && this.isLetGo(step.pose)) return { kind: 'leaving' };
      this.pushed = step.against;
      return step;
    }
    return { kind: 'lost' };
  }

  /** Does anything that was pushed where it touches, touch there no longer? */
  private isLetGo(to: Pose): boolean {
    const still = new Map<Pair, ReadonlySet<string>>();
    return this.pushed.some(({ pair, key }) => {
      if (!still.has(pair)) {
        pair.shapes.prepare(acrossIn(pair, to), LET_GO);
        still.set(pair, new Set(gapsIn(pair, to, -LET_GO, RESTING).map((touch) => touch.key)));
      }
      return !still.get(pair)!.has(key);
    });
  }

  /** @param bounds how far each pair may go, mm */
  private stepWithin(keys: readonly CoordinateKey[], wanted: Step, bounds: ReadonlyMap<Pair, number>): KeptStep {
    const { from, target, share } = wanted;
    const near = this.pairs.filter((pair) => !pair.shapes.isClear(acrossIn(pair, from), bounds.get(pair)!));
    for (const pair of near) pair.shapes.prepare(acrossIn(pair, from), bounds.get(pair)!);
    const before = near.map((pair) => new Before(pair, from, bounds.get(pair)!));
    const unilaterals = (pose: Posed): Touch[] =>
      near.flatMap((pair, n) => {
        const found = gapsIn(pair, pose, -bounds.get(pair)!, MARGIN * pair.shapes.pace);
        return found.filter((touch) => touch.value >= -TOUCHING || before[n]!.isEntered(touch, acrossIn(pair, pose)));
      });
    const isIn = ({ value }: Touch) => value < -TOUCHING;
    if (!unilaterals(target).some(isIn)) return { kind: 'kept', pose: target, share, against: [], stops: [] };
    const equations = this.equationsFor(keys);
    const { reached, ...hard } = wanted;
    const found =
      equations.nearest<Touch>({ ...hard, unilaterals }) ??
      (reached === undefined ? undefined : equations.nearest<Touch>({ ...hard, reached, unilaterals }));
    if (!found) return { kind: 'lost' };
    return { kind: 'kept', pose: found.pose, share: found.share, against: found.pushing, stops: found.stops };
  }

  /** How far each pair goes, mm, and the share of the way that is short enough to pass through nothing, if not all is. */
  private travels(from: Pose, to: Pose): Travels {
    let long: number | undefined;
    const of = new Map<Pair, number>();
    for (const pair of this.pairs) {
      const { shapes } = pair;
      const [before, after] = [acrossIn(pair, from), acrossIn(pair, to)];
      const travel = shapes.travel(before, after);
      of.set(pair, travel);
      if (travel <= shapes.pace) continue;
      const clear = shapes.clearance(before, travel);
      if (clear < travel) long = Math.min(long ?? 1, Math.max(clear, shapes.pace) / travel);
    }
    return { of, long };
  }

  private equationsFor(keys: readonly CoordinateKey[]): UnilateralEquations {
    const key = keys.join();
    let equations = this.equations.get(key);
    if (!equations) this.equations.set(key, (equations = new UnilateralEquations(this.mechanism, keys, this.boxes)));
    return equations;
  }
}

/** How a pair stood to each other where a step began; looked at only where something is in something after it. */
class Before {
  private found: ReadonlyMap<string, number> | undefined;

  constructor(
    private readonly pair: Pair,
    private readonly from: Posed,
    private readonly bound: number,
  ) {}

  /**
   * Did the one get into the other there? Not where it was in it before; and what was not seen before has to lie inside of
   * both: behind a face is also what is on the other side of a thin wall.
   */
  isEntered({ key, value, gap }: Touch & { readonly gap: ShapeGap }, across: RigidTransform): boolean {
    this.found ??= new Map(gapsIn(this.pair, this.from, -Infinity, this.bound).map((one) => [one.key, one.value]));
    const was = this.found.get(key);
    if (was !== undefined) return was >= -OVERLAPPING;
    const { shapes } = this.pair;
    return value > -2 * shapes.deflection || shapes.isShared(gap, across);
  }
}

/** From the coordinates of the second of two members to those of the first. */
export const acrossIn = ({ a, b }: Pick<Pair, 'a' | 'b'>, pose: Posed): RigidTransform =>
  compose(memberPose(b, pose), inverse(memberPose(a, pose)));

/** Gaps of a pair that is prepared, between two bounds. */
function gapsIn(pair: Pair, pose: Posed, deepest: number, widest: number): (Touch & { readonly gap: ShapeGap })[] {
  const { a, b, shapes } = pair;
  const first = memberPose(a, pose);
  return shapes.gaps(acrossIn(pair, pose), deepest, widest).map((gap) => {
    const normal = transformDirection(first, gap.normal);
    const [p, q] = [transformPoint(first, gap.a), transformPoint(first, gap.b)];
    return {
      ...{ key: `${gap.i} ${gap.j}`, pair, gap, a: a.id, b: b.id, value: gap.gap, at: p },
      pushes: [...pushesOn(b, pose, q, normal), ...pushesOn(a, pose, p, scale3(normal, -1))],
    };
  });
}

/**
 * What moving bodies does to a place of a member along a direction: a repeat goes as the first of its kind goes, seen from what
 * that is joined to.
 */
export function pushesOn(member: Member, { poses }: Pick<Pose, 'poses'>, at: Vec3, along: Vec3): Push[] {
  const pushes: Push[] = [];
  let [place, way] = [at, along];
  for (const { on, by } of [...member.again].reverse()) {
    const map = compose(compose(inverse(poses[on]!), by), poses[on]!);
    const back = inverse(map);
    pushes.push({ body: on, at: place, along: way });
    [place, way] = [transformPoint(back, place), transformDirection(back, way)];
    pushes.push({ body: on, at: place, along: scale3(way, -1) });
  }
  return [...pushes, { body: member.body, at: place, along: way }];
}
