import type { z } from 'zod';
import { turn3 } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { ANGLE, NUMBER } from '../../units/index.ts';
import { changing } from '../define.ts';
import { number, picks, schemaOf, skipField } from '../fields.ts';
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
  about: picks('axis', 'axis'),
  count: number('count', { asks: NUMBER, least: 1, most: 1000, whole: true, usual: '6' }),
  /** Over which all are spread; a full turn is spread evenly. */
  over: number('angle', { asks: ANGLE, least: -2 * Math.PI - 1e-9, most: 2 * Math.PI + 1e-9, usual: '360 deg' }),
  skip: skipField,
  copies: copiesField,
};

export const patternRoundSchema = schemaOf('pattern-round', fields);
export type PatternRoundStep = z.infer<typeof patternRoundSchema>;

export const patternRound = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  changing('pattern-round', {
    title: 'Pattern round an axis',
    fields,
    sentence: 'Repeat {what}[ {steps}][ {bodies}] {count} times over {over} about {about}{skip}[ → {copies}]',
    inputs(values, context): Result<RepeatInputs> {
      const repeated = repeatedOf(values, context);
      if (!repeated.ok) return repeated;
      const { origin, direction } = axisOf(values.about[0]!)!;
      const { count, over } = values;
      const full = Math.abs(Math.abs(over) - 2 * Math.PI) < 1e-6;
      const between = over / (full ? count : Math.max(1, count - 1));
      const copies = Array.from({ length: count }, (_, k) => ({
        movement: turn3(origin, direction, k * between),
        instance: `${k + 1}`,
      })).filter((_, k) => k > 0 && !values.skip.includes(k + 1));
      return ok({ repeated: repeated.value, copies, step: context.step });
    },
    build: (inputs, before, kernel) => repeat(inputs, before, kernel, kindOf),
  });
