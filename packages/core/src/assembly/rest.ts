import { type CoordinateKey, coordinateKey, isAngle, isTurn, jointOf } from '../naming/index.ts';
import {
  add3,
  compose,
  frameToFrame,
  transformPoint,
  scale3,
  translation,
  sub3,
  rotation,
  transformDirection,
  type Frame,
  type RigidTransform,
  transformFrame,
  inverse,
} from '../math/index.ts';
import { minimalConflict } from '../solver/index.ts';
import { SPACE } from './equations.ts';
import { faced, facesWrong } from './facing.ts';
import { axisOfCoordinate, isBall, JOINTS, jointsReversed } from './joints.ts';
import { beyondLimits, turnedWithin } from './limits.ts';
import {
  measured,
  MechanismEquations,
  restOf,
  type Coordinates,
  type Joint,
  type Mechanism,
  type Pose,
} from './mechanism.ts';
import { MergedEquations } from './merged.ts';
import { partsOf } from './parts.ts';
import { spanning } from './spanning.ts';
import { tipped } from './tipping.ts';

/** Where the design puts everything. */
export interface Rest extends Pose {
  /** Coordinates that can not be what is given while all else holds: they are left free. */
  readonly dropped: readonly CoordinateKey[];
  /** Coordinates that are beyond their limits, where nothing that fits is within. */
  readonly beyond: readonly CoordinateKey[];
}

/**
 * The rest pose, each part of the mechanism by itself: what is joined is brought together joint by joint, beginning with
 * what is grounded, each with its coordinates as given or else as they are where it is drawn; then all loops are closed and
 * all relations fulfilled, within the limits. Where that can't be had with what is given it is had without.
 */
export function restPose(mechanism: Mechanism, given: Coordinates): Rest {
  let rest: Rest = { ...restOf(mechanism), dropped: [], beyond: [] };
  for (const part of partsOf(mechanism)) {
    const own = restOfPart(part, ofJoints(part, given));
    rest = {
      poses: rest.poses.map((pose, k) => (part.bodies[k]!.grounded ? pose : own.poses[k]!)),
      coordinates: new Map([...rest.coordinates, ...own.coordinates]),
      fulfilled: rest.fulfilled && own.fulfilled,
      residual: Math.max(rest.residual, own.residual),
      suspects: [...rest.suspects, ...own.suspects],
      dropped: [...rest.dropped, ...own.dropped],
      beyond: [...rest.beyond, ...own.beyond],
    };
  }
  return rest;
}

/** What is given of the joints of a mechanism. */
const ofJoints = ({ joints }: Mechanism, given: Coordinates): Coordinates =>
  new Map([...given].filter(([key]) => joints.some(({ id }) => id === jointOf(key))));

function restOfPart(part: Mechanism, given: Coordinates): Rest {
  const rest = restOfAll(part, given);
  if (rest.fulfilled) return rest;
  const { poses } = restOfMost(part, given, rest);
  return { ...rest, poses, coordinates: near(measured(part, poses, given), given) };
}

/**
 * Where not all can hold: the rest pose without what was told last of what fights. What is shown holds as far as it can, and
 * is where it was before.
 */
function restOfMost(part: Mechanism, given: Coordinates, rest: Pose): Pose {
  const fighting = new Set(conflictOf(part, given, rest.suspects));
  const last = namesOf(part).findLast((id) => fighting.has(id));
  if (last === undefined) return rest;
  const most = onlyOf(part, new Set(namesOf(part).filter((id) => id !== last)));
  return restPose(most, ofJoints(most, given));
}

function restOfAll(part: Mechanism, given: Coordinates): Rest {
  const asGiven = broughtTogether(part, given);
  const without = asGiven.fulfilled || given.size === 0 ? asGiven : broughtTogether(part, new Map());
  const dropped = without === asGiven || !without.fulfilled ? [] : [...given.keys()];
  let rest = without.fulfilled ? without : asGiven;
  // what would go beyond a limit stands on it
  const stopped = new Map(dropped.length > 0 ? [] : given);
  for (let k = 0; rest.fulfilled && k < part.limits.size; k++) {
    const beyond = beyondLimits(part, rest).find(({ key }) => !stopped.has(key));
    if (!beyond) break;
    stopped.set(beyond.key, beyond.limit);
    const next = broughtTogether(part, stopped);
    if (!next.fulfilled) break;
    rest = next;
  }
  return { ...rest, dropped, beyond: rest.fulfilled ? beyondLimits(part, rest).map(({ key }) => key) : [] };
}

/** All brought together with these coordinates; where a loop does not close, turns that are not given begin elsewhere. */
function broughtTogether(mechanism: Mechanism, given: Coordinates): Pose {
  let [first, reversed]: (Pose | undefined)[] = [];
  for (const turned of mechanism.joints.length > 0 ? BEGINNINGS : [0]) {
    const poses = tipped(mechanism, faced(mechanism, gathered(mechanism, given, turned)));
    const coordinates = turnedWithin(mechanism.limits, near(measured(mechanism, poses, given), given));
    const rest = gently(mechanism, given, { ...restOf(mechanism), poses, coordinates });
    if (rest.fulfilled && jointsReversed(mechanism, rest).length === 0) return rest;
    if (!rest.fulfilled) first ??= rest;
    else {
      // what is rigid is put where it belongs, and all else stays
      const seated = new MergedEquations(mechanism, [...given.keys()]).solve(rest, given);
      if (seated.fulfilled && jointsReversed(mechanism, seated).length === 0) return seated;
      reversed ??= rest;
    }
  }
  return (reversed ?? first)!;
}

