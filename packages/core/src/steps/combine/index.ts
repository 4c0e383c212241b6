import { fail, ok } from '../../result/index.ts';
import { bodiesIn } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, picks } from '../fields/index.ts';

const fields = {
  target: picks('body', 'body'),
  how: choice('way', { add: 'Add', cut: 'Cut away', overlap: 'Keep the overlap with' }, 'add'),
  tools: picks('other bodies', 'body', { max: 100, many: 'bodies' }),
  keep: choice('the other bodies', { no: 'go', yes: 'stay' }, 'no'),
};

export const combine = changing('combine', {
  title: 'Combine',
  verb: {
    key: 'J',
    likely: ['body'],
    says: 'Makes one of several bodies: added, cut by each other, or what they share.',
  },
  fields,
  sentence: '{how} {tools} on {target}; the others {keep}',
  inputs: ({ target, how, tools, keep }) =>
    ok({ target: bodiesIn(target)[0]!, how, tools: bodiesIn(tools), keep: keep === 'yes' }),
  build({ target, how, tools, keep }, before, kernel) {
    if (tools.includes(target)) return fail('combine.self');
    const made = kernel.combine(
      how,
      [before[target]!],
      tools.map((k) => before[k]!),
    );
    if (!made.ok) return made;
    if (!made.value.touched) {
      made.value.bodies.forEach((body) => kernel.release(body));
      return fail(how === 'cut' ? 'body.misses' : 'body.same');
    }
    const left = before.filter((_, k) => k !== target && (keep || !tools.includes(k)));
    return ok([...made.value.bodies, ...left]);
  },
  words: {
    'combine.self': () => 'A body can not be combined with itself: choose another one.',
  },
});
