import type { SweepRequest } from '../../kernel-port/index.ts';
import { chained, curvesOf } from '../../references/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { ANGLE } from '../../units/index.ts';
import { profileOf } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, choice, number, picks, sketchField } from '../fields/index.ts';

const fields = {
  sketch: sketchField,
  areas: areasField,
  path: picks('path', 'curve', { max: 100, many: 'curves' }),
  keep: choice('direction', { following: 'turning with it', fixed: 'keeping its direction' }, 'following'),
  /** Over the whole way; counter-clockwise seen against it. */
  twist: number('twist', {
    asks: ANGLE,
    min: -200 * Math.PI,
    max: 200 * Math.PI,
    initial: '0 deg',
    when: ({ keep }) => keep === 'following',
  }),
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, SweepRequest {}

export const sweep = making('sweep', {
  title: 'Sweep',
  verb: { key: 'W', likely: ['guide'], says: 'Runs the areas of a sketch along a path: tubes, rims, handles.' },
  fields,
  sentence: 'Sweep {sketch}{areas} along {path}, {keep}[? and by {twist} more] → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context);
    if (!area.ok) return area;
    const curves = values.path.flatMap((thing) => curvesOf(thing).map(({ curve }) => curve));
    return ok({
      profile: area.value.profile,
      path: chained(curves, area.value.profile.frame.origin),
      keep: values.keep,
      ...(values.twist === 0 ? {} : { twist: values.twist }),
      ...onBodies(values, context),
    });
  },
  solids: (inputs, _, kernel) => kernel.sweep(inputs),
  words: {
    'sweep.path': () =>
      'The area can not be moved along this path: it bends more sharply than the area is wide, or leaves its plane. Choose a smoother path.',
    'sweep.twist': () => 'A path with corners can not be gone along with a twist: round its corners first.',
    'sweep.joined': () => 'The curves of the path do not go on into each other: choose curves that meet end to end.',
  },
});
