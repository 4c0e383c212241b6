import { add3, scale3, translation, type Vec3 } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { LENGTH, NUMBER } from '../../units/index.ts';
import { negated } from '../../expressions/index.ts';
import { choice, number, picks, skipField, type Filled } from '../fields/index.ts';
import type { StepKind } from '../kind.ts';
import { pullAlongAxis } from '../pulls.ts';
import { repeating } from '../repeats.ts';

const COUNT = { asks: NUMBER, min: 1, max: 1000, integer: true } as const;
const SPACE = { asks: LENGTH, min: -1e5, max: 1e5, initial: '20 mm' } as const;
const two = ({ directions }: Filled) => directions === 'two';

const fields = {
  along: picks('direction', 'axis'),
  count: number('count', { ...COUNT, initial: '3' }),
  spacing: number('spacing', SPACE),
  directions: choice('directions', { one: 'in one direction', two: 'and' }, 'one'),
  across: picks('second direction', 'axis', { when: two }),
  rows: number('count across', { ...COUNT, initial: '2', when: two }),
  apart: number('spacing across', { ...SPACE, when: two }),
  skip: skipField,
};

/**
 * Repeats along one direction or two.
 * @param kindOf the register, for the steps that it repeats
 */
export const patternLine = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  repeating('pattern-line', kindOf, {
    title: 'Pattern along a line',
    verb: { key: 'N', says: 'Repeats steps or bodies along a line, evenly, in one or two directions.' },
    fields,
    sentence:
      'Repeat {what}[ {steps}][ {bodies}] {count} times by {spacing} along {along}, {directions}[ {rows} times by {apart} along {across}]{skip}[ → {copies}]',
    turned: ({ spacing }) => ({ spacing: negated(spacing as string) }),
    pulls: ({ along, across, directions }, seen) => [
      ...pullAlongAxis('spacing', along, seen),
      ...(directions === 'two' ? pullAlongAxis('apart', across, seen) : []),
    ],
    places({ along, count, spacing, directions, across, rows, apart, skip }) {
      const first = scale3(axisOf(along[0]!)!.direction, spacing);
      const second: Vec3 = across[0] ? scale3(axisOf(across[0])!.direction, apart) : [0, 0, 0];
      const lines = directions === 'two' ? rows : 1;
      return Array.from({ length: lines * count }, (_, k) => {
        const [i, j] = [k % count, Math.floor(k / count)];
        return {
          transform: translation(add3(scale3(first, i), scale3(second, j))),
          instance: lines > 1 ? `${i + 1}-${j + 1}` : `${i + 1}`,
        };
      }).filter((_, k) => k > 0 && !skip.includes(k + 1));
    },
  });
