import { startKernelInNode } from '@helb/kernel/node';
import type { BodyReference } from '@helb/core';
import { Engine } from './index.ts';
import { Bench, circle } from './test-bench.ts';

beforeAll(async () => (Bench.engine = new Engine(await startKernelInNode())));

const to = (kind: 'face' | 'edge' | 'vertex', name: string): BodyReference => ({ to: kind, name });

/** A block of 20 x 10 x 10 and a pin of 6 across whose axis stands at (40, 5). */
const two = () =>
  new Bench()
    .block('b', 20, 10, 10)
    .sketch('t', circle(40, 5, 3))
    .step('pin', 'extrude', { sketch: 't', distance: '30 mm', result: 'new' });

const gap = (a: BodyReference, b: BodyReference) => Bench.engine.gap(two().script.project, 'part', [a, b]);

test.each<[string, BodyReference, BodyReference, number]>([
  ['a flat face and a round one', to('face', 'b/side/b'), to('face', 'pin/side/o'), 17],
  ['a face and a rim beyond it', to('face', 'b/end'), to('edge', 'pin/end | pin/side/o'), Math.hypot(17, 20)],
  ['two opposite faces of one body', to('face', 'b/side/a'), to('face', 'b/side/c'), 10],
  [
    'a corner and a face',
    to('vertex', 'corner b/end | b/side/a | b/side/b'),
    to('face', 'pin/side/o'),
    Math.hypot(20, 5) - 3,
  ],
  ['faces that meet', to('face', 'b/side/a'), to('face', 'b/end'), 0],
])('between %s', async (_, a, b, distance) => {
  const found = await gap(a, b);
  if (!found.ok) throw new Error(found.issue.code);
  const { from, to: end, distance_mm } = found.value;
  expect(distance_mm).toBeCloseTo(distance, 6);
  expect(Math.hypot(...from.map((c, k) => c - end[k]!))).toBeCloseTo(distance, 6);
});

test('something that is not there any more is told', async () => {
  const found = await gap(to('face', 'b/side/b'), to('edge', 'gone | b/end'));
  expect(found).toMatchObject({ ok: false, issue: { code: 'reference.gone' } });
});
