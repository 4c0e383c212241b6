import type { z } from 'zod';
import { followedBy, shift3, STILL, turn3, type Movement } from '../../math/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok, type Words } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { bodiesIn, gathered } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, number, picks, schemaOf } from '../fields.ts';

const SHIFT = { asks: LENGTH, least: -1e5, most: 1e5, usual: '0 mm' } as const;
const turned = ({ turn }: Readonly<Record<string, unknown>>) => turn === 'yes';

const fields = {
  bodies: picks('bodies', 'body', { most: 100, many: 'bodies' }),
  x: number('along x', SHIFT),
  y: number('along y', SHIFT),
  z: number('along z', SHIFT),
  turn: choice('turn', { no: 'not turned', yes: 'turned by' }, 'no'),
  angle: number('angle', { asks: ANGLE, least: -200 * Math.PI, most: 200 * Math.PI, usual: '90 deg', when: turned }),
  about: picks('axis', 'axis', { when: turned }),
  original: choice('the original', { no: 'goes along', yes: 'stays' }, 'no'),
};

export const moveSchema = schemaOf('move', fields);
export type MoveStep = z.infer<typeof moveSchema>;

export const move = changing('move', {
  title: 'Move',
  fields,
  sentence: 'Move {bodies} by {x} {y} {z}, {turn}[ {angle} about {about}]; the original {original}',
  inputs({ bodies, x, y, z, turn, angle, about, original }, { step }) {
    const axis = turn === 'yes' ? axisOf(about[0]!)! : undefined;
    const turning = axis ? turn3(axis.origin, axis.direction, angle) : STILL;
    const movement = followedBy(turning, shift3([x, y, z]));
    if (isStill(movement)) return fail('move.idle');
    return ok({
      bodies: bodiesIn(bodies),
      movement,
      keep: original === 'yes',
      step,
    });
  },
  build({ bodies, movement, keep, step }, before, kernel) {
    const copy = (k: number) => {
      const moved = kernel.moved({ body: before[k]!, movement, step, instance: 'm' });
      return moved.ok ? ok([moved.value]) : moved;
    };
    const made = gathered(bodies, copy, kernel);
    return made.ok ? ok([...before.filter((_, k) => keep || !bodies.includes(k)), ...made.value]) : made;
  },
});

/** Does a movement leave everything where it is, to rounding? */
const isStill = (movement: Movement): boolean =>
  movement.every((row, r) => row.every((c, k) => Math.abs(c - STILL[r]![k]!) < 1e-12));

export const moveWords: Words = {
  'move.idle': () =>
    'This moves nothing: all of its ways are 0 and it turns by nothing. Give it a way or a turn, or leave the step out for now.',
};
