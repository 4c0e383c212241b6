import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { PartFixture, edge, face } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const detours = async (bench: PartFixture) =>
  (await bench.model()).steps.flatMap((step) => (step.detours ?? []).map(({ code }) => code));

test('a plate with round corners is open at a flat side that goes on into them', async () => {
  const corners = ['a b', 'b c', 'c d', 'a d'].map((pair) => edge(...pair.split(' ').map((side) => `b/side/${side}`)));
  const plate = new PartFixture()
    .block('b', 60, 40, 20)
    .step('r', 'fillet', { edges: corners, radius: '10 mm' })
    .step('s', 'shell', { open: [face('b/side/a')], wall: '3 mm' });
  const whole = (60 * 40 - (4 - Math.PI) * 100) * 20;
  // straight out between the round corners
  const hollow = (54 * 34 - (4 - Math.PI) * 49) * 14 + 40 * 14 * 3;
  expect(await plate.volume()).toBeCloseTo(whole - hollow, 6);
  expect(await detours(plate)).toEqual(['kernel.hollow-inset']);
  const { faces } = (await plate.model()).bodies[0]!.topology!;
  const rims = faces.filter(({ name }) => name.startsWith('b/side/a'));
  expect(rims.map(({ area }) => area)).toEqual([expect.closeTo(40 * 3, 9), expect.closeTo(40 * 3, 9)]);
  expect(faces.filter(({ name }) => name.startsWith('s/rim'))).toHaveLength(2);
  // the walls are found again when they become thicker
  const thicker = { command: 'step.set', input: { part: 'part', step: 's', fields: { wall: '4 mm' } } } as const;
  const before = new Set(faces.map(({ name }) => name));
  const after = (await plate.model(thicker)).bodies[0]!.topology!.faces.map(({ name }) => name);
  expect(after.filter((name) => !before.has(name))).toEqual([]);
});

test('a tub that is open at the inside of one of its walls as well', async () => {
  const tub = new PartFixture().block('b', 40, 30, 20).step('s', 'shell', { open: [face('b/end')], wall: '3 mm' });
  const { faces } = (await tub.model()).bodies[0]!.topology!;
  const inside = faces.find(
    ({ surface, centre }) => surface.form === 'plane' && surface.normal[0] > 0.5 && centre[0] < 4,
  )!;
  tub.step('t', 'shell', { open: [face(inside.name)], wall: '0.5 mm' });
  // between the outer skin and the inner one, and all that lies behind the open face
  const hollow = 39 * 29 * 19 - 35 * 25 * 17 + 0.5 * 25 * 17;
  expect(await tub.volume()).toBeCloseTo(40 * 30 * 20 - 34 * 24 * 17 - hollow, 6);
  expect(await detours(tub)).toEqual(['kernel.sharp-corners']);
});