/**
 * Solved with as little movement as it takes. Relations first turn bodies only as far as directions ask for it, then shift
 * them; only where that does not do are both done at once.
 */
function gently(mechanism: Mechanism, given: Coordinates, from: Pose): Pose {
  const keys = [...given.keys()];
  if (mechanism.relations.length > 0) {
    const turned = new MechanismEquations(mechanism, keys, undefined, 'turns').solve(from, given);
    const shifted = new MechanismEquations(mechanism, keys, undefined, 'shifts').solve(
      { ...turned, coordinates: from.coordinates },
      given,
    );
    if (turned.fulfilled && shifted.fulfilled && facesWrong(mechanism, shifted).length === 0) return shifted;
  }
  const solved = new MechanismEquations(mechanism, keys).solve(from, given);
  const wrong = solved.fulfilled ? facesWrong(mechanism, solved) : [];
  return wrong.length > 0 ? { ...solved, fulfilled: false, suspects: wrong } : solved;
}

/** Where turns begin, against how they are drawn. */
const BEGINNINGS = [0, Math.PI / 2, Math.PI, -Math.PI / 2];

/** Measured angles are within half a turn of what was given; what was given counts itself. */
const near = (found: Coordinates, given: Coordinates): Coordinates => new Map([...found, ...given]);

/**
 * Bodies brought together along a tree of joints: what is nearest to the grounded ones first.
 * @param turned added to turns that are not given
 */
function gathered(mechanism: Mechanism, given: Coordinates, turned: number): RigidTransform[] {
  const drawn = mechanism.bodies.map(({ pose }) => pose);
  const asDrawn = measured(mechanism, drawn, new Map());
  const poses = [...drawn];
  const value = (key: CoordinateKey) => given.get(key) ?? (asDrawn.get(key) ?? 0) + (isAngle(key) ? turned : 0);
  for (const { joint, fixed, moved } of spanning(mechanism)) {
    const reached = seated(joint, value, poses, moved === joint.b);
    if (!isBall(joint.kind)) {
      poses[moved.body] = frameToFrame(moved.frame, reached);
      continue;
    }
    // a ball keeps the turn that it has, seen from what it sits in
    const before = drawn[moved.body]!;
    const along =
      fixed.body === SPACE ? before : compose(before, compose(inverse(drawn[fixed.body]!), poses[fixed.body]!));
    poses[moved.body] = compose(along, translation(sub3(reached.origin, transformPoint(along, moved.frame.origin))));
  }
  return poses;
}

/** Where the frame of one side comes to in space, given where the other is and what the coordinates are. */
function seated(
  { id, kind, a, b }: Joint,
  value: (key: CoordinateKey) => number,
  poses: readonly RigidTransform[],
  second: boolean,
): Frame {
  const fixed = second ? a : b;
  const base = fixed.body === SPACE ? fixed.frame : transformFrame(fixed.frame, poses[fixed.body]!);
  // from the first to the second: shifted along the axes of the first, then turned about its z
  const way = { x: 0, y: 0, z: 0, turn: 0 };
  for (const coordinate of JOINTS[kind].leaves)
    way[isTurn(coordinate) ? 'turn' : axisOfCoordinate(coordinate)] = value(coordinateKey(id, coordinate));
  const turned = (frame: Frame, angle: number): Frame => {
    const about = rotation([0, 0, 0], frame.z, angle);
    return { ...frame, x: transformDirection(about, frame.x), y: transformDirection(about, frame.y) };
  };
  const off = (frame: Frame, sign: number) =>
    add3(
      frame.origin,
      scale3(add3(scale3(frame.x, way.x), add3(scale3(frame.y, way.y), scale3(frame.z, way.z))), sign),
    );
  if (second) return turned({ ...base, origin: off(base, 1) }, way.turn);
  const back = turned(base, -way.turn);
  return { ...back, origin: off(back, -1) };
}

/**
 * Of the joints, relations and ratios that can not all be fulfilled a minimal set, by their ids.
 * @param given coordinates that are held besides
 */
export function conflictOf(mechanism: Mechanism, given: Coordinates, suspects: readonly string[]): string[] {
  return minimalConflict(namesOf(mechanism), [...new Set(suspects)], (ids) =>
    partsOf(onlyOf(mechanism, new Set(ids))).some((part) => !broughtTogether(part, ofJoints(part, given)).fulfilled),
  );
}

/** All that may fight, in the order in which it is told. */
const namesOf = ({ joints, relations, ratios }: Mechanism): string[] =>
  [...joints, ...relations, ...ratios].map(({ id }) => id);

/** The same bodies with these of the joints, relations and ratios. */
const onlyOf = (mechanism: Mechanism, ids: ReadonlySet<string>): Mechanism => ({
  ...mechanism,
  joints: mechanism.joints.filter(({ id }) => ids.has(id)),
  relations: mechanism.relations.filter(({ id }) => ids.has(id)),
  ratios: mechanism.ratios.filter(
    ({ id, first, second }) => ids.has(id) && [first, second].every((key) => ids.has(jointOf(key))),
  ),
});
