import { startKernelInNode } from '@helb/kernel/node';
import { STEP_NAMES, stepKind, type Entities, type Reference, type Step } from '@helb/core';
import { Engine, findings } from './index.ts';
import {
  axis,
  PartFixture,
  body,
  circle,
  disc,
  edge,
  face,
  plane,
  rectangle,
  total,
  type Fields,
} from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

describe('extrude', () => {
  const base = () => new PartFixture().block('base', 40, 30, 10);

  test.each<[string, Fields, number]>([
    ['both ways, half each', { ways: 'both', distance: '6 mm', result: 'new' }, 6],
    ['both ways, as far each', { ways: 'each', distance: '6 mm', result: 'new' }, 12],
    ['two sides', { ways: 'two', distance: '6 mm', back: '1.5 mm', result: 'new' }, 7.5],
  ])('%s', async (_, fields, height) => {
    const bench = new PartFixture().sketch('s', rectangle(0, 0, 4, 5)).step('e', 'extrude', { sketch: 's', ...fields });
    expect(await bench.volume()).toBeCloseTo(20 * height, 6);
  });

  test('starting off the sketch', async () => {
    const bench = new PartFixture()
      .sketch('s', rectangle(0, 0, 4, 5))
      .step('e', 'extrude', { sketch: 's', distance: '6 mm', start: '-2 mm' });
    expect((await bench.model()).bodies[0]!.measures.box_mm.low[2]).toBeCloseTo(-2, 9);
  });

  test('up to a face, short of it, up to a slanted datum plane, and through everything', async () => {
    const over = (fields: Fields, build: (bench: PartFixture) => PartFixture) =>
      build(base().step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '25 mm' }))
        .sketch('s', rectangle(5, 5, 10, 10), { to: 'datum', step: 'high' })
        .step('e', 'extrude', { sketch: 's', result: 'new', extent: 'to', ...fields });
    const same = (bench: PartFixture) => bench;
    expect(await over({ to: [face('base/end')] }, same).volume()).toBeCloseTo(12000 + 100 * 15, 6);
    expect(await over({ to: [face('base/end')], clearance: '0.5 mm' }, same).volume()).toBeCloseTo(
      12000 + 100 * 14.5,
      6,
    );
    const slanted = (bench: PartFixture) =>
      bench.step('lean', 'datum-plane', { how: 'angle', on: [plane('top'), axis('x')], by: '45 deg' });
    // its height is y: from 25 down to 5..15
    expect(await over({ to: [{ to: 'datum', step: 'lean' }] }, slanted).volume()).toBeCloseTo(12000 + 100 * 15, 6);
    // far from the origin of space, where the foot of the plane says nothing of the way
    const steep = new PartFixture()
      .sketch('s', rectangle(200, 0, 5, 5))
      .step('lean', 'datum-plane', { how: 'angle', on: [plane('top'), axis('y')], by: '-45 deg' })
      .step('e', 'extrude', { sketch: 's', extent: 'to', to: [{ to: 'datum', step: 'lean' }] });
    expect(await steep.volume()).toBeCloseTo(25 * 202.5, 5);
    const through = base()
      .sketch('s', circle(20, 15, 4), { to: 'origin', name: 'top' })
      .step('e', 'extrude', { sketch: 's', extent: 'through', result: 'cut' });
    expect(await through.volume()).toBeCloseTo(12000 - disc(8) * 10, 6);
  });

  test('up to the round side of a shaft, and up to whatever comes next', async () => {
    const shaft = () =>
      new PartFixture()
        .sketch('c', circle(0, 0, 10))
        .step('shaft', 'extrude', { sketch: 'c', distance: '40 mm' })
        .step('off', 'datum-plane', { how: 'offset', on: [plane('right')], by: '30 mm' })
        .sketch('s', rectangle(-3, 10, 6, 8), { to: 'datum', step: 'off' });
    // the strip below the arc between y = -3 and 3 is a circle segment
    const half = Math.asin(0.3);
    const segment = 100 * half - 10 * Math.cos(half) * 3;
    const strip = 6 * (30 - 10 * Math.cos(half)) - segment;
    const round = shaft().step('e', 'extrude', {
      sketch: 's',
      extent: 'to',
      to: [face('shaft/side/o')],
      result: 'new',
    });
    expect(await round.volume()).toBeCloseTo(disc(20) * 40 + strip * 8, 4);
    const next = shaft().step('e', 'extrude', { sketch: 's', extent: 'next', ways: 'backwards', result: 'add' });
    const model = await next.model();
    expect(model.steps.at(-1)).toMatchObject({ state: 'built' });
    expect(total(model)).toBeCloseTo(disc(20) * 40 + strip * 8, 4);
    expect(model.bodies).toHaveLength(1);
  });

  test('only on the chosen body; where nothing is met it says so', async () => {
    const two = base()
      .sketch('t', rectangle(60, 0, 10, 10))
      .step('other', 'extrude', { sketch: 't', distance: '10 mm', result: 'new' })
      .sketch('s', rectangle(0, 0, 80, 5))
      .step('cut', 'extrude', { sketch: 's', distance: '10 mm', result: 'cut', only: [body('other')] });
    expect(await two.volume()).toBeCloseTo(12000 + 1000 - 500, 6);
    const missed = base()
      .sketch('s', rectangle(100, 0, 5, 5))
      .step('cut', 'extrude', { sketch: 's', distance: '10 mm', result: 'cut' });
    expect(await missed.trouble()).toMatch(/cuts nothing/);
    const never = base()
      .sketch('s', rectangle(100, 0, 5, 5))
      .step('e', 'extrude', { sketch: 's', extent: 'next', result: 'new' });
    expect(await never.trouble()).toMatch(/never gets there/);
  });
});

