import { ok } from '../../result/index.ts';
import { planeOf } from '../../references/index.ts';
import { ANGLE } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { facesByBody } from '../edges.ts';
import { number, picks } from '../fields/index.ts';

const fields = {
  faces: picks('faces', 'face', { max: 200, many: 'faces' }),
  /** They keep their lines in it, and lean against its normal. */
  from: picks('from', 'plane'),
  angle: number('angle', { asks: ANGLE, min: -1.4, max: 1.4, initial: '2 deg' }),
};

export const draft = changing('draft', {
  title: 'Draft',
  verb: { key: 'T', likely: ['face'], says: 'Slants faces by an angle, so that the part leaves its mould.' },
  fields,
  sentence: 'Lean {faces} by {angle} from {from}',
  inputs: ({ faces, from, angle }, { step }) =>
    ok({ slopes: facesByBody(faces), neutral: planeOf(from[0]!)!, angle, step }),
  build: ({ slopes, neutral, angle, step }, before, kernel) =>
    changedBodies(
      before,
      slopes.map(({ body, faces }) => ({
        body,
        make: (handle) => kernel.draft({ body: handle, faces, neutral, angle, step }),
      })),
      kernel,
    ),
  words: {
    'draft.face': () =>
      'One of these faces can not lean like that: only flat, round and conical faces can, by angles that leave their neighbours in place.',
  },
});
