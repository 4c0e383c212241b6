import type { z } from 'zod';
import { mirror3 } from '../../math/index.ts';
import { planeOf } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { changing } from '../define.ts';
import { picks, schemaOf } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import {
  copiesField,
  repeat,
  repeatedBodies,
  repeatedOf,
  repeatedSteps,
  whatField,
  type RepeatInputs,
} from '../repeats.ts';

const fields = {
  what: whatField,
  steps: repeatedSteps,
  bodies: repeatedBodies,
  plane: picks('mirror plane', 'plane'),
  copies: copiesField,
};

export const mirrorSchema = schemaOf('mirror', fields);
export type MirrorStep = z.infer<typeof mirrorSchema>;

export const mirror = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  changing('mirror', {
    title: 'Mirror',
    fields,
    sentence: 'Mirror {what}[ {steps}][ {bodies}] in {plane}[ → {copies}]',
    inputs(values, context): Result<RepeatInputs> {
      const repeated = repeatedOf(values, context);
      if (!repeated.ok) return repeated;
      const copies = [{ movement: mirror3(planeOf(values.plane[0]!)!), instance: 'm' }];
      return ok({ repeated: repeated.value, copies, step: context.step });
    },
    build: (inputs, before, kernel) => repeat(inputs, before, kernel, kindOf),
  });
