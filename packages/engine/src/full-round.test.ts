import { startKernelInNode } from '@helb/kernel/node';
import type { Entities, Reference } from '@helb/core';
import { Engine } from './index.ts';
import { PartFixture, circle, disc, face } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** What a round takes from a square stretch of a width: both corners outside the half circle. */
const taken = (width: number) => (width * width) / 2 - disc(width) / 2;
const wallTop = face('wall/end');
const inFull = (bench: PartFixture, faces: readonly Reference[] = [wallTop]) =>
  bench.step('round', 'full-round', { faces });

test('the top of a wall', async () => {
  const bench = inFull(new PartFixture().block('wall', 40, 6, 20));
  expect(await bench.volume()).toBeCloseTo(40 * 6 * 20 - 40 * taken(6), 6);
  const faces = (await bench.model()).bodies[0]!.topology!.faces;
  expect(faces.map(({ name }) => name)).not.toContain('wall/end');
  const round = faces.filter(({ name }) => name.startsWith('round/side/round'));
  expect(round).toHaveLength(1);
  expect(round[0]!.surface).toMatchObject({ form: 'cylinder', radius: expect.closeTo(3, 9) as number, hollow: false });
});

test('the brim of a cup, all round', async () => {
  const cup: Entities = { ...circle(0, 0, 20), q: { kind: 'circle', centre: 'm', radius: 16 } };
  const bench = inFull(new PartFixture().sketch('s', cup).step('wall', 'extrude', { sketch: 's', distance: '30 mm' }));
  // by Pappus: what is taken inside and outside has its centre of area above the middle of the wall
  expect(await bench.volume()).toBeCloseTo(30 * (disc(40) - disc(32)) - 2 * Math.PI * 18 * taken(4), 5);
});

test('a wall that narrows upwards is touched on both sides', async () => {
  // a triangle with its tip cut off: sides at 60 degrees, 10 wide at the top
  const [w, h] = [10, 30];
  const foot = h / Math.sqrt(3);
  const section: Entities = {
    p0: { kind: 'point', x: 0, y: 0 },
    p1: { kind: 'point', x: w + 2 * foot, y: 0 },
    p2: { kind: 'point', x: w + foot, y: h },
    p3: { kind: 'point', x: foot, y: h },
    a: { kind: 'line', a: 'p0', b: 'p1' },
    b: { kind: 'line', a: 'p1', b: 'p2' },
    top: { kind: 'line', a: 'p2', b: 'p3' },
    d: { kind: 'line', a: 'p3', b: 'p0' },
  };
  const bench = inFull(
    new PartFixture().sketch('s', section).step('wall', 'extrude', { sketch: 's', distance: '40 mm' }),
    [face('wall/side/top')],
  );
  // at a corner of 120 degrees the tangent is w/2 long: a kite of tangent and radius less a sixth of the circle
  const radius = (w / 2) * Math.tan(Math.PI / 3);
  const corner = (w / 2) * radius - (Math.PI * radius * radius) / 6;
  expect(await bench.volume()).toBeCloseTo(40 * ((w + foot) * h - 2 * corner), 5);
});

test('a rim of straight and round stretches', async () => {
  // a slot as a wall of 4: straight for 30, half circles of 10 outside
  const ring = (radius: number, tag: string): Entities => ({
    [`a${tag}`]: { kind: 'point', x: -15, y: -radius },
    [`b${tag}`]: { kind: 'point', x: 15, y: -radius },
    [`c${tag}`]: { kind: 'point', x: 15, y: radius },
    [`d${tag}`]: { kind: 'point', x: -15, y: radius },
    [`m${tag}`]: { kind: 'point', x: 15, y: 0 },
    [`n${tag}`]: { kind: 'point', x: -15, y: 0 },
    [`low${tag}`]: { kind: 'line', a: `a${tag}`, b: `b${tag}` },
    [`right${tag}`]: { kind: 'arc', centre: `m${tag}`, a: `b${tag}`, b: `c${tag}`, radius },
    [`high${tag}`]: { kind: 'line', a: `c${tag}`, b: `d${tag}` },
    [`left${tag}`]: { kind: 'arc', centre: `n${tag}`, a: `d${tag}`, b: `a${tag}`, radius },
  });
  const bench = inFull(
    new PartFixture()
      .sketch('s', { ...ring(10, 'o'), ...ring(6, 'i') })
      .step('wall', 'extrude', { sketch: 's', distance: '12 mm' }),
  );
  const area = disc(20) - disc(12) + 2 * 30 * 4;
  expect(await bench.volume()).toBeCloseTo(area * 12 - taken(4) * (60 + 2 * Math.PI * 8), 4);
});

test('what is no rim, and a wall that is too low, are told', async () => {
  const bench = inFull(new PartFixture().sketch('s', circle(0, 0, 10)).step('wall', 'extrude', { sketch: 's' }));
  expect(await bench.trouble()).toMatch(/no rim of even width/);
  expect(await inFull(new PartFixture().block('wall', 40, 30, 5)).trouble()).toMatch(/lower than half its width/);
});
