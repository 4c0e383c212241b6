import {
  isTurn,
  type Coordinate,
  type CoordinateKey,
  coordinateKey,
  isAngle,
  isAtOrWithin,
  jointOf,
  repeatOf,
  within,
  type PlacementPath,
} from '../naming/index.ts';
import { evaluate, type Scope } from '../expressions/index.ts';
import {
  compose,
  scale3,
  translation,
  IDENTITY,
  rotation,
  transformDirection,
  transformPoint,
  type Frame,
  type RigidTransform,
  transformFrame,
  inverse,
  toSpace,
} from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { axisOf, ORIGIN_PLANES, type Reference, type Thing } from '../references/index.ts';
import { attempt, issue, IssueError, unwrap, type Issue, type Result } from '../result/index.ts';
import { ANGLE, LENGTH, NUMBER, type Dimension } from '../units/index.ts';
import { amountsOf, drawnPose } from './drawn-pose.ts';
import type { Place } from './equations.ts';
import { asJoint } from './explode.ts';
import { asDrawn, featureOf, flipped, frameOf, transformFeature } from './frames.ts';
import { JOINTS, type Carried } from './joints.ts';
import {
  overRelation,
  MechanismEquations,
  type Body,
  type Joint,
  type Mechanism,
  type Pose,
  type Ratio,
  type Relation,
} from './mechanism.ts';
import {
  ASSEMBLY_LIMITS,
  emptyAssembly,
  type Assembly,
  type Group,
  type JointRecord,
  type Placement,
  type RatioRecord,
  type Side,
} from './records.ts';
import { ASSEMBLY_RELATIONS, facingOf, related, type Feature } from './relations.ts';
import { memberPose, type Member } from './member.ts';
import { conflictOf, type restPose } from './rest.ts';
import { spanning } from './spanning.ts';
import { assemblyFreedoms, type AssemblyFreedoms } from './freedoms.ts';

/** An assembly that is ready to be moved. */
export interface Assembled {
  readonly members: readonly Member[];
  readonly mechanism: Mechanism;
  readonly rest: Pose;
  readonly freedoms: AssemblyFreedoms;
  /** Points whose way is told, by their traces. */
  readonly traces: ReadonlyMap<Id, Place>;
  /** What could not be read or found, by placement, joint, relation or ratio: these are left out. */
  readonly issues: ReadonlyMap<string, Issue>;
  /** A smallest set of joints and relations that can not all hold; empty where all do. */
  readonly conflict: readonly string[];
}

/** What assembling needs to know of everything else. */
export interface Surroundings {
  readonly scope: Scope;
  readonly groups: Readonly<Record<Id, Group>>;
  /** Something of a part as it is built. */
  find(part: Id, reference: Reference): Result<Thing>;
  /** How large the part is, mm; 0 where it has no body. */
  sizeOf(part: Id): number;
  /** Finds the rest pose, or knows it already. */
  readonly restPose: typeof restPose;
}

/**
 * Writes groups and repeats out, finds the frames, and brings everything into the rest pose. What can't be read or found
 * is told and left out; the rest stands.
 */
export function assemble(assembly: Assembly, around: Surroundings): Assembled {
  const { pieces, mechanism, rest } = broughtTogether(assembly, around);
  return {
    members: pieces.members,
    mechanism,
    rest,
    traces: pieces.traces,
    freedoms: assemblyFreedoms(new MechanismEquations(mechanism), rest),
    issues: pieces.issues,
    conflict: rest.fulfilled ? [] : conflictOf(mechanism, pieces.given, rest.suspects),
  };
}

/** Where the design puts each member, without a look at anything else: for parts that take from each other. */
export function restPoses(assembly: Assembly, around: Surroundings): ReadonlyMap<string, RigidTransform> {
  const { pieces, rest } = broughtTogether(assembly, around);
  return new Map(pieces.members.map((member) => [member.id, memberPose(member, rest)]));
}

function broughtTogether(assembly: Assembly, around: Surroundings) {
  const pieces = new Pieces(around);
  pieces.take(assembly, undefined);
  const mechanism = pieces.mechanism();
  const rest = restOfPieces(pieces, mechanism, around);
  pieces.repeat(rest);
  return { pieces, mechanism, rest };
}

/** Where the design puts everything; what it gives that can't be had is told, and does not count. */
function restOfPieces({ given, issues }: Pieces, mechanism: Mechanism, around: Pick<Surroundings, 'restPose'>): Pose {
  const rest = around.restPose(mechanism, given);
  for (const key of rest.beyond) issues.set(jointOf(key), issue('joint.outside'));
  for (const key of rest.dropped) {
    issues.set(jointOf(key), issue('joint.rest'));
    given.delete(key);
  }
  return rest;
}

