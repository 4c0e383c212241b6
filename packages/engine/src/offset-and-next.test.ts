import { circle, rectangle } from '@helb/core/samples';
import type { Entities } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { PartFixture, disc, face, total } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** Corners joined by lines, each called by the corner that it begins at. */
const outline = (...corners: (readonly [number, number])[]): Entities =>
  Object.fromEntries(
    corners.flatMap(([x, y], k) => [
      [`p${k}`, { kind: 'point', x, y }],
      [`l${k}`, { kind: 'line', a: `p${k}`, b: `p${(k + 1) % corners.length}` }],
    ]),
  );

describe('faces that lean are set off', () => {
  // 8 over 14.4, 10.2 high: each side goes sideways by this for each mm that it is set off
  const along = Math.hypot(3.2, 10.2) / 10.2;
  const bar = () =>
    new PartFixture()
      .sketch('s', outline([-7.2, 0], [7.2, 0], [4, 10.2], [-4, 10.2]))
      .step('e', 'extrude', { sketch: 's', distance: '60 mm' });

  test.each([
    ['inwards', -1],
    ['outwards', 1],
  ])('both slanted sides of a dovetailed bar %s by 0.2: no fins, the same faces', async (side, way) => {
    const faces = [face('e/side/l1'), face('e/side/l3')];
    const model = await bar().step('o', 'offset-face', { faces, distance: '0.2 mm', side }).model();
    expect(model.bodies[0]!.measures.faces).toBe(6);
    expect(total(model)).toBeCloseTo(((14.4 + 8) / 2 + 2 * way * 0.2 * along) * 10.2 * 60, 7);
  });

  test('on a rail, where the neck widens: clearance there too', async () => {
    // a rail under the dovetail, 30 wide and 6 high
    const section = outline([-15, -6], [15, -6], [15, 0], [4, 0], [7.2, 10.2], [-7.2, 10.2], [-4, 0], [-15, 0]);
    const faces = [face('e/side/l3'), face('e/side/l5')];
    const model = await new PartFixture()
      .sketch('s', section)
      .step('e', 'extrude', { sketch: 's', distance: '60 mm' })
      .step('o', 'offset-face', { faces, distance: '0.2 mm' })
      .model();
    expect(model.steps.at(-1)!.issue).toBeUndefined();
    expect(model.bodies[0]!.measures.faces).toBe(10);
    expect(total(model)).toBeCloseTo((30 * 6 + ((14.4 + 8) / 2 - 0.4 * along) * 10.2) * 60, 7);
  });

  test('a corner whose three faces all move, and a face that would vanish', async () => {
    const cut = bar().step('o', 'offset-face', {
      ...{ faces: [face('e/side/l1'), face('e/side/l2'), face('e/end')], distance: '0.5 mm' },
    });
    const [low, high, h] = [14.4 - 0.5 * along, 8 - 0.5 * along, 10.2];
    // the top goes down along both sides: wider there by what they lean
    const top = high + ((low - high) * 0.5) / h;
    expect(await cut.volume()).toBeCloseTo(((low + top) / 2) * (h - 0.5) * 59.5, 6);
    expect(
      await bar()
        .step('o', 'offset-face', { faces: [face('e/side/l1'), face('e/side/l3')], distance: '8 mm' })
        .trouble(),
    ).toContain('can not be set off like that');
  });
});

describe('a cut up to the next face', () => {
  const inner = Object.fromEntries(
    Object.entries(rectangle(3, 3, 34, 34)).map(([id, entity]) => [
      `i${id}`,
      entity.kind === 'line' ? { ...entity, a: `i${entity.a}`, b: `i${entity.b}` } : entity,
    ]),
  );
  const full = (1600 - 34 * 34) * 60;
  const tube = () =>
    new PartFixture()
      .sketch('s', { ...rectangle(0, 0, 40, 40), ...inner })
      .step('e', 'extrude', { sketch: 's', distance: '60 mm' });
  const next = { sketch: 'b', extent: 'next', result: 'cut' };

  test('begun on its own outside it goes through one wall of 3, the far one stays', async () => {
    const bored = tube()
      .sketch('b', circle(20, 30, 5), 'front')
      .step('x', 'extrude', { ...next, ways: 'backwards' });
    expect(await bored.volume()).toBeCloseTo(full - 3 * disc(10), 6);
  });

  test('also where its outline lies on the edges of what is inside', async () => {
    const open = tube()
      .sketch('b', rectangle(3, 10, 34, 20), 'front')
      .step('x', 'extrude', { ...next, ways: 'backwards' });
    expect(await open.volume()).toBeCloseTo(full - 3 * 34 * 20, 6);
  });

  test('from the middle both ways: a wall each', async () => {
    const both = tube()
      .step('pl', 'datum-plane', { how: 'offset', on: [{ to: 'origin', name: 'front' }], by: '-20 mm' })
      .sketch('b', circle(20, 30, 5), { to: 'datum', step: 'pl' })
      .step('x', 'extrude', { ...next, ways: 'both' });
    expect(await both.volume()).toBeCloseTo(full - 6 * disc(10), 6);
  });

  test('a rib from wall to wall up to two faces, one each way; to both on one side it does not go', async () => {
    const rib = (to: string[], more = {}) =>
      tube()
        .step('pl', 'datum-plane', { how: 'offset', on: [{ to: 'origin', name: 'front' }], by: '-12 mm' })
        .sketch('b', circle(20, 30, 5), { to: 'datum', step: 'pl' })
        .step('x', 'extrude', { sketch: 'b', extent: 'to', to: to.map(face), result: 'add', ...more });
    const walls = ['e/side/ia', 'e/side/ic'];
    expect(await rib(walls).volume()).toBeCloseTo(full + 34 * disc(10), 6);
    expect(await rib(walls.toReversed()).volume()).toBeCloseTo(full + 34 * disc(10), 6);
    const body = rib(walls, { result: 'new' });
    expect([await body.volume(), (await body.model()).bodies.length]).toEqual([
      expect.closeTo(full + 34 * disc(10), 6),
      2,
    ]);
    expect(await rib(walls, { clearance: '1 mm', result: 'new' }).volume()).toBeCloseTo(full + 32 * disc(10), 6);
    expect(await rib(['e/side/a', 'e/side/ia']).trouble()).toContain('on the same side');
  });

  test('away from the body there is nothing to get to', async () => {
    const away = tube()
      .sketch('b', circle(20, 30, 5), 'front')
      .step('x', 'extrude', { ...next, ways: 'forwards' });
    expect(await away.trouble()).toContain('It never gets there');
  });
});