describe('thin walls', () => {
  const hook: Entities = Object.fromEntries(Object.entries(rectangle(0, 0, 20, 10)).filter(([id]) => id !== 'd'));

  test('along open lines, on either side of them; sides are called after the lines', async () => {
    const thin = (fields: Fields) =>
      new PartFixture()
        .sketch('s', hook)
        .step('e', 'extrude', { sketch: 's', distance: '5 mm', body: 'thin', wall: '1 mm', ...fields });
    expect(await thin({ lies: 'right' }).volume()).toBeCloseTo(52 * 5, 6);
    expect(await thin({ lies: 'left' }).volume()).toBeCloseTo(48 * 5, 6);
    const model = await thin({}).model();
    expect(total(model)).toBeCloseTo(50 * 5, 6);
    expect(model.bodies[0]!.topology!.faces.map(({ name }) => name)).toContain('e/side/b-');
    expect(await thin({ wall: '12 mm' }).trouble()).toMatch(/make it thinner/);
  });

  test('round a closed outline, turned about an axis, and through the sections of a loft', async () => {
    const tube = new PartFixture()
      .sketch('s', rectangle(5, 0, 3, 4), 'front')
      .step('r', 'revolve', { sketch: 's', axis: [axis('z')], body: 'thin', wall: '0.5 mm', lies: 'left' });
    expect(await tube.volume()).toBeCloseTo(Math.PI * ((64 - 25) * 4 - (7.5 ** 2 - 5.5 ** 2) * 3), 6);
    const duct = new PartFixture()
      .sketch('low', rectangle(0, 0, 20, 20))
      .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '12 mm' })
      .sketch('up', rectangle(5, 5, 10, 10), { to: 'datum', step: 'high' })
      .step('l', 'loft', { sections: ['low', 'up'], course: 'straight', body: 'thin', wall: '1 mm', lies: 'left' });
    const inner = 4 * (18 * 18 + 8 * 8 + 18 * 8);
    expect(await duct.volume()).toBeCloseTo(4 * (400 + 100 + 200) - inner, 6);
  });

  test('lines that walls follow may end without being a finding', async () => {
    const bench = new PartFixture().sketch('s', hook).step('e', 'extrude', { sketch: 's', body: 'thin' });
    const model = await bench.model();
    const found = findings(bench.script.project, { parts: [model], values: [] });
    expect(found.map(({ code }) => code)).not.toContain('sketch.open');
  });
});