/** Things of one assembly, in its own space, while it is put together. */
class Pieces {
  readonly members: Member[] = [];
  readonly bodies: Body[] = [];
  readonly joints: Joint[] = [];
  readonly relations: Relation[] = [];
  readonly ratios: Ratio[] = [];
  readonly limits = new Map<CoordinateKey, readonly [number, number]>();
  /** What coordinates are in the design. */
  readonly given = new Map<CoordinateKey, number>();
  readonly traces = new Map<Id, Place>();
  readonly issues = new Map<string, Issue>();
  private readonly repeats: {
    readonly id: string;
    readonly placement: Placement;
    readonly outer: PlacementPath | undefined;
  }[] = [];

  /**
   * @param title the names of the placements of groups that this is in
   * @param room how much may still be placed, here and in all groups
   */
  constructor(
    private readonly around: Surroundings,
    private readonly title = '',
    private readonly room = { left: ASSEMBLY_LIMITS.members },
  ) {}

  mechanism(): Mechanism {
    const { bodies, joints, relations, ratios, limits } = this;
    const sizes = this.members.map(({ part }) => this.around.sizeOf(part)).filter((size) => size > 0);
    // half of an ordinary part: a turn weighs as much as a shift of its ends
    const size = sizes.length > 0 ? sizes.sort((a, b) => a - b)[sizes.length >> 1]! / 2 : 50;
    return { bodies, joints, relations, ratios, limits, size };
  }

  /** @param outer where the group that this is stands; undefined for the assembly itself */
  take(assembly: Assembly, outer: PlacementPath | undefined): void {
    for (const [id, placement] of Object.entries(assembly.placements))
      this.noting(within(outer, id), () => this.place(outer, id, placement));
    for (const [id, joint] of Object.entries(assembly.joints))
      this.noting(within(outer, id), () => this.join(outer, id, joint));
    for (const [id, { kind, a, b, amount, facing }] of Object.entries(assembly.relations))
      this.noting(within(outer, id), () => {
        const [first, second] = [a, b].map(({ placement, on }) => this.feature(within(outer, placement), on)) as [
          Feature,
          Feature,
        ];
        const asks = ASSEMBLY_RELATIONS[kind].asks;
        const by = asks ? this.read(amount ?? '0', asks) : 0;
        const faces = facingOf(first, second, facing);
        this.relations.push({
          id: within(outer, id),
          equations: unwrap(related(kind, first, second, by)),
          ...(faces ? { facing: faces } : {}),
        });
      });
    for (const [id, ratio] of Object.entries(assembly.ratios))
      this.noting(within(outer, id), () => this.tie(outer, id, ratio));
    for (const [id, { placement, on }] of Object.entries(assembly.traces))
      this.noting(within(outer, id), () => {
        const member = this.memberOf(within(outer, placement));
        this.traces.set(within(outer, id), { body: member.body, at: this.frameAt(member, on, 'middle').origin });
      });
  }

  /** Writes out what stands several times, where the first of them has come to rest. */
  repeat(rest: Pose): void {
    for (const { id, placement, outer } of this.repeats)
      this.noting(id, () => {
        const { repeat } = placement;
        const typed = this.read(repeat!.count, NUMBER);
        const count = Math.round(typed);
        if (Math.abs(typed - count) > ROUNDED || count < 1 || count > MOST_REPEATS)
          throw new IssueError(issue('placement.count', { most: MOST_REPEATS }));
        const originals = this.members.filter((member) => isAtOrWithin(member.id, id));
        const on = this.carrierOf(new Set(originals.map(({ body }) => body)));
        for (let k = 1; k < count; k++) {
          const by = this.repeated(repeat!, k, count, outer, rest);
          // seen from what carries it
          const seen = compose(compose(rest.poses[on]!, by), inverse(rest.poses[on]!));
          for (const member of originals) {
            this.takeRoom();
            this.members.push({
              ...member,
              id: repeatOf(member.id, id, k + 1),
              name: `${member.name} (${k + 1})`,
              again: [...member.again, { on, by: seen }],
            });
          }
        }
      });
  }

  /** What bodies are joined to, by the joint or the relation that is nearest to what is grounded; where by none, the first of them. */
  private carrierOf(bodies: ReadonlySet<number>): number {
    const { joints, relations } = this;
    const links = spanning({ bodies: this.bodies, joints: [...joints, ...relations.flatMap(asJoint)] });
    const link = links.find(({ fixed, moved }) => bodies.has(moved.body) && !bodies.has(fixed.body));
    const grounded = [...bodies].find((body) => this.bodies[body]!.grounded);
    return grounded ?? link?.fixed.body ?? Math.min(...bodies);
  }

