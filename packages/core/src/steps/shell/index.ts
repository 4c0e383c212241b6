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
  /** Their outer faces. */
  others: picks('walls of another thickness', 'face', {
    least: 0,
    most: 100,
    many: 'walls',
    when: ({ side }) => side === 'inwards',
  }),
  other: number('their thickness', {
    asks: LENGTH,
    least: 1e-3,
    most: 1e4,
    usual: '3 mm',
    when: ({ side, others }) => side === 'inwards' && (others as readonly unknown[]).length > 0,
  }),
};

export const shellSchema = schemaOf('shell', fields);
export type ShellStep = z.infer<typeof shellSchema>;

export const shell = changing('shell', {
  title: 'Shell',
  fields,
  sentence: 'Shell, open at {open}, wall {wall} {side}[?; {others} {other}]',
  inputs: ({ open, wall, side, others, other }, { step }) =>
    ok({
      hollows: facesByBody(open),
      wall: side === 'inwards' ? wall : -wall,
      others: facesByBody(others),
      other,
      step,
    }),
  build: ({ hollows, wall, others, other, step }, before, kernel) =>
    changedBodies(
      before,
      hollows.map(({ body, faces }) => ({
        body,
        make(handle) {
          const sized = (size: number) =>
            kernel.hollow({
              body: handle,
              open: faces,
              wall: Math.sign(wall) * size,
              others: (others.find((group) => group.body === body)?.faces ?? []).map((face) => ({
                face,
                wall: (other * size) / Math.abs(wall),
              })),
              step,
            });
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
