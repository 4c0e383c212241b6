import {
  add3,
  dot3,
  compose,
  frameOn,
  middle3,
  transformPoint,
  scale3,
  translation,
  sub3,
  transformDirection,
  type Box3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Assembled } from './assemble.ts';
import { SPACE } from './equations.ts';
import type { Joint, Mechanism, Pose, Relation } from './mechanism.ts';
import { spanning } from './spanning.ts';

/** How far a body goes at most from the one that it is joined to, as a multiple of how large a usual one is. */
const FAR = 2.4;

/**
 * Where bodies stand taken apart: joint by joint away from what is grounded, along the axis of the joint, on the side on which
 * they lie.
 * @param share of the way as far as is shown, 0 to 1 @param boxOf the box round a part, in its own coordinates
 */
export function explodedPoses(
  { mechanism, members }: Pick<Assembled, 'mechanism' | 'members'>,
  pose: Pick<Pose, 'poses'>,
  boxOf: (part: Id) => Box3 | undefined,
  share: number,
): readonly RigidTransform[] {
  if (share === 0) return pose.poses;
  const middles = mechanism.bodies.map((_, k): Vec3 => {
    const member = members.find(({ body }) => body === k);
    const box = member && boxOf(member.part);
    return box ? transformPoint(member.local, middle3(box.low, box.high)) : [0, 0, 0];
  });
  const offsets = explodedBy(mechanism, pose, middles, mechanism.size * FAR * share);
  return pose.poses.map((at, k) => compose(at, translation(offsets[k]!)));
}

/**
 * How far each body stands off in an exploded view, mm, by the places of the bodies: joint by joint away from what is grounded,
 * along the axis of the joint, or of the relation that holds it, on the side on which it lies.
 * @param middles where the middle of each body lies, in its own coordinates
 * @param step how far a body goes from the one that it is joined to
 */
export function explodedBy(
  { bodies, joints, relations }: Pick<Mechanism, 'bodies' | 'joints' | 'relations'>,
  { poses }: Pick<Pose, 'poses'>,
  middles: readonly Vec3[],
  step: number,
): Vec3[] {
  const offsets = bodies.map((): Vec3 => [0, 0, 0]);
  const middle = (body: number): Vec3 => transformPoint(poses[body]!, middles[body]!);
  for (const { joint, fixed, moved } of spanning({ bodies, joints: [...joints, ...relations.flatMap(asJoint)] })) {
    const axis = joint.a.body === SPACE ? joint.a.frame.z : transformDirection(poses[joint.a.body]!, joint.a.frame.z);
    const [base, before]: [Vec3, Vec3] =
      fixed.body === SPACE ? [fixed.frame.origin, [0, 0, 0]] : [middle(fixed.body), offsets[fixed.body]!];
    const side = dot3(axis, sub3(middle(moved.body), base)) < 0 ? -1 : 1;
    offsets[moved.body] = add3(before, scale3(axis, side * step));
  }
  return offsets;
}

/** What a relation holds, as if it were a joint: along a direction that it tells; none of one that tells no direction. */
export function asJoint({ id, equations }: Relation): Joint[] {
  const directed = equations.flatMap((equation) =>
    equation.form === 'dot' || equation.form === 'span' ? [equation] : [],
  );
  const one = directed.find(({ form }) => form === 'dot') ?? directed[0];
  if (!one) return [];
  const [first, second] = one.form === 'dot' ? [one.a.body, one.b.body] : [one.from.body, one.to.body];
  const direction = one.form === 'dot' ? one.a : one.along;
  const other = direction.body === first ? second : first;
  return [
    {
      ...{ id, kind: 'rigid' },
      a: { body: direction.body, frame: frameOn([0, 0, 0], direction.along) },
      b: { body: other, frame: frameOn([0, 0, 0], [0, 0, 1]) },
    },
  ];
}