  private repeated(
    repeat: NonNullable<Placement['repeat']>,
    k: number,
    count: number,
    outer: PlacementPath | undefined,
    rest: Pose,
  ): RigidTransform {
    if (repeat.layout === 'line')
      return translation(scale3(unwrap(amountsOf(repeat.by, LENGTH, this.around.scope)), k));
    const member = this.memberOf(within(outer, repeat.about.placement));
    const axis = axisOf(unwrap(this.around.find(member.part, repeat.about.on)));
    if (!axis) throw new IssueError(issue('placement.axis'));
    const pose = memberPose(member, rest);
    const over = this.read(repeat.over, ANGLE);
    const whole = Math.abs(over - 2 * Math.PI) < ROUNDED;
    return rotation(
      transformPoint(pose, axis.origin),
      transformDirection(pose, axis.direction),
      (over * k) / (whole ? count : Math.max(1, count - 1)),
    );
  }

  private place(outer: PlacementPath | undefined, id: string, placement: Placement): void {
    const { of, held: grounded, name } = placement;
    const pose = unwrap(drawnPose(placement, this.around.scope));
    const path = within(outer, id);
    this.takeRoom();
    if ('part' in of) {
      this.members.push({
        id: path,
        name: this.title + name,
        part: of.part,
        body: this.bodies.length,
        local: IDENTITY,
        again: [],
      });
      this.bodies.push({ id: path, pose, grounded });
    } else {
      const inner = new Pieces(this.around, `${this.title}${name} · `, this.room);
      inner.take(this.around.groups[of.group] ?? emptyAssembly(), path);
      const mechanism = inner.mechanism();
      const rest = restOfPieces(inner, mechanism, this.around);
      inner.repeat(rest);
      inner.issues.forEach((wrong, owner) => this.issues.set(owner, wrong));
      if (!rest.fulfilled) this.issues.set(path, issue('group.clash'));
      if (of.stiff) this.takeStiff(inner, rest, path, pose, grounded);
      else this.takeFlexible(inner, rest, pose, grounded);
    }
    if (placement.repeat) this.repeats.push({ id: path, placement, outer });
  }

  private takeStiff(inner: Pieces, rest: Pose, path: string, pose: RigidTransform, grounded: boolean): void {
    for (const member of inner.members)
      this.members.push({ ...member, body: this.bodies.length, local: memberPose(member, rest), again: [] });
    for (const [id, { body, at }] of inner.traces)
      this.traces.set(id, { body: this.bodies.length, at: transformPoint(rest.poses[body]!, at) });
    this.bodies.push({ id: path, pose, grounded });
  }

  /** Its bodies begin where they have come together in it: nothing else has to be moved here to hold inside. */
  private takeFlexible(inner: Pieces, rest: Pose, pose: RigidTransform, grounded: boolean): void {
    const by = this.bodies.length;
    const side = ({ body, frame }: Carried): Carried => ({ body: body + by, frame });
    for (const member of inner.members) {
      const again = member.again.map((one) => ({ ...one, on: one.on + by }));
      this.members.push({ ...member, body: member.body + by, again });
    }
    // what is grounded in the group is its base: grounded where the group is, else its parts stay together
    const base = inner.bodies.findIndex((body) => body.grounded);
    for (const [k, body] of inner.bodies.entries()) {
      this.bodies.push({ ...body, pose: compose(rest.poses[k]!, pose), grounded: grounded && body.grounded });
      if (grounded || !body.grounded || k === base) continue;
      const seen = compose(inner.bodies[base]!.pose, inverse(body.pose));
      const id = `${body.id} base`;
      this.joints.push({
        id,
        kind: 'rigid',
        a: { body: base + by, frame: ORIGIN_PLANES.top },
        b: { body: k + by, frame: transformFrame(ORIGIN_PLANES.top, seen) },
      });
    }
    this.joints.push(...inner.joints.map((joint) => ({ ...joint, a: side(joint.a), b: side(joint.b) })));
    this.relations.push(
      ...inner.relations.map((relation) => overRelation(relation, (side) => ({ ...side, body: side.body + by }))),
    );
    this.ratios.push(...inner.ratios);
    inner.traces.forEach(({ body, at }, id) => this.traces.set(id, { body: body + by, at }));
    inner.limits.forEach((range, key) => this.limits.set(key, range));
    inner.given.forEach((value, key) => this.given.set(key, value));
  }

