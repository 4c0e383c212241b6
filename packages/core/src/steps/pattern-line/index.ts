import type { z } from 'zod';
import { add3, scale3, shift3, type Vec3 } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { LENGTH, NUMBER } from '../../units/index.ts';
import { changing } from '../define.ts';
import { choice, number, picks, schemaOf, skipField } from '../fields.ts';
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

const COUNT = { asks: NUMBER, least: 1, most: 1000, whole: true } as const;
const SPACE = { asks: LENGTH, least: -1e5, most: 1e5, usual: '20 mm' } as const;
const two = ({ directions }: Readonly<Record<string, unknown>>) => directions === 'two';

const fields = {
  what: whatField,
  steps: repeatedSteps,
  bodies: repeatedBodies,
  along: picks('direction', 'axis'),
  count: number('count', { ...COUNT, usual: '3' }),
  spacing: number('spacing', SPACE),
  directions: choice('directions', { one: 'in one direction', two: 'and' }, 'one'),
  across: picks('second direction', 'axis', { when: two }),
  rows: number('count across', { ...COUNT, usual: '2', when: two }),
  apart: number('spacing across', { ...SPACE, when: two }),
  skip: skipField,
  copies: copiesField,
};

export const patternLineSchema = schemaOf('pattern-line', fields);
export type PatternLineStep = z.infer<typeof patternLineSchema>;

export const patternLine = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  changing('pattern-line', {
    title: 'Pattern along a line',
    fields,
    sentence:
      'Repeat {what}[ {steps}][ {bodies}] {count} times by {spacing} along {along}, {directions}[ {rows} times by {apart} along {across}]{skip}[ → {copies}]',
    inputs(values, context): Result<RepeatInputs> {
      const repeated = repeatedOf(values, context);
      if (!repeated.ok) return repeated;
      const first = scale3(axisOf(values.along[0]!)!.direction, values.spacing);
      const second: Vec3 = values.across[0] ? scale3(axisOf(values.across[0])!.direction, values.apart) : [0, 0, 0];
      const rows = values.directions === 'two' ? values.rows : 1;
      const copies = Array.from({ length: rows * values.count }, (_, k) => {
        const [i, j] = [k % values.count, Math.floor(k / values.count)];
        return {
          movement: shift3(add3(scale3(first, i), scale3(second, j))),
          instance: rows > 1 ? `${i + 1}-${j + 1}` : `${i + 1}`,
        };
      });
      const left = copies.filter((_, k) => k > 0 && !values.skip.includes(k + 1));
      return ok({ repeated: repeated.value, copies: left, step: context.step });
    },
    build: (inputs, before, kernel) => repeat(inputs, before, kernel, kindOf),
  });
