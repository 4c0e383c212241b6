import { compose, dot3, frameOn, rotation, type RigidTransform, type Vec3 } from '../math/index.ts';
import type { BodyIndex, Equation } from './equations.ts';
import { alongIn, movableSide } from './facing.ts';
import type { Mechanism, Relation } from './mechanism.ts';
import { originOf } from './pose.ts';

// Where a relation asks two directions to stand at an angle and they lie along each other, no small turn comes nearer to it:
// the cosine is stationary there. A part that was drawn square to the one that it shall go onto is just so.

type Dot = Extract<Equation, { form: 'dot' }>;

/** A cosine within this of 1 or -1 hardly changes with a small turn: two and a half degrees. */
const STATIONARY = 1e-3;
/** A relation that faces wrong costs as much as this cosine. */
const WRONG_SIDE = 0.5;
/** A quarter, and half of one where another angle is asked for. */
const TURNS = [1, -1, 0.5, -0.5].map((quarters) => (quarters * Math.PI) / 2);

/**
 * Bodies turned, each with all that hangs on it by joints, where a relation could not begin to turn them: the
 * turn after which all relations together are nearest to being fulfilled. All else stays where it is.
 */
export function tipped(mechanism: Mechanism, poses: readonly RigidTransform[]): readonly RigidTransform[] {
  return mechanism.relations.reduce((now, relation) => tippedFor(mechanism, relation, now), poses);
}

function tippedFor(mechanism: Mechanism, relation: Relation, poses: readonly RigidTransform[]) {
  const stuck = dotsOf(relation).find((dot) => isStuck(dot, poses));
  const side = stuck && movableSide(mechanism, stuck);
  if (!side) return poses;
  const { own, bodies } = side;
  const { x, y } = frameOn([0, 0, 0], alongIn(own, poses));
  const turned = [x, y].flatMap((axis) =>
    TURNS.map((angle) => turnedAbout(poses, bodies, originOf(poses[own.body]!), axis, angle)),
  );
  const costs = [poses, ...turned].map((one) => ({
    poses: one,
    // what it is turned for comes first, then what else holds already
    own: cost(relation, one),
    all: mechanism.relations.reduce((sum, other) => sum + cost(other, one), 0),
  }));
  const least = Math.min(...costs.map(({ own }) => own));
  return costs.filter(({ own }) => own < least + 1e-6).toSorted((a, b) => a.all - b.all)[0]!.poses;
}

const dotsOf = ({ equations }: Relation): Dot[] =>
  equations.filter((equation): equation is Dot => equation.form === 'dot');

const cosine = ({ a, b }: Pick<Dot, 'a' | 'b'>, poses: readonly RigidTransform[]): number =>
  dot3(alongIn(a, poses), alongIn(b, poses));

const isStuck = (dot: Dot, poses: readonly RigidTransform[]): boolean => {
  const now = cosine(dot, poses);
  return Math.abs(now) > 1 - STATIONARY && Math.abs(now - dot.is) > STATIONARY;
};

function cost(relation: Relation, poses: readonly RigidTransform[]): number {
  const off = dotsOf(relation).reduce((sum, dot) => sum + Math.abs(cosine(dot, poses) - dot.is), 0);
  const { facing } = relation;
  return off + (facing && cosine(facing, poses) * facing.is < 0 ? WRONG_SIDE : 0);
}

const turnedAbout = (
  poses: readonly RigidTransform[],
  bodies: ReadonlySet<BodyIndex>,
  at: Vec3,
  axis: Vec3,
  angle: number,
): readonly RigidTransform[] => {
  const by = rotation(at, axis, angle);
  return poses.map((pose, body) => (bodies.has(body) ? compose(pose, by) : pose));
};
