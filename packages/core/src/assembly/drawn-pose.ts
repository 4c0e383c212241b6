import { evaluate, type Scope } from '../expressions/index.ts';
import type { RigidTransform, Vec3 } from '../math/index.ts';
import { attempt, unwrap, type Result } from '../result/index.ts';
import { ANGLE, LENGTH, type Dimension } from '../units/index.ts';
import { poseBy } from './frames.ts';
import type { Placement, Triple } from './records.ts';

/** What is typed along x, y and z, in mm or rad. Fails where something of it can't be read. */
export const amountsOf = ({ x, y, z }: Triple, asks: Dimension, scope: Scope): Result<Vec3> =>
  attempt(() => [x, y, z].map((text) => unwrap(evaluate(text, asks, scope))) as unknown as Vec3);

/** Where a placement is drawn, as its numbers tell. Fails where one of them can't be read. */
export const drawnPose = ({ at, turn }: Pick<Placement, 'at' | 'turn'>, scope: Scope): Result<RigidTransform> =>
  attempt(() => poseBy(unwrap(amountsOf(at, LENGTH, scope)), unwrap(amountsOf(turn, ANGLE, scope))));
