import { frameToFrame, translation, sub3 } from '../../math/index.ts';
import { endsOfCurve } from '../../geometry/index.ts';
import { chained, curvesOf, Path } from '../../references/index.ts';
import { LENGTH, NUMBER } from '../../units/index.ts';
import { choice, number, picks, skipField } from '../fields/index.ts';
import type { StepKind } from '../kind.ts';
import { repeating } from '../repeats.ts';

const fields = {
  path: picks('path', 'curve', { max: 100, many: 'curves' }),
  count: number('count', { asks: NUMBER, min: 1, max: 1000, integer: true, initial: '6' }),
  spread: choice('spread', { evenly: 'evenly', by: 'by' }, 'evenly'),
  spacing: number('spacing', {
    asks: LENGTH,
    min: 1e-3,
    max: 1e5,
    initial: '20 mm',
    when: ({ spread }) => spread === 'by',
  }),
  way: choice('way', { forwards: 'forwards', backwards: 'from its other end' }, 'forwards'),
  keep: choice('direction', { following: 'turning with it', fixed: 'keeping their direction' }, 'following'),
  skip: skipField,
};

/**
 * Repeats along curves.
 * @param kindOf the register, for the steps that it repeats
 */
export const patternPath = (kindOf: (kind: string) => StepKind<never, unknown>) =>
  repeating('pattern-path', kindOf, {
    title: 'Pattern along a path',
    verb: { key: '', says: 'Repeats steps or bodies along a curve.' },
    fields,
    sentence:
      'Repeat {what}[ {steps}][ {bodies}] {count} times {spread}[ {spacing}] along {path}[? {way}], {keep}{skip}[ → {copies}]',
    /** The original stands at the start of the path; what would lie beyond its end is left out. */
    places({ path, count, spread, spacing, way, keep, skip }) {
      const curves = path.flatMap((thing) => curvesOf(thing).map(({ curve }) => curve));
      const line = new Path(chained(curves, endsOfCurve(curves[0]!)[0] ?? [0, 0, 0]));
      const apart = spread === 'by' ? spacing : line.length / (line.closed ? count : Math.max(1, count - 1));
      const ways = Array.from({ length: count }, (_, k) => k * apart).filter((at) => at <= line.length + 1e-6);
      const frames = line.frames(way === 'forwards' ? ways : ways.map((at) => line.length - at));
      return frames
        .map((frame, k) => ({
          transform:
            keep === 'following' ? frameToFrame(frames[0]!, frame) : translation(sub3(frame.origin, frames[0]!.origin)),
          instance: `${k + 1}`,
        }))
        .filter((_, k) => k > 0 && !skip.includes(k + 1));
    },
  });
