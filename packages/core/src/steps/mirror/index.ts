import { compose, IDENTITY, reflection, type RigidTransform } from '../../math/index.ts';
import { planeOf } from '../../references/index.ts';
import { picks } from '../fields/index.ts';
import type { Copy, StepKind } from '../kind.ts';
import { repeating } from '../repeats.ts';

const fields = { plane: picks('mirror plane', 'plane', { max: 2, many: 'planes' }) };

const isSame = (one: RigidTransform, other: RigidTransform): boolean =>
  one.every((row, r) => row.every((cell, c) => Math.abs(cell - other[r]![c]!) < 1e-9));

/**
 * Mirrors bodies or steps in a plane; in two, first in one, then all of that in the other.
 * @param kindOf the register, for the steps that it repeats
 */
export const mirror = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  repeating('mirror', kindOf, {
    title: 'Mirror',
    verb: {
      key: 'M',
      likely: ['body'],
      says: 'Repeats steps or bodies as their mirror image in a plane, or in one and then all of it in a second.',
    },
    fields,
    sentence: 'Mirror {what}[ {steps}][ {bodies}] in {plane}[ → {copies}]',
    places({ plane }) {
      const [first, second] = plane.map((one) => reflection(planeOf(one)!));
      const copies: Copy[] = [{ transform: first!, instance: 'm' }];
      if (!second) return copies;
      const both = compose(first!, second);
      // in one plane twice there is one image
      if (isSame(both, IDENTITY)) return copies;
      return [...copies, { transform: second, instance: 'n' }, { transform: both, instance: 'nxm' }];
    },
  });