describe('revolve, helix, sweep, loft', () => {
  test('about the centre line of the sketch, or about a chosen axis', async () => {
    const drawn: Entities = {
      ...rectangle(5, 0, 3, 4),
      q0: { kind: 'point', x: 0, y: -5 },
      q1: { kind: 'point', x: 0, y: 20 },
      mid: { kind: 'line', a: 'q0', b: 'q1', construction: true, centreline: true },
    };
    const ring = Math.PI * (64 - 25) * 4;
    const own = new PartFixture().sketch('s', drawn, 'front').step('r', 'revolve', { sketch: 's' });
    expect(await own.volume()).toBeCloseTo(ring, 6);
    const chosen = new PartFixture()
      .sketch('s', rectangle(5, 0, 3, 4), 'front')
      .step('r', 'revolve', { sketch: 's', axis: [axis('z')], angle: '90 deg', ways: 'both' });
    expect(await chosen.volume()).toBeCloseTo(ring / 4, 6);
    const none = new PartFixture().sketch('s', rectangle(5, 0, 3, 4), 'front').step('r', 'revolve', { sketch: 's' });
    expect(await none.trouble()).toMatch(/Choose an axis/);
  });

  test('half a profile that is open along its centre line is closed there; one that ends beside it is not', async () => {
    // a cone with a foot: 6 wide at the bottom for 4, then to a tip 13 above that
    const half = (top: number): Entities => ({
      a: { kind: 'point', x: 0, y: 0 },
      b: { kind: 'point', x: 6, y: 0 },
      c: { kind: 'point', x: 6, y: 4 },
      d: { kind: 'point', x: top, y: 17 },
      l1: { kind: 'line', a: 'a', b: 'b' },
      l2: { kind: 'line', a: 'b', b: 'c' },
      l3: { kind: 'line', a: 'c', b: 'd' },
      e: { kind: 'point', x: 0, y: -9 },
      f: { kind: 'point', x: 0, y: 31 },
      mid: { kind: 'line', a: 'e', b: 'f', construction: true, centreline: true },
    });
    const turned = (top: number) =>
      new PartFixture().sketch('s', half(top), 'front').step('r', 'revolve', { sketch: 's' });
    expect(await turned(0).volume()).toBeCloseTo(Math.PI * 36 * (4 + 13 / 3), 6);
    expect(await turned(0.5).trouble()).toMatch(/not closed/);
    // without a centre line of its own: about the upright axis of the sketch
    const { mid: _, e: __, f: ___, ...bare } = half(0);
    const upright = { to: 'drawn', step: 's', entity: 'y-axis' };
    const about = new PartFixture().sketch('s', bare, 'front').step('r', 'revolve', { sketch: 's', axis: [upright] });
    expect(await about.volume()).toBeCloseTo(Math.PI * 36 * (4 + 13 / 3), 6);
  });

  test('a helix about an axis, right- and left-handed: the same volume, the other way round', async () => {
    const wound = (hand: string) =>
      new PartFixture()
        .sketch('s', rectangle(9, 0, 1, 1), 'front')
        .step('w', 'helix', { sketch: 's', axis: [axis('z')], pitch: '3 mm', turns: '2.25', hand });
    const [right, left] = [await wound('right').model(), await wound('left').model()];
    expect(total(right) / (2 * Math.PI * 9.5 * 2.25)).toBeCloseTo(1, 3);
    expect(total(left)).toBeCloseTo(total(right), 3);
    // after a quarter turn more one ends at +y, the other at -y
    expect(right.bodies[0]!.measures.centre_mm[1] * left.bodies[0]!.measures.centre_mm[1]).toBeLessThan(0);
  });

  test('a sweep along drawn lines, in whatever order they are chosen', async () => {
    const path: Entities = {
      q0: { kind: 'point', x: 0, y: 0 },
      q1: { kind: 'point', x: 0, y: 30 },
      q2: { kind: 'point', x: 10, y: 40 },
      q3: { kind: 'point', x: 10, y: 30 },
      l: { kind: 'line', a: 'q0', b: 'q1' },
      k: { kind: 'arc', centre: 'q3', a: 'q2', b: 'q1', radius: 10 },
    };
    const bench = new PartFixture()
      .sketch('way', path, 'front')
      .sketch('s', circle(0, 0, 2))
      .step('p', 'sweep', {
        sketch: 's',
        path: ['k', 'l'].map((entity): Reference => ({ to: 'drawn', step: 'way', entity })),
      });
    expect(await bench.volume()).toBeCloseTo(disc(4) * (30 + 5 * Math.PI), 3);
  });

  test('a loft between two sketches, and from a sketch to a point', async () => {
    const bench = new PartFixture()
      .sketch('low', rectangle(0, 0, 20, 20))
      .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '12 mm' })
      .sketch('up', rectangle(5, 5, 10, 10), { to: 'datum', step: 'high' })
      .step('l', 'loft', { sections: ['low', 'up'], course: 'straight' });
    expect(await bench.volume()).toBeCloseTo(4 * (400 + 100 + 200), 6);
    const tent = new PartFixture()
      .sketch('low', rectangle(-10, -10, 20, 20))
      .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: '15 mm' })
      .step('tip', 'datum-point', { how: 'crossing', on: [axis('z'), { to: 'datum', step: 'high' }] })
      .step('l', 'loft', { sections: ['low'], to: [{ to: 'datum', step: 'tip' }], course: 'straight' });
    expect(await tent.volume()).toBeCloseTo((400 * 15) / 3, 6);
    expect(
      await new PartFixture()
        .sketch('low', rectangle(0, 0, 5, 5))
        .step('l', 'loft', { sections: ['low'] })
        .trouble(),
    ).toMatch(/two sections at least/);
  });
});

