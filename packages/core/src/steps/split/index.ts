import type { z } from 'zod';
import { heightOver } from '../../math/index.ts';
import { planeOf } from '../../references/index.ts';
import { fail, ok, type Words } from '../../result/index.ts';
import { bodiesIn } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, picks, schemaOf } from '../fields.ts';

const fields = {
  bodies: picks('bodies', 'body', { least: 0, most: 100, many: 'bodies' }),
  by: picks('plane', 'plane'),
  keep: choice('keep', { both: 'both sides', front: 'what lies before it', back: 'what lies behind it' }, 'both'),
};

export const splitSchema = schemaOf('split', fields);
export type SplitStep = z.infer<typeof splitSchema>;

export const split = changing('split', {
  title: 'Split',
  fields,
  sentence: 'Split[? {bodies}] at {by}, keep {keep}',
  inputs: ({ bodies, by, keep }, { step }) => ok({ only: bodiesIn(bodies), plane: planeOf(by[0]!)!, keep, step }),
  build({ only, plane, keep, step }, before, kernel) {
    const chosen = only.length === 0 ? before : only.map((k) => before[k]!);
    if (chosen.length === 0) return fail('body.none', { result: 'cut' });
    const after = before.filter((body) => !chosen.includes(body));
    let met = false;
    for (const body of chosen) {
      const pieces = kernel.split({ body, plane, step });
      if (!pieces.ok) return pieces;
      met ||= pieces.value.length > 1;
      for (const piece of pieces.value) {
        const front = heightOver(plane, kernel.measure(piece).centre_mm) > 0;
        if (keep === 'both' || front === (keep === 'front')) after.push(piece);
        else kernel.release(piece);
      }
    }
    return met ? ok(after) : fail('split.misses');
  },
});

export const splitWords: Words = {
  'split.misses': () => 'The plane does not meet the body: choose another plane, or other bodies.',
};
