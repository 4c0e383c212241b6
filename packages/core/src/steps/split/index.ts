import { heightOver, type Frame } from '../../math/index.ts';
import { planeOf, type Thing } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { bodiesIn } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, picks } from '../fields/index.ts';

const fields = {
  bodies: picks('bodies', 'body', { min: 0, max: 100, many: 'bodies' }),
  by: picks('plane or face', 'sheet'),
  keep: choice('keep', { both: 'both sides', front: 'what lies before it', back: 'what lies behind it' }, 'both'),
};

interface Inputs {
  readonly only: readonly number[];
  readonly by: Frame | { readonly body: number; readonly face: string };
  readonly keep: 'both' | 'front' | 'back';
  readonly step: string;
}

export const split = changing('split', {
  title: 'Split',
  verb: { key: 'K', likely: ['body'], says: 'Parts bodies at a plane or a face; one side or both are kept.' },
  fields,
  sentence: 'Split[? {bodies}] at {by}, keep {keep}',
  inputs({ bodies, by: [sheet], keep }, { step }): Result<Inputs> {
    const plane = planeOf(sheet!);
    if (plane) return ok({ only: bodiesIn(bodies), by: plane, keep, step });
    // in front of a round face is nothing that anybody would agree on
    if (keep !== 'both') return fail('split.keep');
    const { body, face } = sheet as Extract<Thing, { to: 'face' }>;
    return ok({ only: bodiesIn(bodies), by: { body, face: face.name }, keep, step });
  },
  build({ only, by, keep, step }, before, kernel) {
    const chosen = only.length === 0 ? before : only.map((k) => before[k]!);
    if (chosen.length === 0) return fail('body.none', { result: 'cut' });
    const after = before.filter((body) => !chosen.includes(body));
    let met = false;
    for (const body of chosen) {
      const pieces = kernel.split({ body, by: 'face' in by ? { ...by, body: before[by.body]! } : by, step });
      if (!pieces.ok) return pieces;
      met ||= pieces.value.length > 1;
      for (const piece of pieces.value) {
        const front = !('face' in by) && heightOver(by, kernel.measure(piece).centre_mm) > 0;
        if (keep === 'both' || front === (keep === 'front')) after.push(piece);
        else kernel.release(piece);
      }
    }
    return met ? ok(after) : fail('split.misses');
  },
  words: {
    'split.keep': () => 'A face that is not flat has no side before it: keep both sides.',
    'split.misses': () => 'The plane does not meet the body: choose another plane, or other bodies.',
  },
});
