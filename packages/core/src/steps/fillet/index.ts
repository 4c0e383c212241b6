import type { z } from 'zod';
import type { Words } from '../../result/index.ts';
import { ok } from '../../result/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { edgesByBody, renamedEdge } from '../edges.ts';
import { choice, number, picks, schemaOf } from '../fields.ts';

const SIZE = { asks: LENGTH, least: 1e-3, most: 1e4 } as const;

const fields = {
  edges: picks('edges', 'edges', { most: 500, many: 'edges' }),
  radius: number('radius', { ...SIZE, usual: '2 mm' }),
  course: choice('course', { even: 'all along', growing: 'growing to' }, 'even'),
  to: number('radius at the other end', { ...SIZE, usual: '4 mm', when: ({ course }) => course === 'growing' }),
};

export const filletSchema = schemaOf('fillet', fields);
export type FilletStep = z.infer<typeof filletSchema>;

interface Inputs {
  readonly rounds: readonly { readonly body: number; readonly edges: readonly string[] }[];
  readonly radius: number;
  readonly to?: number;
  readonly step: string;
}

export const fillet = changing('fillet', {
  title: 'Fillet',
  fields,
  sentence: 'Round {edges} by {radius}, {course}[ {to}]',
  inputs: ({ edges, radius, course, to }, { step }) =>
    ok<Inputs>({ rounds: edgesByBody(edges), radius, ...(course === 'growing' ? { to } : {}), step }),
  build: ({ rounds, radius, to, step }, before, kernel) =>
    changedBodies(
      before,
      rounds.map(({ body, edges }) => ({
        body,
        make(handle) {
          const sized = (size: number) =>
            kernel.round({
              body: handle,
              edges: edges.map((name) => ({ name, radius: size, ...(to === undefined ? {} : { to }) })),
              step,
            });
          const made = sized(radius);
          if (made.ok || made.issue.code === 'kernel.gone') return made;
          return {
            ok: false,
            issue: { code: 'round.size', facts: { most: largest(sized, radius, kernel.release.bind(kernel)) } },
          };
        },
      })),
      kernel,
    ),
  again: (inputs, rename) => ({
    ...inputs,
    rounds: inputs.rounds.map(({ body, edges }) => ({ body, edges: edges.map((edge) => renamedEdge(edge, rename)) })),
  }),
});

/** The largest size that builds, by bisection: to a fiftieth of what was asked; 0 where none does. */
export function largest(
  make: (size: number) => { readonly ok: true; readonly value: number } | { readonly ok: false },
  asked: number,
  release: (body: number) => void,
): number {
  let [good, bad] = [0, asked];
  for (let k = 0; k < 6; k++) {
    const size = (good + bad) / 2;
    const made = make(size);
    if (made.ok) {
      release(made.value);
      good = size;
    } else bad = size;
  }
  return Math.floor(good * 100) / 100;
}

const upTo = (most: unknown): string =>
  Number(most) > 0
    ? ` About ${most as string} mm is the most that builds.`
    : ' No smaller size builds either: choose fewer edges.';

export const filletWords: Words = {
  'round.size': (f) => `These edges can not be rounded by so much.${upTo(f['most'])}`,
  'chamfer.size': (f) => `These edges can not be cut off by so much.${upTo(f['most'])}`,
};
