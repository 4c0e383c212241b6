import { ok } from '../../result/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { facesByBody } from '../edges.ts';
import { choice, number, picks } from '../fields/index.ts';
import { pullOffFace } from '../pulls.ts';

const fields = {
  faces: picks('faces', 'face', { max: 200, many: 'faces' }),
  distance: number('distance', { asks: LENGTH, min: 1e-4, max: 1e4, initial: '0.2 mm' }),
  side: choice('side', { inwards: 'inwards', outwards: 'outwards' }, 'inwards'),
};

/** How clearance is added late: faces set back, or forwards. */
export const offsetFace = changing('offset-face', {
  title: 'Offset face',
  verb: { key: 'F', likely: ['face'], says: 'Sets faces in or out by a distance; what is beside them follows.' },
  fields,
  sentence: 'Set {faces} {side} by {distance}',
  pulls: ({ faces, side }, seen) => pullOffFace('distance', faces, seen, side === 'outwards' ? 1 : -1),
  inputs: ({ faces, distance, side }, { step }) =>
    ok({ offsets: facesByBody(faces), distance: side === 'outwards' ? distance : -distance, step }),
  build: ({ offsets, distance, step }, before, kernel) =>
    changedBodies(
      before,
      offsets.map(({ body, faces }) => ({
        body,
        make: (handle) => kernel.offset({ body: handle, faces, distance, step }),
      })),
      kernel,
    ),
  words: {
    'offset.leaning': () =>
      'A face beside one of these leans and is bent, or ends in a free curve: how far it would go is not known. Set that one off too, or make the change in the sketch.',
    'offset.face': () => 'One of these faces can not be set off like that: choose a smaller distance, or fewer faces.',
  },
});
