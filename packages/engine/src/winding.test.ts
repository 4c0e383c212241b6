import { startKernelInNode } from '@helb/kernel/node';
import { borrowingOf, endsOfCurve, projected, type Reference, type Thing, type Vec3 } from '@helb/core';
import { Engine } from './index.ts';
import { axis, PartFixture, circle, disc, rectangle, type Fields } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const wound = (fields: Fields) =>
  new PartFixture().step('h', 'helix-curve', { axis: [axis('z')], radius: '10 mm', ...fields });
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
    // seen along the way that it goes it is as right-handed as before
    const down = await helix({ turns: '0.25', pitch: '4 mm', ways: 'backwards' });
    expect(endsOfCurve(down.curve)).toEqual([near([10, 0, 0]), near([0, -10, -1])]);
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
      how: 'square',
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

test.each(['forwards', 'backwards'])('an area is wound up to a height, %s', async (ways) => {
  const bench = new PartFixture()
    .sketch('s', rectangle(10, 0, 2, 1), 'front')
    .step('w', 'helix', { sketch: 's', axis: [axis('z')], by: 'height', pitch: '3 mm', height: '7.5 mm', ways });
  expect((await bench.volume()) / (2 * 2 * Math.PI * 11 * 2.5)).toBeCloseTo(1, 3);
  const { measures } = (await bench.model()).bodies[0]!;
  expect(measures.centre_mm[2]).toBeCloseTo(0.5 + (ways === 'forwards' ? 3.75 : -3.75), 3);
});

test('seen on a plane a helix is a wave, which is borrowed and follows it', async () => {
  const bench = wound({ turns: '2', pitch: '4 mm' }).sketch('v', {}, 'front');
  const model = await bench.model();
  const thing: Thing = { to: 'datum', datum: model.datums.get('h')! };
  const seen = projected(thing, 'shape', model.sketches.get('v')!.frame, () => []);
  if (!seen.ok) throw new Error(seen.issue.code);
  const source: Reference = { to: 'datum', step: 'h' };
  const { newId } = bench.script;
  const borrowed = borrowingOf(seen.value, source, 'shape', { loans: {}, construction: false, newId });
  bench.script.do('sketch.borrow', { part: 'part', step: 'v', id: 'o', ...borrowed });

  for (const pitch of [4, 6]) {
    const set = { command: 'step.set', input: { part: 'part', step: 'h', fields: { pitch: `${pitch} mm` } } } as const;
    const { solution, sources } = (await bench.model(set)).sketches.get('v')!;
    expect(sources.lost).toEqual({});
    expect(solution).toMatchObject({ state: 'settled', freedoms: 0 });
    const { entities } = solution.geometry;
    const knots = Object.values(entities).flatMap((one) => (one.kind === 'spline' ? one.points : []));
    expect(new Set(knots).size).toBe(2 * 16 + 1);
    for (const id of knots) {
      const [x, y] = solution.geometry.point(id);
      expect(x).toBeCloseTo(10 * Math.cos((2 * Math.PI * y) / pitch), 9);
    }
    expect(Math.max(...knots.map((id) => solution.geometry.point(id)[1]))).toBeCloseTo(2 * pitch, 9);
  }
});