describe('holes', () => {
  const plate = () =>
    new PartFixture()
      .block('plate', 40, 30, 12)
      .sketch('at', { m: { kind: 'point', x: 10, y: 10 }, n: { kind: 'point', x: 30, y: 20 } }, face('plate/end'));
  const places: Reference[] = ['m', 'n'].map((entity) => ({ to: 'drawn', step: 'at', entity }));
  const drill = (fields: Fields) => plate().step('h', 'hole', { at: places, into: [face('plate/end')], ...fields });
  const cone = (d: number, h: number) => (disc(d) * h) / 3;

  test.each<[string, Fields, number]>([
    ['M5 clearance through', {}, disc(5.5) * 12],
    ['fine', { fit: 'fine' }, disc(5.3) * 12],
    ['tapped M6', { size: 'm6', fit: 'tapped' }, disc(5) * 12],
    ['M5 counterbored', { head: 'counterbore' }, disc(5.5) * 7 + disc(10) * 5],
    ['an own size', { size: 'own', diameter: '7 mm' }, disc(7) * 12],
    [
      'blind with a tip of 118 degrees',
      { size: 'own', diameter: '6 mm', extent: 'blind', depth: '5 mm' },
      disc(6) * 5 + cone(6, 3 / Math.tan((59 * Math.PI) / 180)),
    ],
    ['blind and flat', { size: 'own', diameter: '6 mm', extent: 'blind', depth: '5 mm', tip: '180 deg' }, disc(6) * 5],
    [
      'M5 countersunk',
      { head: 'countersink' },
      disc(5.5) * (12 - 2.85) + (Math.PI * 2.85 * (5.6 ** 2 + 5.6 * 2.75 + 2.75 ** 2)) / 3,
    ],
  ])('%s', async (_, fields, each) => {
    expect(await drill(fields).volume()).toBeCloseTo(40 * 30 * 12 - 2 * each, 5);
  });

  test('at the rim of a boss: along its axis', async () => {
    const bench = new PartFixture()
      .block('plate', 40, 30, 5)
      .sketch('c', circle(20, 15, 8), face('plate/end'))
      .step('boss', 'extrude', { sketch: 'c', distance: '10 mm', result: 'add' })
      .step('h', 'hole', { at: [edge('boss/end', 'boss/side/o')], into: [face('boss/end')] });
    expect(await bench.volume()).toBeCloseTo(6000 + disc(16) * 10 - disc(5.5) * 15, 5);
  });

  test('a head narrower than the hole is refused', async () => {
    const bad = drill({ size: 'own', diameter: '9 mm', head: 'counterbore', wide: '8 mm' });
    expect(await bad.trouble()).toMatch(/no wider than the hole/);
  });
});

