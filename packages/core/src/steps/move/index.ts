import { compose, translation, IDENTITY, rotation, type RigidTransform } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { bodiesIn, gathered } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, number, picks } from '../fields/index.ts';

const SHIFT = { asks: LENGTH, min: -1e5, max: 1e5, initial: '0 mm' } as const;
const turned = ({ turn }: Readonly<Record<string, unknown>>) => turn === 'yes';

const fields = {
  bodies: picks('bodies', 'body', { max: 100, many: 'bodies' }),
  x: number('along x', SHIFT),
  y: number('along y', SHIFT),
  z: number('along z', SHIFT),
  turn: choice('turn', { no: 'not turned', yes: 'turned by' }, 'no'),
  angle: number('angle', { asks: ANGLE, min: -200 * Math.PI, max: 200 * Math.PI, initial: '90 deg', when: turned }),
  about: picks('axis', 'axis', { when: turned }),
  original: choice('the original', { no: 'goes along', yes: 'stays' }, 'no'),
};

export const move = changing('move', {
  title: 'Move',
  verb: {
    key: 'B',
    title: 'Move a body',
    likely: ['body'],
    says: 'Shifts and turns a body, or leaves a copy of it elsewhere.',
  },
  fields,
  sentence: 'Move {bodies} by {x} {y} {z}, {turn}[ {angle} about {about}]; the original {original}',
  pulls: (_, { middle }) =>
    middle
      ? [
          { field: 'x', from: middle, along: [1, 0, 0] },
          { field: 'y', from: middle, along: [0, 1, 0] },
          { field: 'z', from: middle, along: [0, 0, 1] },
        ]
      : [],
  inputs({ bodies, x, y, z, turn, angle, about, original }, { step }) {
    const axis = turn === 'yes' ? axisOf(about[0]!)! : undefined;
    const turning = axis ? rotation(axis.origin, axis.direction, angle) : IDENTITY;
    const transform = compose(turning, translation([x, y, z]));
    if (isStill(transform)) return fail('move.idle');
    return ok({
      bodies: bodiesIn(bodies),
      transform,
      keep: original === 'yes',
      step,
    });
  },
  build({ bodies, transform, keep, step }, before, kernel) {
    const copy = (k: number) => {
      const moved = kernel.transformed({ body: before[k]!, transform, step, instance: 'm' });
      return moved.ok ? ok([moved.value]) : moved;
    };
    const made = gathered(bodies, copy, kernel);
    return made.ok ? ok([...before.filter((_, k) => keep || !bodies.includes(k)), ...made.value]) : made;
  },
  words: {
    'move.idle': () =>
      'This moves nothing: all of its ways are 0 and it turns by nothing. Give it a way or a turn, or leave the step out for now.',
  },
});

/** Does a transform leave everything where it is, to rounding? */
const isStill = (transform: RigidTransform): boolean =>
  transform.every((row, r) => row.every((c, k) => Math.abs(c - IDENTITY[r]![k]!) < 1e-12));
