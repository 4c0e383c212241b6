import { scale3, type Vec3 } from '../math/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { ANGLE, LENGTH, NUMBER } from '../units/index.ts';
import { choice, number, type Filled } from './fields/index.ts';

// How something winds about an axis: two of pitch, turns and height, the hand, which way, and how much it closes in.

const givenBy =
  (...by: readonly string[]) =>
  (step: Filled) =>
    by.includes(step['by'] as string);

export const windingFields = {
  by: choice('told by', { turns: 'turns and pitch', height: 'pitch and height', whole: 'turns and height' }, 'turns'),
  pitch: number('pitch', { asks: LENGTH, min: 0.01, max: 1e4, initial: '3 mm', when: givenBy('turns', 'height') }),
  turns: number('turns', { asks: NUMBER, min: 0.01, max: 200, initial: '4', when: givenBy('turns', 'whole') }),
  height: number('height', { asks: LENGTH, min: 0.01, max: 1e5, initial: '12 mm', when: givenBy('height', 'whole') }),
  hand: choice('hand', { right: 'right-handed', left: 'left-handed' }, 'right'),
  ways: choice('direction', { forwards: 'forwards', backwards: 'backwards' }, 'forwards'),
  taper: number('taper', { asks: ANGLE, min: -1, max: 1, initial: '0 deg' }),
};

/** In the sentence of a step. */
export const WINDING =
  'by {by}:[ {turns} turns][ of {pitch}][ up to {height}], {hand}, {ways} along it[?, closing in by {taper}]';

interface Winding {
  readonly pitch: number;
  readonly turns: number;
  readonly left: boolean;
  readonly taper: number;
}

interface WindingValues {
  readonly by: 'turns' | 'height' | 'whole';
  readonly pitch: number;
  readonly turns: number;
  readonly height: number;
  readonly hand: 'right' | 'left';
  readonly ways: 'forwards' | 'backwards';
  readonly taper: number;
}

/** Where a winding along an axis goes: its hand is the same either way. */
export const windsAlong = (direction: Vec3, { ways }: Pick<WindingValues, 'ways'>): Vec3 =>
  scale3(direction, ways === 'backwards' ? -1 : 1);

/** The third of pitch, turns and height from the two that are given. */
export function windingOf({ by, pitch, turns, height, hand, taper }: Omit<WindingValues, 'ways'>): Result<Winding> {
  const common = { left: hand === 'left', taper };
  if (by === 'turns') return ok({ pitch, turns, ...common });
  if (by === 'whole') return ok({ pitch: height / turns, turns, ...common });
  const wound = height / pitch;
  return wound > MOST_TURNS
    ? fail('winding.turns', { turns: Math.round(wound), most: MOST_TURNS })
    : ok({ pitch, turns: wound, ...common });
}

/** As many as the turns can be told to be. */
const MOST_TURNS = windingFields.turns.max;

export const windingWords: Words = {
  'winding.turns': (f) =>
    `This makes ${f['turns']} turns, and ${f['most']} are the most: give a greater pitch, or a smaller height.`,
};