  private join(outer: PlacementPath | undefined, id: Id, joint: JointRecord): void {
    const path = within(outer, id);
    const first = this.memberOf(within(outer, joint.a.placement));
    const second = this.memberOf(within(outer, joint.b.placement));
    if (first.body === second.body) throw new IssueError(issue('joint.self'));
    const meets = this.frameAt(first, joint.a.on, joint.a.spot);
    const [z, x = 0, y = 0] = [joint.offset, ...(joint.aside ?? [])].map((text) => this.read(text, LENGTH));
    const about = rotation([0, 0, 0], meets.z, this.read(joint.angle, ANGLE));
    const a: Frame = {
      origin: toSpace(meets, [x, y], z),
      x: transformDirection(about, meets.x),
      y: transformDirection(about, meets.y),
      z: meets.z,
    };
    const sides = { a: { body: first.body, frame: a }, b: { body: second.body } };
    const b =
      'on' in joint.b
        ? this.meeting(joint, second)
        : asDrawn(
            sides,
            this.bodies.map(({ pose }) => pose),
          ).frame;
    const leaves: readonly Coordinate[] = JOINTS[joint.kind].leaves;
    // read whole before any of it counts: a joint that can't be read is left out with all that it gives
    const ranges = leaves.map((coordinate) => this.rangeOf(joint, coordinate));
    for (const [k, coordinate] of leaves.entries()) {
      const { least, most, rest } = ranges[k]!;
      const key = coordinateKey(path, coordinate);
      if (rest !== undefined) this.given.set(key, rest);
      if (Number.isFinite(least) || Number.isFinite(most)) this.limits.set(key, [least, most]);
    }
    this.joints.push({
      id: path,
      kind: joint.kind,
      a: { body: first.body, frame: a },
      b: { body: second.body, frame: b },
    });
  }

  /** What a coordinate may come to, and where the design puts it. */
  private rangeOf({ limits = {}, rest = {} }: JointRecord, coordinate: Coordinate) {
    const asks = isTurn(coordinate) ? ANGLE : LENGTH;
    const read = (text: string | undefined, usual: number) => (text === undefined ? usual : this.read(text, asks));
    const [least, most] = [read(limits[coordinate]?.least, -Infinity), read(limits[coordinate]?.most, Infinity)];
    if (least > most) throw new IssueError(issue('joint.limits'));
    const text = rest[coordinate];
    if (text === undefined) return { least, most };
    const at = this.read(text, asks);
    if (at < least - ROUNDED || at > most + ROUNDED) throw new IssueError(issue('joint.beyond'));
    return { least, most, rest: at };
  }

  private tie(outer: PlacementPath | undefined, id: Id, { first, second, factor }: RatioRecord): void {
    const [a, b] = [first, second].map(({ joint, coordinate }) => coordinateKey(within(outer, joint), coordinate)) as [
      CoordinateKey,
      CoordinateKey,
    ];
    for (const { joint } of [first, second])
      if (!this.joints.some((other) => other.id === within(outer, joint))) throw new IssueError(issue('ratio.joint'));
    const way = isAngle(a) && !isAngle(b);
    const by = this.read(factor, way ? LENGTH : NUMBER);
    // a way is told for each whole turn
    this.ratios.push({ id: within(outer, id), first: a, second: b, factor: way ? by / (2 * Math.PI) : by });
  }

  /** Groups count as well: those that hold nothing could hold each other in great numbers. */
  private takeRoom(): void {
    if (this.room.left <= 0) throw new IssueError(issue('assembly.many', { most: ASSEMBLY_LIMITS.members }));
    this.room.left--;
  }

  private memberOf(path: string): Member {
    const member = this.members.find(({ id }) => id === path);
    if (!member) throw new IssueError(issue('placement.gone', { id: path }));
    return member;
  }

  private frameAt(member: Member, on: Reference, spot: Parameters<typeof frameOf>[1]): Frame {
    const frame = frameOf(unwrap(this.around.find(member.part, on)), spot);
    if (!frame) throw new IssueError(issue('joint.frame'));
    return transformFrame(frame, member.local);
  }

  /** The frame of the second side, looking as the joint has it. */
  private meeting({ b, flip }: JointRecord, member: Member): Frame {
    const { on, spot } = b as Side;
    const own = this.frameAt(member, on, spot);
    return flip ? flipped(own) : own;
  }

  private feature(path: string, on: Reference): Feature {
    const member = this.memberOf(path);
    const feature = featureOf(unwrap(this.around.find(member.part, on)), member.body);
    if (!feature) throw new IssueError(issue('joint.frame'));
    return transformFeature(feature, member.local);
  }

  private read = (text: string, asks: Dimension): number => unwrap(evaluate(text, asks, this.around.scope));

  /** What goes wrong is told of its owner, which is left out. */
  private noting(owner: string, body: () => void): void {
    const done = attempt(body);
    if (!done.ok) this.issues.set(owner, done.issue);
  }
}

const MOST_REPEATS = 500;
/** Numbers that were told and differ by less, in their unit, are the same. */
const ROUNDED = 1e-9;
