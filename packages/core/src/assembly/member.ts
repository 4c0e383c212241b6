import { compose, IDENTITY, inverse, type RigidTransform } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Pose } from './mechanism.ts';

/** A part where it is placed: it rides on a body of the mechanism. */
export interface Member {
  /** Its placement, after those of the groups that it is in; repeats are numbered from 2 ("p1:2"). */
  readonly id: string;
  readonly name: string;
  readonly part: Id;
  readonly body: number;
  /** Where it sits on the body. */
  readonly local: RigidTransform;
  /** For a repeat, how it stands off from the first of its kind: one after the other where repeats are repeated. */
  readonly again: readonly Again[];
}

/** A repeat does what the first does, seen from what that is joined to. */
interface Again {
  /** What the first is joined to: the repeat is where it would be if joined to that in the same way further on. */
  readonly on: number;
  /** In the coordinates of that body. */
  readonly by: RigidTransform;
}

/** From where the first of its kind is to where a repeat is, in a pose; STILL for what is no repeat. */
export const repeatedBy = ({ again }: Pick<Member, 'again'>, { poses }: Pick<Pose, 'poses'>): RigidTransform =>
  again.map(({ on, by }) => compose(compose(inverse(poses[on]!), by), poses[on]!)).reduce(compose, IDENTITY);

/** Where a member is in a pose. */
export const memberPose = (member: Member, pose: Pick<Pose, 'poses'>): RigidTransform =>
  compose(compose(member.local, pose.poses[member.body]!), repeatedBy(member, pose));
