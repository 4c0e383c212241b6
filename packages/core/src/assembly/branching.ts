import type { CoordinateKey } from '../naming/index.ts';
import { MechanismEquations, type Mechanism, type Pose } from './mechanism.ts';

/**
 * How near to a pose in which ways part counts as there. Such a pose is reached to the root of the accuracy of the solver
 * only.
 */
const NEAR = 1e-4;

/**
 * Can a mechanism go on in more than one way from where it was driven to (a dead point)? There more is free in just this
 * pose than beside it, or with the driven coordinate prescribed as much as without.
 */
export function isBranching(mechanism: Mechanism, pose: Pose, driven: CoordinateKey): boolean {
  const motion = new MechanismEquations(mechanism);
  const { count, parting } = motion.freedoms(pose);
  if (count === 0) return false;
  if (parting.length > 0 || motion.freedoms(pose, NEAR).count > count) return true;
  return new MechanismEquations(mechanism, [driven]).freedoms(pose, NEAR).count >= count;
}
