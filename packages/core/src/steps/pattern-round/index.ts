import { rotation } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { ANGLE, NUMBER } from '../../units/index.ts';
import { number, picks, skipField } from '../fields/index.ts';
import type { StepKind } from '../kind.ts';
import { repeating } from '../repeats.ts';

const TURN = 2 * Math.PI;

const fields = {
  about: picks('axis', 'axis'),
  count: number('count', { asks: NUMBER, min: 1, max: 1000, integer: true, initial: '6' }),
  /** Over which all are spread; a full turn is spread evenly. */
  over: number('angle', { asks: ANGLE, min: -TURN - 1e-9, max: TURN + 1e-9, initial: '360 deg' }),
  skip: skipField,
};

/**
 * Repeats round an axis.
 * @param kindOf the register, for the steps that it repeats
 */
export const patternRound = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  repeating('pattern-round', kindOf, {
    title: 'Pattern round an axis',
    verb: { key: 'G', says: 'Repeats steps or bodies evenly about an axis.' },
    fields,
    sentence: 'Repeat {what}[ {steps}][ {bodies}] {count} times over {over} about {about}{skip}[ → {copies}]',
    places({ about, count, over, skip }) {
      const { origin, direction } = axisOf(about[0]!)!;
      const full = Math.abs(Math.abs(over) - TURN) < 1e-6;
      const between = over / (full ? count : Math.max(1, count - 1));
      return Array.from({ length: count }, (_, k) => ({
        transform: rotation(origin, direction, k * between),
        instance: `${k + 1}`,
      })).filter((_, k) => k > 0 && !skip.includes(k + 1));
    },
  });