describe('whole bodies', () => {
  const two = () =>
    new PartFixture()
      .block('b', 30, 20, 10)
      .sketch('s', rectangle(20, 10, 20, 20))
      .step('e', 'extrude', { sketch: 's', distance: '4 mm', result: 'new' });

  test.each<[string, Fields, number, number]>([
    ['add', {}, 6000 + 1600 - 400, 1],
    ['cut', { how: 'cut' }, 6000 - 400, 1],
    ['overlap', { how: 'overlap' }, 400, 1],
    ['cut, the tool stays', { how: 'cut', keep: 'yes' }, 6000 - 400 + 1600, 2],
  ])('combine: %s', async (_, fields, volume, count) => {
    const bench = two().step('c', 'combine', { target: [body('b')], tools: [body('e')], ...fields });
    expect(await bench.volume()).toBeCloseTo(volume, 6);
    expect((await bench.model()).bodies).toHaveLength(count);
  });

  test('a move or a mirror that changes nothing says so', async () => {
    const still = two().step('m', 'move', { bodies: [body('b')], x: '0 mm' });
    expect(await still.trouble()).toContain('This moves nothing');
    const round = two().step('m', 'move', {
      ...{ bodies: [body('b')], turn: 'yes', angle: '360 deg', about: [{ to: 'origin', name: 'z' }] },
    });
    expect(await round.trouble()).toContain('This moves nothing');
    // a body that is symmetric already
    const plane = { how: 'offset', on: [{ to: 'origin', name: 'right' }], by: '15 mm' };
    const mirrored = two()
      .step('p', 'datum-plane', plane)
      .step('m', 'mirror', { what: 'bodies', bodies: [body('b')], copies: 'add', plane: [{ to: 'datum', step: 'p' }] });
    expect(await mirrored.trouble()).toMatch(/change nothing|changes nothing/);
  });

  test('split by a plane, both halves or one', async () => {
    const at = (keep: string) =>
      new PartFixture()
        .block('b', 30, 20, 10)
        .step('p', 'datum-plane', { how: 'offset', on: [plane('right')], by: '12 mm' })
        .step('c', 'split', { by: [{ to: 'datum', step: 'p' }], keep });
    expect((await at('both').model()).bodies).toHaveLength(2);
    expect(await at('front').volume()).toBeCloseTo(18 * 200, 6);
    expect(await at('back').volume()).toBeCloseTo(12 * 200, 6);
  });

  test('moved and turned, with or without the original', async () => {
    const moved = new PartFixture().block('b', 30, 20, 10).step('m', 'move', {
      bodies: [body('b')],
      x: '100 mm',
      turn: 'yes',
      angle: '90 deg',
      about: [axis('z')],
      original: 'yes',
    });
    const { bodies } = await moved.model();
    expect(bodies.map(({ measures }) => measures.centre_mm.map((c) => Math.round(c)))).toEqual([
      [15, 10, 5],
      [90, 15, 5],
    ]);
  });
});

