import { ok } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { unlessSized } from '../earlier.ts';
import { byBody, edgesByBody, edgesOnSecond } from '../edges.ts';
import { choice, number, picks, type Values } from '../fields/index.ts';
import { pullOutOfEdge } from '../pulls.ts';
import { largest } from '../fillet/index.ts';

const SIZE = { asks: LENGTH, min: 1e-3, max: 1e4 } as const;

const fields = {
  edges: picks('edges', 'edges', { max: 500, many: 'edges' }),
  distance: number('distance', { ...SIZE, initial: '1 mm' }),
  shape: choice('shape', { equal: 'on both sides', other: 'and on the other side', angle: 'at an angle of' }, 'equal'),
  other: number('other distance', { ...SIZE, initial: '2 mm', when: ({ shape }) => shape === 'other' }),
  angle: number('angle', {
    asks: ANGLE,
    min: 0.01,
    max: 1.56,
    initial: '30 deg',
    when: ({ shape }) => shape === 'angle',
  }),
};

interface Inputs {
  readonly cuts: readonly { readonly body: number; readonly edges: readonly string[] }[];
  readonly distance: number;
  readonly more: { readonly other?: number; readonly angle?: number; readonly onSecond?: readonly string[] };
  readonly step: string;
}

/** What is not the same on both sides, and on which it is. */
function sidesOf({ shape, other, angle }: Values<typeof fields>, onSecond: readonly string[]): Inputs['more'] {
  const sides = onSecond.length > 0 ? { onSecond } : {};
  return shape === 'other' ? { other, ...sides } : shape === 'angle' ? { angle, ...sides } : {};
}

export const chamfer = changing('chamfer', {
  title: 'Chamfer',
  verb: { key: 'C', likely: ['edge'], says: 'Bevels edges: by one distance, by two, or by a distance and an angle.' },
  fields,
  sentence: 'Cut off {edges} by {distance} {shape}[ {other}][ {angle}]',
  // the two distances change sides
  turned: ({ shape, distance, other }) => (shape === 'other' ? { distance: other, other: distance } : undefined),
  pulls: ({ edges }, seen) => pullOutOfEdge('distance', edges, seen),
  inputs: (values, { step }) =>
    ok<Inputs>({
      cuts: edgesByBody(values.edges),
      distance: values.distance,
      more: sidesOf(values, edgesOnSecond(values.edges)),
      step,
    }),
  build: ({ cuts, distance, more, step }, before, kernel) =>
    changedBodies(
      before,
      cuts.map(({ body, edges }) => ({
        body,
        make(handle) {
          const sized = (size: number) => kernel.chamfer({ body: handle, edges, distance: size, ...more, step });
          const made = sized(distance);
          if (made.ok || made.issue.code === 'kernel.gone' || made.issue.code === 'chamfer.corner') return made;
          const most = largest(sized, distance, kernel.release.bind(kernel));
          return { ok: false, issue: { code: 'chamfer.size', facts: { most } } };
        },
      })),
      kernel,
    ),
  yields: unlessSized('chamfer.size'),
  edges: ({ cuts }) => cuts.flatMap(({ body, edges }) => edges.map((name) => ({ body, name }))),
  again(inputs, insteadOf) {
    const { onSecond = [] } = inputs.more;
    const copies = inputs.cuts.flatMap(({ body, edges }) =>
      edges.flatMap((name) =>
        insteadOf({ body, name }).map((copy) => ({ ...copy, isSecond: onSecond.includes(name) })),
      ),
    );
    const second = copies.filter(({ isSecond }) => isSecond).map(({ name }) => name);
    return {
      ...inputs,
      cuts: byBody(copies).map(([body, edges]) => ({ body, edges: edges.map(({ name }) => name) })),
      more: second.length > 0 ? { ...inputs.more, onSecond: second } : inputs.more,
    };
  },
});
