import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { axis, PartFixture, circle, edge, face, plane, rectangle } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const block = () => new PartFixture().block('b', 30, 20, 10);
const upright = ['a|b', 'b|c', 'c|d', 'a|d'].map((pair) => edge(...pair.split('|').map((side) => `b/side/${side}`)));

test('fillets on edges and on all edges of a face; too large ones say what would build', async () => {
  const rounded = block().step('f', 'fillet', { edges: upright, radius: '3 mm' });
  expect(await rounded.volume()).toBeCloseTo(6000 - (4 - Math.PI) * 9 * 10, 6);
  const top = block().step('f', 'fillet', { edges: [face('b/end')], radius: '1 mm' });
  const corner = 1 - Math.PI / 4;
  // four edges less the corners, where two meet, and an eighth of a ball rounds each corner
  expect(await top.volume()).toBeGreaterThan(6000 - corner * 100);
  expect(await top.volume()).toBeLessThan(6000 - corner * 90);
  const large = block().step('f', 'fillet', { edges: [upright[0]!], radius: '25 mm' });
  const [, most] = /About ([\d.]+) mm/.exec(await large.trouble())!;
  expect(Number(most)).toBeGreaterThan(18);
  expect(Number(most)).toBeLessThanOrEqual(20);
});

test('a chamfer by two distances, a shell, a draft, set-back and thickened faces', async () => {
  const cut = block().step('c', 'chamfer', { edges: [upright[0]!], distance: '2 mm', shape: 'other', other: '4 mm' });
  expect(await cut.volume()).toBeCloseTo(6000 - 4 * 10, 6);
  const shell = block().step('h', 'shell', { open: [face('b/end')], wall: '2 mm' });
  expect(await shell.volume()).toBeCloseTo(6000 - 26 * 16 * 8, 6);
  const leaning = block().step('d', 'draft', {
    faces: ['a', 'b', 'c', 'd'].map((side) => face(`b/side/${side}`)),
    from: [plane('top')],
    angle: '5 deg',
  });
  const t = Math.tan((5 * Math.PI) / 180);
  expect(await leaning.volume()).toBeCloseTo(6000 - 50 * t * 100 + (4 * t * t * 1000) / 3, 5);
  const back = block().step('o', 'offset-face', { faces: [face('b/side/b')], distance: '0.3 mm' });
  expect(await back.volume()).toBeCloseTo(29.7 * 200, 6);
  const slab = block().step('t', 'thicken', { faces: [face('b/end')], thickness: '3 mm', result: 'add' });
  expect(await slab.volume()).toBeCloseTo(600 * 13, 6);
  const thick = block().step('h', 'shell', { open: [face('b/end')], wall: '40 mm' });
  expect(await thick.trouble()).toMatch(/walls can not be that thick. About/);
});

test.each(['a', 'z'])(
  'all edges of one face are bevelled alike, whatever the faces beside them are called: %s',
  async (hole) => {
    const pierced = block()
      .sketch('o', rectangle(10, 7, 10, 6))
      .step(hole, 'extrude', { sketch: 'o', distance: '10 mm', result: 'cut' });
    const bevelled = (of: string, more: object) =>
      pierced.step(`c${hole}`, 'chamfer', { edges: [face(of)], distance: '1 mm', ...more });
    // a layer of 1 whose outline goes in by 2, and whose opening out by 2
    const layer = (30 * 20 + 4 * 28 * 18 + 26 * 16 - (10 * 6 + 4 * 12 * 8 + 14 * 10)) / 6;
    expect(await bevelled('b/start', { shape: 'other', other: '2 mm' }).volume()).toBeCloseTo(540 * 9 + layer, 6);
    const copied = pierced.step('p', 'pattern-line', {
      ...{ steps: ['b', hole, `c${hole}`], along: [axis('x')], count: '2', spacing: '50 mm' },
    });
    expect(await copied.volume()).toBeCloseTo(2 * (540 * 9 + layer), 6);
  },
);

test.each([0.5, 1, 1.7, 4])('a shell of %d that is open at the bottom of a pocket has a rim round it', async (wall) => {
  const bench = new PartFixture()
    .sketch('s', circle(0, 0, 25), 'top')
    .step('b', 'extrude', { sketch: 's', distance: '16 mm' })
    .sketch('p', circle(5, 2, 11), face('b/end'))
    .step('e', 'extrude', { sketch: 'p', distance: '7 mm', result: 'cut', ways: 'backwards' })
    .step('h', 'shell', { open: [face('e/start')], wall: `${wall} mm` });
  const [body] = (await bench.model()).bodies;
  const hollow = (25 - wall) ** 2 * (16 - 2 * wall) - (11 + wall) ** 2 * (7 - wall);
  expect(body!.measures.volume_mm3).toBeCloseTo(Math.PI * (25 ** 2 * 16 - 11 ** 2 * 7 - hollow), 6);
  const rim = body!.topology!.faces.find(({ name }) => name.includes('/rim/'))!;
  expect(rim.area).toBeCloseTo(Math.PI * ((11 + wall) ** 2 - 11 ** 2), 8);
  expect(body!.measures.faces).toBe(9);
});

test.each(['add', 'cut'])(
  'a shell whose open face has something on it (%s): nothing holds its walls',
  async (result) => {
    const bench = block()
      .sketch('s', rectangle(10, 6, 8, 6), { to: 'face', name: 'b/end' })
      .step('e', 'extrude', {
        sketch: 's',
        distance: '3 mm',
        result,
        ways: result === 'cut' ? 'backwards' : 'forwards',
      })
      .step('h', 'shell', { open: [face('b/end')], wall: '1 mm' });
    expect(await bench.trouble()).toMatch(
      /at [\d.]+ \/ [\d.]+ \/ [\d.]+ mm, would hang in the air: .* Right after b it builds/,
    );
  },
);

test.each([1, 1.7, 4, 10])(
  'a pocket of size %d: an inner edge and one of the rim that ends there, cut off',
  async (k) => {
    const bench = (edges: readonly string[]) =>
      new PartFixture()
        .block('b', 40 * k, 30 * k, 20 * k)
        .sketch('s', rectangle(10 * k, 8 * k, 20 * k, 12 * k), face('b/end'))
        .step('e', 'extrude', { sketch: 's', distance: `${8 * k} mm`, result: 'cut', ways: 'backwards' })
        .step('c', 'chamfer', { edges: edges.map((name) => ({ to: 'edge', name })), distance: `${k} mm` });
    const [inner, rim, next] = ['e/side/a | e/side/b', 'b/end | e/side/a', 'b/end | e/side/b'] as const;
    const block = 24_000 - 20 * 12 * 8;
    const volume = async (...edges: string[]) => (await bench(edges).volume()) / k ** 3 - block;
    expect(await volume(inner)).toBeCloseTo(8 / 2, 8);
    expect(await volume(rim)).toBeCloseTo(-20 / 2, 8);
    // the rim is shorter by what fills the inner edge, and ends in its slant
    expect(await volume(rim, inner)).toBeCloseTo(8 / 2 - 19 / 2 + 1 / 6, 8);
    expect(await volume(inner, rim, next)).toBeCloseTo(-11 - 2 / 3, 8);
  },
);
