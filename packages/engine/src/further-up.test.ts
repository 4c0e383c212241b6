import { explain } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import fc from 'fast-check';
import { Engine } from './index.ts';
import { lastThat } from './last-that.ts';
import { circle, disc, face, PartFixture } from './test-fixture.ts';

// What fails at its place, and builds further up where less is in its way.

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** A block with a groove in its side, a boss on it and a bore; then walls that are open where the boss stands. */
const tub = () =>
  new PartFixture()
    .block('block', 60, 40, 20)
    .sketch('groove-s', circle(-2, 20, 4), 'front')
    .step('groove', 'extrude', { sketch: 'groove-s', extent: 'through', ways: 'both', result: 'cut' })
    .sketch('boss-s', circle(40, 20, 6), { to: 'face', name: 'block/end' })
    .step('boss', 'extrude', { sketch: 'boss-s', distance: '5 mm', result: 'add' })
    .sketch('bore-s', circle(50, 10, 3), 'front')
    .step('bore', 'extrude', { sketch: 'bore-s', extent: 'through', ways: 'both', result: 'cut' })
    .step('walls', 'shell', { open: [face('block/end')], wall: '2 mm' });

test('walls that a boss on the open face is in the way of: the last place at which they build is told, and holds', async () => {
  const bench = tub();
  const model = await bench.model();
  const failed = model.steps.at(-1)!;
  expect(failed).toMatchObject({ state: 'failed', issue: { code: 'shell.loose', facts: { after: 'groove' } } });
  expect(explain(failed.issue!)).toMatch(/would hang in the air: .* Right after groove it builds\.$/);
  const order = bench.script.project.parts['part']!.stepOrder;
  const moved = {
    command: 'step.move',
    input: { part: 'part', step: 'walls', to: order.indexOf('groove') + 1 },
  } as const;
  const built = await bench.model(moved);
  expect(built.steps.map(({ state }) => state)).toEqual(order.map(() => 'built'));
  // the boss stands over the opening: a body of its own
  expect(built.bodies).toHaveLength(2);
  expect(built.bodies.some(({ measures }) => Math.abs(measures.volume_mm3 - disc(12) * 5) < 1e-6)).toBe(true);
  // asked for again it is told again, from what is known, by the name that the other step has now
  expect((await bench.model()).steps.at(-1)!.issue).toEqual(failed.issue);
  const renamed = { command: 'step.rename', input: { part: 'part', step: 'groove', name: 'Keyway' } } as const;
  expect(explain((await bench.model(renamed)).steps.at(-1)!.issue!)).toMatch(/Right after Keyway it builds\.$/);
});

test('what does not build at the first place that has all it refers to names none', async () => {
  const bench = new PartFixture()
    .block('block', 60, 40, 20)
    .sketch('boss-s', circle(40, 20, 6), { to: 'face', name: 'block/end' })
    .step('boss', 'extrude', { sketch: 'boss-s', distance: '5 mm', result: 'add' })
    .step('walls', 'shell', { open: [face('block/end'), face('boss/side/o')], wall: '2 mm' });
  const [failed] = (await bench.model()).steps.slice(-1);
  expect(failed!.state).toBe('failed');
  expect(failed!.issue!.facts).not.toHaveProperty('after');
});

test('the last of a list that something holds of, with few questions', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 200 }), (length, upTo) => {
      let asked = 0;
      const list = Array.from({ length }, (_, k) => k);
      const found = lastThat(list, (k) => (asked++, k < upTo));
      expect(found).toBe(upTo === 0 || length === 0 ? undefined : Math.min(upTo, length) - 1);
      expect(asked).toBeLessThanOrEqual(2 + Math.ceil(Math.log2(Math.max(1, length))));
    }),
  );
});
