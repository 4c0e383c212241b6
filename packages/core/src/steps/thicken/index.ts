import { fail, ok } from '../../result/index.ts';
import { LENGTH } from '../../units/index.ts';
import { bodiesIn, resultField, touchedField } from '../bodies.ts';
import { making } from '../define.ts';
import { facesByBody } from '../edges.ts';
import { choice, number, picks } from '../fields/index.ts';
import { pullOffFace } from '../pulls.ts';

const fields = {
  faces: picks('faces', 'face', { max: 100, many: 'faces' }),
  thickness: number('thickness', { asks: LENGTH, min: 1e-3, max: 1e4, initial: '2 mm' }),
  side: choice('side', { outwards: 'outwards', inwards: 'inwards' }, 'outwards'),
  result: resultField,
  only: touchedField,
};

export const thicken = making('thicken', {
  title: 'Thicken',
  verb: { key: 'Y', says: 'Lays a sheet of one thickness onto faces, outside or inside.' },
  fields,
  sentence: 'Thicken {faces} by {thickness} {side} → {result}[? {only}]',
  pulls: ({ faces, side }, seen) => pullOffFace('thickness', faces, seen, side === 'outwards' ? 1 : -1),
  inputs: (values, { step }) =>
    ok({
      slabs: facesByBody(values.faces),
      distance: values.side === 'outwards' ? values.thickness : -values.thickness,
      result: values.result,
      only: bodiesIn(values.only),
      step,
    }),
  solids({ slabs, distance, step }, before, kernel) {
    const [first, ...more] = slabs;
    if (!first || more.length > 0) return fail('thicken.bodies');
    return kernel.thicken({ body: before[first.body]!, faces: first.faces, distance, step });
  },
  words: {
    'thicken.bodies': () => 'Choose faces of one body only.',
    'thicken.face': () => 'One of these faces can not be that thick: choose a smaller thickness, or the other side.',
  },
});
