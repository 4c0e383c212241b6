import { startKernelInNode } from '@helb/kernel/node';
import { endsOfCurve, type Vec3 } from '@helb/core';
import { Engine } from './index.ts';
import { axis, Bench, circle, disc, plane, rectangle, type Fields } from './test-bench.ts';

beforeAll(async () => (Bench.engine = new Engine(await startKernelInNode())));

const wound = (fields: Fields) =>
  new Bench().step('h', 'helix-curve', { axis: [axis('z')], radius: '10 mm', ...fields });
const helix = async (fields: Fields) => {
  const model = await wound(fields).model();
  const datum = model.datums.get('h');
  if (datum?.form !== 'curve') throw new Error('no curve');
  return datum.edge;
};

describe('a helix curve', () => {
  test.each<[string, Fields, number, number]>([
    ['by turns and pitch', { turns: '3', pitch: '4 mm' }, 3, 4],
    ['by pitch and height', { by: 'height', pitch: '4 mm', height: '10 mm' }, 2.5, 4],
    ['by turns and height', { by: 'whole', turns: '5', height: '10 mm' }, 5, 2],
  ])('%s', async (_, fields, turns, pitch) => {
    const { curve, length } = await helix(fields);
    expect(curve).toMatchObject({ form: 'helix', turns, pitch });
    expect(length).toBeCloseTo(turns * Math.hypot(20 * Math.PI, pitch), 9);
  });

  test('begins where it is told, turns either way and closes in', async () => {
    const near = (place: Vec3) => place.map((c) => expect.closeTo(c, 9) as number);
    const begun = await helix({ turns: '0.25', pitch: '4 mm', start: '90 deg', from: '-3 mm' });
    expect(endsOfCurve(begun.curve)).toEqual([near([0, 10, -3]), near([-10, 0, -2])]);
    const left = await helix({ turns: '0.25', pitch: '4 mm', hand: 'left' });
    expect(endsOfCurve(left.curve)[1]).toEqual(near([0, -10, 1]));
    const closing = await helix({ turns: '2', pitch: '4 mm', taper: '45 deg' });
    expect(endsOfCurve(closing.curve)[1]).toEqual(near([2, 0, 8]));
    // r dr on an Archimedean spiral up a cone: between the lengths on the cylinders at its ends
    expect(closing.length).toBeGreaterThan(2 * 2 * Math.PI * 2);
    expect(closing.length).toBeLessThan(2 * Math.hypot(20 * Math.PI, 4 * Math.SQRT2));
  });

  test('is swept along: a spring by Pappus', async () => {
    const spring = (hand: string) =>
      wound({ turns: '3', pitch: '6 mm', hand })
        .sketch('s', circle(10, 0, 2), 'front')
        .step('w', 'sweep', { sketch: 's', path: [{ to: 'datum', step: 'h' }] });
    const exact = disc(4) * 2 * Math.PI * 10 * 3;
    for (const hand of ['right', 'left']) expect((await spring(hand).volume()) / exact).toBeCloseTo(1, 3);
  });

  test('begins a plane square to it', async () => {
    const bench = wound({ turns: '1', pitch: '6 mm' }).step('p', 'datum-plane', {
      how: 'normal',
      on: [
        { to: 'datum', step: 'h' },
        { to: 'origin', name: 'origin' },
      ],
    });
    const datum = (await bench.model()).datums.get('p');
    expect(datum).toMatchObject({ form: 'plane' });
  });

  test('what can not be is told', async () => {
    expect(await wound({ turns: '3', pitch: '4 mm', taper: '45 deg' }).trouble()).toMatch(/closes in to its axis/);
    expect(await wound({ by: 'height', pitch: '0.01 mm', height: '100 mm' }).trouble()).toMatch(/10000 turns, and 200/);
  });
});

test('an area is wound up to a height', async () => {
  const bench = new Bench()
    .sketch('s', rectangle(10, 0, 2, 1), 'front')
    .step('w', 'helix', { sketch: 's', axis: [axis('z')], by: 'height', pitch: '3 mm', height: '7.5 mm' });
  expect((await bench.volume()) / (2 * 2 * Math.PI * 11 * 2.5)).toBeCloseTo(1, 3);
});

describe('the starting points of a loft', () => {
  const square = (size: number) => rectangle(-size / 2, -size / 2, size, size);
  /** Straight between two squares, the second begun at a corner of it. */
  const turned = (corner: string, first = 'p0') =>
    new Bench()
      .sketch('low', square(20))
      .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '30 mm' })
      .sketch('up', square(20), { to: 'datum', step: 'high' })
      .step('l', 'loft', {
        sections: ['low', 'up'],
        course: 'straight',
        starts: [
          { to: 'drawn', step: 'low', entity: first },
          { to: 'drawn', step: 'up', entity: corner },
        ],
      });

  test('the same corners give a prism, other ones turn the one into the other', async () => {
    expect(await turned('p0').volume()).toBeCloseTo(20 * 20 * 30, 6);
    expect(await turned('p2', 'p2').volume()).toBeCloseTo(20 * 20 * 30, 6);
    // in between a square of (1-t) + t turned by 90 degrees: side squared 1 - 2t(1-t), on the whole two thirds
    expect(await turned('p1').volume()).toBeCloseTo(20 * 20 * 30 * (2 / 3), 4);
    // the other way round as much
    expect(await turned('p3').volume()).toBeCloseTo(20 * 20 * 30 * (2 / 3), 4);
  });

  test('between a square and a circle, which has no corners; the sides are those of the square', async () => {
    const bench = new Bench()
      .sketch('low', square(20))
      .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '30 mm' })
      .sketch('up', { ...circle(0, 0, 8), at: { kind: 'point', x: -6, y: -6 } }, { to: 'datum', step: 'high' })
      .step('l', 'loft', {
        sections: ['low', 'up'],
        course: 'straight',
        starts: [{ to: 'drawn', step: 'low', entity: 'p0' }],
      });
    const { bodies, steps } = await bench.model();
    expect(steps.at(-1)!.issue).toBeUndefined();
    const names = bodies[0]!.topology!.faces.map(({ name }) => name).sort();
    expect(names).toEqual(['l/end', 'l/side/a', 'l/side/b', 'l/side/c', 'l/side/d', 'l/start']);
    // more than the frustum of the circle within, less than the prism around
    const volume = bodies[0]!.measures.volume_mm3;
    expect(volume).toBeGreaterThan(30 * disc(16));
    expect(volume).toBeLessThan(30 * 400);
  });
});
