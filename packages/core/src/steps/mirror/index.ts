import { reflection } from '../../math/index.ts';
import { planeOf } from '../../references/index.ts';
import { picks } from '../fields/index.ts';
import type { StepKind } from '../kind.ts';
import { repeating } from '../repeats.ts';

const fields = { plane: picks('mirror plane', 'plane') };

/**
 * Mirrors bodies or steps in a plane.
 * @param kindOf the register, for the steps that it repeats
 */
export const mirror = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  repeating('mirror', kindOf, {
    title: 'Mirror',
    verb: { key: 'M', likely: ['body'], says: 'Repeats steps or bodies as their mirror image in a plane.' },
    fields,
    sentence: 'Mirror {what}[ {steps}][ {bodies}] in {plane}[ → {copies}]',
    places: ({ plane }) => [{ transform: reflection(planeOf(plane[0]!)!), instance: 'm' }],
  });
