import type { z } from 'zod';
import { fail, ok, type Words } from '../../result/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { facesByBody } from '../edges.ts';
import { largest } from '../fillet/index.ts';
import { choice, number, picks, schemaOf } from '../fields.ts';

const fields = {
  open: picks('open faces', 'face', { most: 100, many: 'faces' }),
  wall: number('wall', { asks: LENGTH, least: 1e-3, most: 1e4, usual: '2 mm' }),
  side: choice('side', { inwards: 'inwards', outwards: 'outwards' }, 'inwards'),
};

export const shellSchema = schemaOf('shell', fields);
export type ShellStep = z.infer<typeof shellSchema>;

export const shell = changing('shell', {
  title: 'Shell',
  fields,
  sentence: 'Shell, open at {open}, wall {wall} {side}',
  inputs: ({ open, wall, side }, { step }) =>
    ok({ hollows: facesByBody(open), wall: side === 'inwards' ? wall : -wall, step }),
  build: ({ hollows, wall, step }, before, kernel) =>
    changedBodies(
      before,
      hollows.map(({ body, faces }) => ({
        body,
        make(handle) {
          const sized = (size: number) =>
            kernel.hollow({ body: handle, open: faces, wall: Math.sign(wall) * size, step });
          const made = sized(Math.abs(wall));
          if (made.ok || made.issue.code === 'kernel.gone') return made;
          return fail('shell.wall', { most: largest(sized, Math.abs(wall), kernel.release.bind(kernel)) });
        },
      })),
      kernel,
    ),
});

export const shellWords: Words = {
  'shell.wall': (f) =>
    `The walls can not be that thick.${Number(f['most']) > 0 ? ` About ${f['most']} mm is the most that builds.` : ' Choose other open faces.'}`,
};
