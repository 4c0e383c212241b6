import { circle, rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import type { Entities, Reference } from '@helb/core';
import { Engine } from './index.ts';
import { axis, PartFixture, body, disc, plane, total, type Fields } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

describe('a ring groove with its rims rounded', () => {
  /** 2 wide, 2 deep in a rod of 20. */
  const grooved = () =>
    new PartFixture()
      .sketch('cs', circle(0, 0, 10))
      .step('rod', 'extrude', { sketch: 'cs', distance: '100 mm' })
      .sketch('gs', rectangle(8, 6, 2, 2), 'front')
      .step('g', 'revolve', { sketch: 'gs', axis: [axis('z')], result: 'cut' });
  const rims = async (): Promise<Reference[]> =>
    (await grooved().model()).bodies[0]!.topology!.edges.flatMap(({ name, curve }) =>
      curve.form === 'circle' && Math.abs(curve.radius - 10) < 1e-6 && curve.centre[2] > 1 && curve.centre[2] < 99
        ? [{ to: 'edge', name } as const]
        : [],
    );
  const byRule: Reference[] = [{ to: 'rule', gives: 'edges', of: { step: 'g' }, turn: 'outer' }];
  // what a round of 1 takes off a rim: its area on the way of its centroid (Pappus, Guldin)
  const round = (1 - Math.PI / 4) * 2 * Math.PI * (10 - (10 - 3 * Math.PI) / (12 - 3 * Math.PI));
  const single = Math.PI * (100 - 64) * 2 + 2 * round;

  test.each([
    ['picked', 2],
    ['picked', 8],
    ['by rule', 2],
    ['by rule', 8],
  ])('%s, %d times by 9 along the axis', async (how, count) => {
    const edges = how === 'picked' ? await rims() : byRule;
    expect(how === 'picked' ? edges.length : 2).toBe(2);
    const rounded = grooved().step('r', 'fillet', { edges, radius: '1 mm' });
    expect(await rounded.volume()).toBeCloseTo(disc(20) * 100 - single, 5);
    const row = rounded.step('p', 'pattern-line', {
      ...{ steps: ['g', 'r'], along: [axis('z')], count: `${count}`, spacing: '9 mm' },
    });
    expect(await row.volume()).toBeCloseTo(disc(20) * 100 - count * single, 5);
  });
});

describe('an arm with a round end on the axis, and its pin', () => {
  const outline: Entities = {
    o: { kind: 'point', x: 0, y: 0 },
    m: { kind: 'point', x: 18, y: 0 },
    a: { kind: 'point', x: 0, y: -6 },
    b: { kind: 'point', x: 18, y: -6 },
    c: { kind: 'point', x: 18, y: 6 },
    d: { kind: 'point', x: 0, y: 6 },
    ab: { kind: 'line', a: 'a', b: 'b' },
    cd: { kind: 'line', a: 'c', b: 'd' },
    far: { kind: 'arc', centre: 'm', a: 'b', b: 'c', radius: 6 },
    near: { kind: 'arc', centre: 'o', a: 'd', b: 'a', radius: 6 },
  };
  const arm = () =>
    new PartFixture()
      .sketch('as', outline)
      .step('arm', 'extrude', { sketch: 'as', distance: '5 mm' })
      .sketch('ps', circle(18, 0, 3))
      .step('pin', 'extrude', { sketch: 'ps', distance: '12 mm', result: 'add' });
  // each arm within its third of the turn: a strip of 12 less its corner at the middle, half a disc, and a pin of 7 above it
  const star = 3 * (5 * (12 * 18 - 36 / Math.tan(Math.PI / 3) + disc(12) / 2) + 7 * disc(6));

  test.each<[string, Fields]>([
    ['as steps', { steps: ['arm', 'pin'] }],
    ['as a body', { what: 'bodies', bodies: [body('arm')], copies: 'add' }],
  ])('three times round its own end, %s', async (_, what) => {
    const { bodies } = await arm()
      .step('p', 'pattern-round', { ...what, about: [axis('z')], count: '3' })
      .model();
    expect(bodies).toHaveLength(1);
    const volume = bodies[0]!.measures.volume_mm3;
    const [x, y] = bodies[0]!.measures.centre_mm;
    expect(Math.hypot(x, y)).toBeLessThan(1e-6);
    expect(volume).toBeCloseTo(star, 6);
  });
});

describe('repeats of repeats', () => {
  const hole = Math.PI * 9 * 10;
  // a cone frustum from 4 to 3, 1 high, beyond the hole
  const bevel = (Math.PI / 3) * (16 + 12 + 9) - Math.PI * 9;
  const drilled = async () => {
    const plate = () =>
      new PartFixture()
        .sketch('s', rectangle(0, 0, 100, 60))
        .step('plate', 'extrude', { sketch: 's', distance: '10 mm' })
        .sketch('hs', circle(12, 12, 3))
        .step('h', 'extrude', { sketch: 'hs', extent: 'through', result: 'cut' });
    const { bodies } = await plate().model();
    const rim = bodies[0]!.topology!.edges.find(({ curve }) => curve.form === 'circle' && curve.centre[2] > 9)!.name;
    return plate().step('c', 'chamfer', { edges: [{ to: 'edge', name: rim }], distance: '1 mm' });
  };
  const left = (count: number) => 60000 - count * (hole + bevel);
  const row = { steps: ['h', 'c'], along: [axis('x')], count: '4', spacing: '20 mm' };

  test('a row, a row of rows, a mirrored row, a row of mirrored ones', async () => {
    const middle = { how: 'offset', on: [plane('right')], by: '50 mm' };
    const across = { how: 'offset', on: [plane('front')], by: '-30 mm' };
    const datum = (step: string) => [{ to: 'datum', step }];
    const second = { along: [axis('y')], count: '2', spacing: '30 mm' };
    expect(await (await drilled()).step('p', 'pattern-line', row).volume()).toBeCloseTo(left(4), 6);
    const rows = (await drilled()).step('p', 'pattern-line', row);
    expect(await rows.step('q', 'pattern-line', { steps: ['h', 'c', 'p'], ...second }).volume()).toBeCloseTo(
      left(8),
      6,
    );
    const mirrored = (await drilled()).step('mp', 'datum-plane', across).step('p', 'pattern-line', row);
    expect(await mirrored.step('m', 'mirror', { steps: ['h', 'c', 'p'], plane: datum('mp') }).volume()).toBeCloseTo(
      left(8),
      6,
    );
    const pair = (await drilled())
      .step('mp', 'datum-plane', middle)
      .step('m', 'mirror', { steps: ['h', 'c'], plane: datum('mp') });
    expect(await pair.step('q', 'pattern-line', { steps: ['h', 'c', 'm'], ...second }).volume()).toBeCloseTo(
      left(4),
      6,
    );
  });

  test('a rule on the copies finds all of them', async () => {
    const { bodies, steps } = await (
      await drilled()
    )
      .step('p', 'pattern-line', { ...row, steps: ['h'] })
      .step('e', 'chamfer', {
        edges: [{ to: 'rule', gives: 'edges', of: { step: 'p', role: 'side' }, and: { step: 'plate', role: 'end' } }],
        distance: '1 mm',
      })
      .model();
    expect(steps.at(-1)!.issue).toBeUndefined();
    expect(bodies[0]!.measures.volume_mm3).toBeCloseTo(left(4), 6);
  });

  test('copies that change nothing are told; the body stays as it was', async () => {
    const beyond = (await drilled()).step('p', 'pattern-line', { ...row, count: '6' });
    expect(await beyond.trouble()).toContain('1 of 5 copies changes nothing (6)');
    expect(total(await beyond.model())).toBeCloseTo(left(1), 6);
  });
});

test('mirrored in two planes a step comes out four times; in one plane twice, two times', async () => {
  const datum = (step: string): Reference => ({ to: 'datum', step });
  const bevelled = () =>
    new PartFixture()
      .block('base', 100, 40, 5)
      .sketch('s', circle(10, 10, 3), { to: 'face', name: 'base/end' })
      .step('peg', 'extrude', { sketch: 's', distance: '8 mm', result: 'add' })
      .step('c', 'chamfer', { edges: [{ to: 'edge', name: 'peg/end | peg/side/o' }], distance: '1 mm' });
  const one = (await bevelled().volume()) - 20000;
  // a cylinder less the ring of its bevel, by its centroid
  expect(one).toBeCloseTo(disc(6) * 8 - 2 * Math.PI * (3 - 1 / 3) * 0.5, 6);
  const mirrored = (...planes: readonly string[]) =>
    bevelled()
      .step('across', 'datum-plane', { how: 'offset', on: [plane('right')], by: '50 mm' })
      .step('along', 'datum-plane', { how: 'offset', on: [plane('front')], by: '-20 mm' })
      .step('m', 'mirror', { steps: ['peg', 'c'], plane: planes.map(datum) })
      .volume();
  expect(await mirrored('across', 'along')).toBeCloseTo(20000 + 4 * one, 6);
  expect(await mirrored('across', 'across')).toBeCloseTo(20000 + 2 * one, 6);
});
