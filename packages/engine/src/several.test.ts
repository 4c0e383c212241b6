import { startKernelInNode } from '@helb/kernel/node';
import type { Entities } from '@helb/core';
import { Engine } from './index.ts';
import { PartFixture, body, circle, disc, edge, face, rectangle, type Fields } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

describe('several sizes in one step, faces that split, patterns along a path', () => {
  test('a fillet with three radii; too large ones shrink together for the offer', async () => {
    const post = (fields: Fields) =>
      new PartFixture().block('b', 30, 20, 10).step('f', 'fillet', {
        edges: [edge('b/side/a', 'b/side/b')],
        radius: '2 mm',
        also: [edge('b/side/b', 'b/side/c')],
        other: '3 mm',
        third: [edge('b/side/c', 'b/side/d')],
        another: '4 mm',
        ...fields,
      });
    const taken = (1 - Math.PI / 4) * 10 * (4 + 9 + 16);
    expect(await post({}).volume()).toBeCloseTo(6000 - taken, 5);
    expect(await post({ radius: '12 mm', other: '12 mm' }).trouble()).toMatch(/About \d.* mm is the most that builds/);
  });

  test('a shell with one thicker wall', async () => {
    const tray = new PartFixture().block('b', 30, 20, 10).step('s', 'shell', {
      open: [face('b/end')],
      wall: '1 mm',
      others: [face('b/start')],
      other: '3 mm',
    });
    expect(await tray.volume()).toBeCloseTo(6000 - 28 * 18 * 7, 6);
  });

  test('a block split by a face of another body, flat or round; before a round one is nothing', async () => {
    const two = (fields: Fields) =>
      new PartFixture()
        .block('b', 40, 20, 10)
        .sketch('t', circle(20, 10, 6))
        .step('pin', 'extrude', { sketch: 't', distance: '30 mm', result: 'new', start: '20 mm' })
        .step('c', 'split', { bodies: [body('b')], by: [face('pin/side/o')], ...fields });
    const model = await two({}).model();
    expect(model.bodies.map(({ measures }) => measures.volume_mm3).sort((a, b) => a - b)).toEqual(
      [disc(12) * 10, disc(12) * 30, 8000 - disc(12) * 10].map((volume) => expect.closeTo(volume, 4)).sort(),
    );
    expect(await two({ keep: 'front' }).trouble()).toMatch(/keep both sides/);
  });

  test('bosses along an arc turn with it, or keep their direction', async () => {
    const way: Entities = {
      m: { kind: 'point', x: 0, y: 0 },
      q0: { kind: 'point', x: 40, y: 0 },
      q1: { kind: 'point', x: 0, y: 40 },
      k: { kind: 'arc', centre: 'm', a: 'q0', b: 'q1', radius: 40 },
    };
    const studs = (keep: string) =>
      new PartFixture()
        .sketch('way', way)
        .sketch('s', rectangle(38, -1, 4, 2))
        .step('stud', 'extrude', { sketch: 's', distance: '5 mm' })
        .step('p', 'pattern-path', {
          what: 'bodies',
          bodies: [body('stud')],
          path: [{ to: 'drawn', step: 'way', entity: 'k' }],
          count: '3',
          keep,
        });
    const centres = async (keep: string) =>
      (await studs(keep).model()).bodies.map(({ measures }) =>
        measures.centre_mm.slice(0, 2).map((c) => Math.round(c * 1e4) / 1e4 + 0),
      );
    const h = Math.round(40 * Math.SQRT1_2 * 1e4) / 1e4;
    expect(await centres('following')).toEqual([
      [40, 0],
      [h, h],
      [0, 40],
    ]);
    const last = async (keep: string) => (await studs(keep).model()).bodies[2]!.measures.box_mm;
    const width = async (keep: string) => {
      const { low, high } = await last(keep);
      return high[0] - low[0];
    };
    expect(await width('following')).toBeCloseTo(2, 3);
    expect(await width('fixed')).toBeCloseTo(4, 6);
  });
});