describe('mirrors and patterns', () => {
  test('a cut on one body only is repeated on that body only', async () => {
    const bench = new PartFixture()
      .block('a', 60, 10, 10)
      .sketch('t', rectangle(0, 5, 60, 20))
      .step('b', 'extrude', { sketch: 't', distance: '10 mm', start: '-12 mm', result: 'new' })
      .sketch('s', rectangle(2, 0, 4, 30))
      .step('slot', 'extrude', { sketch: 's', extent: 'through', ways: 'both', result: 'cut', only: [body('a')] })
      .step('p', 'pattern-line', { steps: ['slot'], along: [axis('x')], count: '4', spacing: '12 mm' });
    const model = await bench.model();
    expect(model.bodies.map(({ name, measures }) => [name, measures.volume_mm3])).toEqual(
      expect.arrayContaining([['b', expect.closeTo(12000, 6)]]),
    );
    expect(total(model)).toBeCloseTo(12000 + 6000 - 4 * 400, 6);
  });

  const peg = () =>
    new PartFixture()
      .block('base', 100, 40, 5)
      .sketch('s', circle(10, 10, 3), face('base/end'))
      .step('peg', 'extrude', { sketch: 's', distance: '8 mm', result: 'add' });
  const pegs = (count: number) => 20000 + count * disc(6) * 8;

  test('along one and two directions, without some', async () => {
    const row = peg().step('p', 'pattern-line', { steps: ['peg'], along: [axis('x')], count: '4' });
    expect(await row.volume()).toBeCloseTo(pegs(4), 5);
    const field = peg().step('p', 'pattern-line', {
      steps: ['peg'],
      along: [axis('x')],
      count: '4',
      directions: 'two',
      across: [axis('y')],
      rows: '2',
      apart: '20 mm',
      skip: [3, 7],
    });
    expect(await field.volume()).toBeCloseTo(pegs(6), 5);
  });

  test('round an axis; a count that is no whole number is refused', async () => {
    const round = (count: string) =>
      new PartFixture()
        .sketch('d', circle(0, 0, 40))
        .step('disc', 'extrude', { sketch: 'd', distance: '5 mm' })
        .sketch('s', circle(30, 0, 4), face('disc/end'))
        .step('hole', 'extrude', { sketch: 's', extent: 'through', ways: 'backwards', result: 'cut' })
        .step('p', 'pattern-round', { steps: ['hole'], about: [axis('z')], count });
    expect(await round('6').volume()).toBeCloseTo((disc(80) - 6 * disc(8)) * 5, 5);
    expect(await round('2.5').trouble()).toMatch(/not a whole number from 1 to 1000/);
  });

  test('a step with its rounding: the copies are rounded too, by the names of their faces', async () => {
    const bench = peg()
      .step('soft', 'fillet', { edges: [edge('peg/end', 'peg/side/o')], radius: '1 mm' })
      .step('p', 'pattern-line', { steps: ['peg', 'soft'], along: [axis('x')], count: '3' });
    const one = await peg()
      .step('soft', 'fillet', { edges: [edge('peg/end', 'peg/side/o')], radius: '1 mm' })
      .volume();
    expect(await bench.volume()).toBeCloseTo(20000 + 3 * (one - 20000), 5);
  });

  test('mirrored steps and mirrored bodies', async () => {
    const steps = peg()
      .step('mid', 'datum-plane', { how: 'offset', on: [plane('right')], by: '50 mm' })
      .step('m', 'mirror', { steps: ['peg'], plane: [{ to: 'datum', step: 'mid' }] });
    expect(await steps.volume()).toBeCloseTo(pegs(2), 5);
    const bodies = peg().step('m', 'mirror', { what: 'bodies', bodies: [body('base')], plane: [plane('right')] });
    const model = await bodies.model();
    expect(model.bodies).toHaveLength(2);
    expect(total(model)).toBeCloseTo(2 * pegs(1), 5);
    const joined = peg().step('m', 'mirror', {
      what: 'bodies',
      bodies: [body('base')],
      plane: [plane('right')],
      copies: 'add',
    });
    expect((await joined.model()).bodies).toHaveLength(1);
  });
});

describe('every kind', () => {
  test('has words for its sentence, and asks before it complains', async () => {
    for (const kind of STEP_NAMES) {
      const register = stepKind(kind);
      if (!register.fields) continue;
      const step = { kind, name: 'x' } as Step;
      expect(register.schema.safeParse(step).success).toBe(true);
      expect(register.sentence(step, () => 'it').length).toBeGreaterThan(0);
      const trouble = await new PartFixture().block('b', 5, 5, 5).step('x', kind).trouble();
      expect(trouble).not.toMatch(/Something is wrong/);
      expect(trouble).toMatch(/[Cc]hoose/);
    }
  });
});
