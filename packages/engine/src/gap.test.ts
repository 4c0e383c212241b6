import { startKernelInNode } from '@helb/kernel/node';
import type { BodyReference } from '@helb/core';
import { Engine, inspect } from './index.ts';
import { PartFixture, circle, plane } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const to = (kind: 'face' | 'edge' | 'vertex', name: string): BodyReference => ({ to: kind, name });

/** A block of 20 x 10 x 10 and a pin of 6 across whose axis stands at (40, 5). */
const two = () =>
  new PartFixture()
    .block('b', 20, 10, 10)
    .sketch('t', circle(40, 5, 3))
    .step('pin', 'extrude', { sketch: 't', distance: '30 mm', result: 'new' });

const gap = (a: BodyReference, b: BodyReference) => PartFixture.engine.gap(two().script.project, 'part', [a, b]);

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

test('sections lie where they are told, look the other way when turned, and say what is missing', async () => {
  const bench = two().step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '4 mm' });
  const cut = (id: string, fields: object) =>
    bench.script.do('section.add', {
      part: 'part',
      id,
      section: { name: id, plane: { to: 'datum', step: 'high' }, offset: '1 mm', turned: false, ...fields },
    });
  cut('c1', {});
  cut('c2', { turned: true, offset: '-2 mm' });
  cut('c3', { plane: to('face', 'gone/end') });
  cut('c4', { offset: '3 kg' });
  const model = await bench.model();
  const told = inspect(bench.script.project, { parts: [model], values: [] }).parts[0]!.sections;
  expect(told).toEqual([
    { name: 'c1', at_mm: [0, 0, 5], along: [0, 0, 1], message: null },
    { name: 'c2', at_mm: [0, 0, 2], along: [-0, -0, -1], message: null },
    { name: 'c3', at_mm: null, along: null, message: expect.stringContaining('gone') },
    { name: 'c4', at_mm: null, along: null, message: expect.any(String) },
  ]);
});
