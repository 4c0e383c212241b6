import {
  add3,
  followedBy,
  fromTo3,
  movedBy,
  scale3,
  shift3,
  sub3,
  turn3,
  turnedBy,
  type Frame,
  type Movement,
  movedFrame,
  undone,
} from '../math/index.ts';
import { SPACE } from './equations.ts';
import { JOINTS } from './joints.ts';
import {
  isAngle,
  keyOf,
  measured,
  Motion,
  restOf,
  type CoordinateKey,
  type Coordinates,
  type Joint,
  type Mechanism,
  type Pose,
} from './mechanism.ts';
import { spanning } from './spanning.ts';

/**
 * The rest pose: what is joined is brought together joint by joint, beginning with what is held, each with its
 * coordinates as given or else as they are where it is drawn; then all loops are closed and all relations fulfilled.
 * Where a loop does not close from there, turns that are not given begin elsewhere.
 */
export function restPose(mechanism: Mechanism, given: Coordinates): Pose {
  const motion = new Motion(mechanism, [...given.keys()]);
  let first: Pose | undefined;
  for (const turned of BEGINNINGS) {
    const poses = gathered(mechanism, given, turned);
    const coordinates = near(measured(mechanism, poses, given), given);
    const rest = motion.solve({ ...restOf(mechanism), poses, coordinates }, given);
    if (rest.fulfilled) return rest;
    first ??= rest;
  }
  return first!;
}
/** Where turns begin, against how they are drawn. */
const BEGINNINGS = [0, Math.PI / 2, Math.PI, -Math.PI / 2];

/** Measured angles are within half a turn of what was given; what was given counts itself. */
const near = (found: Coordinates, given: Coordinates): Coordinates => new Map([...found, ...given]);

/**
 * Bodies brought together along a tree of joints: what is nearest to the held ones first.
 * @param turned added to turns that are not given
 */
function gathered(mechanism: Mechanism, given: Coordinates, turned: number): Movement[] {
  const drawn = mechanism.bodies.map(({ pose }) => pose);
  const asDrawn = measured(mechanism, drawn, new Map());
  const poses = [...drawn];
  const value = (key: CoordinateKey) => given.get(key) ?? (asDrawn.get(key) ?? 0) + (isAngle(key) ? turned : 0);
  for (const { joint, fixed, moved } of spanning(mechanism)) {
    const reached = seated(joint, value, poses, moved === joint.b);
    if (joint.kind !== 'spherical') {
      poses[moved.body] = fromTo3(moved.frame, reached);
      continue;
    }
    // a ball keeps the turn that it has, seen from what it sits in
    const before = drawn[moved.body]!;
    const along =
      fixed.body === SPACE ? before : followedBy(before, followedBy(undone(drawn[fixed.body]!), poses[fixed.body]!));
    poses[moved.body] = followedBy(along, shift3(sub3(reached.origin, movedBy(along, moved.frame.origin))));
  }
  return poses;
}

/** Where the frame of one side comes to in space, given where the other is and what the coordinates are. */
function seated(
  { id, kind, a, b }: Joint,
  value: (key: CoordinateKey) => number,
  poses: readonly Movement[],
  second: boolean,
): Frame {
  const fixed = second ? a : b;
  const base = fixed.body === SPACE ? fixed.frame : movedFrame(fixed.frame, poses[fixed.body]!);
  // from the first to the second: shifted along the axes of the first, then turned about its z
  const way = { x: 0, y: 0, z: 0, turn: 0 };
  const places = { slide: 'z', 'slide x': 'x', 'slide y': 'y', turn: 'turn' } as const;
  for (const coordinate of JOINTS[kind].leaves) way[places[coordinate]] = value(keyOf(id, coordinate));
  const turned = (frame: Frame, angle: number): Frame => {
    const about = turn3([0, 0, 0], frame.z, angle);
    return { ...frame, x: turnedBy(about, frame.x), y: turnedBy(about, frame.y) };
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
 * Of what can not all be fulfilled a smallest set that fights: without any one of these the rest of them could be
 * (deletion filter: Chinneck, Dravnieks 1991).
 * @param given coordinates that are held besides
 */
export function fighting(mechanism: Mechanism, given: Coordinates, suspects: readonly string[]): string[] {
  const owners = [...new Set(suspects)];
  const only = (ids: ReadonlySet<string>): Mechanism => ({
    ...mechanism,
    joints: mechanism.joints.filter(({ id }) => ids.has(id)),
    relations: mechanism.relations.filter(({ id }) => ids.has(id)),
    ratios: mechanism.ratios.filter(
      ({ id, first, second }) => ids.has(id) && [first, second].every((key) => ids.has(key.split(' ')[0]!)),
    ),
  });
  const all = [...mechanism.joints, ...mechanism.relations, ...mechanism.ratios].map(({ id }) => id);
  const heldBy = (ids: ReadonlySet<string>): Coordinates =>
    new Map([...given].filter(([key]) => ids.has(key.split(' ')[0]!)));
  const hold = (ids: ReadonlySet<string>) => restPose(only(ids), heldBy(ids)).fulfilled;
  // what is not suspected is let go at once where the suspects fight by themselves
  let left = new Set(owners);
  if (left.size === 0 || hold(left)) left = new Set(all);
  for (const id of [...left].slice(0, MOST_TRIED)) {
    const without = new Set([...left].filter((other) => other !== id));
    if (!hold(without)) left = without;
  }
  return [...left];
}
/** Each try solves the mechanism anew. */
const MOST_TRIED = 60;
