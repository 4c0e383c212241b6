import { startKernelInNode } from '@helb/kernel/node';
import { circle, rectangle } from '@helb/core/samples';
import { dot3, type Entities, type Reference, type Vec3 } from '@helb/core';
import { Engine } from './index.ts';
import { PartFixture, disc, plane, type Fields } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** Two sketches, the second so high above the first. */
const sections = (low: Entities, up: Entities, height: number) =>
  new PartFixture()
    .sketch('low', low)
    .step('high', 'datum-plane', { how: 'offset', on: [plane('top')], by: `${height} mm` })
    .sketch('up', up, { to: 'datum', step: 'high' });

describe('the starting points of a loft', () => {
  const square = (size: number) => rectangle(-size / 2, -size / 2, size, size);
  /** Straight between two squares, the second begun at a corner of it. */
  const turned = (corner: string, first = 'p0') =>
    new PartFixture()
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
    const bench = new PartFixture()
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

describe('a loft that leaves its ends square', () => {
  const square = (low: Entities, up: Entities, height: number, fields: Fields = {}) =>
    sections(low, up, height).step('l', 'loft', { sections: ['low', 'up'], leave: 'both', lead: '8 mm', ...fields });

  /** By Simpson's rule over a polynomial, fine enough to be exact. */
  const integral = (f: (t: number) => number): number => {
    const n = 200;
    return Array.from({ length: n + 1 }, (_, k) => (k === 0 || k === n ? 1 : k % 2 ? 4 : 2) * f(k / n)).reduce(
      (sum, term) => sum + term / (3 * n),
      0,
    );
  };
  const bezier = (a: number, b: number, c: number, d: number) => ({
    at: (t: number) => a * (1 - t) ** 3 + 3 * b * (1 - t) ** 2 * t + 3 * c * (1 - t) * t ** 2 + d * t ** 3,
    slope: (t: number) => 3 * ((b - a) * (1 - t) ** 2 + 2 * (c - b) * (1 - t) * t + (d - c) * t ** 2),
  });

  test('between two circles: a solid of revolution whose meridian is a cubic with square ends', async () => {
    const radius = bezier(20, 20, 10, 10);
    const height = bezier(0, 8, 22, 30);
    const exact = integral((t) => Math.PI * radius.at(t) ** 2 * height.slope(t));
    const bench = square(circle(0, 0, 20), circle(0, 0, 10), 30);
    expect((await bench.volume()) / exact).toBeCloseTo(1, 6);
    // the sides stand upright where they begin and end
    const { mesh } = (await bench.model()).bodies[0]!;
    const { positions, normals } = mesh!;
    let seen = 0;
    for (let k = 0; k < positions.length; k += 3) {
      const [x, y, z] = positions.subarray(k, k + 3) as unknown as Vec3;
      const normal = normals.subarray(k, k + 3) as unknown as Vec3;
      const atEnd = z < 1e-6 || z > 30 - 1e-6;
      const side = Math.abs(dot3(normal, [x, y, 0])) > 1;
      if (!atEnd || !side) continue;
      seen++;
      expect(Math.abs(normal[2])).toBeLessThan(1e-6);
    }
    expect(seen).toBeGreaterThan(8);
  });

  test('square at one end only', async () => {
    // the other end without curvature: its slope is half of three chords less the first slope
    const bench = square(circle(0, 0, 20), circle(0, 0, 10), 30, { leave: 'first' });
    const end = (chord: number, first: number) => (3 * chord - first) / 2;
    const radius = bezier(20, 20, 10 - end(-10, 0) / 3, 10);
    const height = bezier(0, 8, 30 - end(30, 24) / 3, 30);
    const exact = integral((t) => Math.PI * radius.at(t) ** 2 * height.slope(t));
    expect((await bench.volume()) / exact).toBeCloseTo(1, 6);
  });

  test('equal sections give a prism; openings go with it', async () => {
    const plate: Entities = { ...rectangle(-10, -10, 20, 20), m: { kind: 'point', x: 0, y: 0 } };
    const holed: Entities = { ...plate, o: { kind: 'circle', centre: 'm', radius: 5 } };
    expect(await square(plate, plate, 30).volume()).toBeCloseTo(400 * 30, 5);
    expect(await square(holed, holed, 30).volume()).toBeCloseTo((400 - disc(10)) * 30, 4);
  });

  test('between a square and a circle, through a section between, to a point; the names are those of the first', async () => {
    const tower = square(rectangle(-10, -10, 20, 20), circle(0, 0, 6), 30);
    const model = await tower.model();
    expect(model.steps.at(-1)!.issue).toBeUndefined();
    const names = model.bodies[0]!.topology!.faces.map(({ name }) => name.split('@')[0]);
    expect(new Set(names)).toEqual(new Set(['l/start', 'l/end', 'l/side/a', 'l/side/b', 'l/side/c', 'l/side/d']));
    const point: Reference = { to: 'datum', step: 'tip' };
    const bench = sections(circle(0, 0, 12), circle(0, 0, 9), 20)
      .step('higher', 'datum-plane', { how: 'offset', on: [plane('top')], by: '45 mm' })
      .sketch('top', circle(0, 0, 4), { to: 'datum', step: 'higher' })
      .step('l', 'loft', { sections: ['low', 'up', 'top'], leave: 'both', lead: '6 mm' });
    expect(await bench.volume()).toBeGreaterThan(0);
    const pointed = sections(circle(0, 0, 12), circle(0, 0, 9), 40)
      .step('tip', 'datum-point', { how: 'at', on: [{ to: 'drawn', step: 'up', entity: 'm' }] })
      .step('l', 'loft', { sections: ['low'], to: [point], leave: 'first', lead: '10 mm' });
    const slope = (chord: number, first: number) => (3 * chord - first) / 2;
    const radius = bezier(12, 12, 0 - slope(-12, 0) / 3, 0);
    const height = bezier(0, 10, 40 - slope(40, 30) / 3, 40);
    const exact = integral((t) => Math.PI * radius.at(t) ** 2 * height.slope(t));
    expect((await pointed.volume()) / exact).toBeCloseTo(1, 5);
  });
});

describe('a flat face as a section', () => {
  const peg = (size: number) =>
    new PartFixture()
      .sketch('s', circle(0, 0, size))
      .step('e', 'extrude', { sketch: 's', distance: '11 mm' })
      .step('high', 'datum-plane', { how: 'offset', on: [{ to: 'face', name: 'e/end' }], by: '7 mm' })
      .sketch('t', circle(0, 0, 2), { to: 'datum', step: 'high' });

  test('a cone grows out of the end of a peg, and follows it', async () => {
    const pointed = (size: number) =>
      peg(size).step('l', 'loft', { sections: ['t'], before: [{ to: 'face', name: 'e/end' }], result: 'add' });
    const volume = (r: number) => Math.PI * (r * r * 11 + (7 / 3) * (r * r + 2 * r + 4));
    for (const r of [5, 8.25]) expect(await pointed(r).volume()).toBeCloseTo(volume(r), 6);
  });

  test('its sides keep their names when the face gets one more', async () => {
    const block = (bevel: boolean) => {
      const own = new PartFixture()
        .sketch('s', rectangle(-6, -4, 12, 8))
        .step('e', 'extrude', { sketch: 's', distance: '5 mm' });
      if (bevel) own.step('c', 'chamfer', { edges: [{ to: 'edge', name: 'e/side/a | e/side/b' }], distance: '2 mm' });
      return own
        .step('high', 'datum-plane', { how: 'offset', on: [{ to: 'face', name: 'e/end' }], by: '7 mm' })
        .sketch('t', rectangle(-3, -2, 6, 4), { to: 'datum', step: 'high' })
        .step('l', 'loft', { sections: ['t'], before: [{ to: 'face', name: 'e/end' }], result: 'add' });
    };
    const sidesOf = async (bench: PartFixture) => {
      const { bodies, steps } = await bench.model();
      expect(steps.at(-1)!.issue).toBeUndefined();
      return bodies[0]!.topology!.faces.map(({ name }) => name).filter((name) => name.startsWith('l/side/'));
    };
    const [before, after] = [await sidesOf(block(false)), await sidesOf(block(true))];
    expect(before).toHaveLength(4);
    // the new side, and what becomes of a corner that has no partner
    expect(after.length).toBeGreaterThan(4);
    expect(before.filter((name) => !after.includes(name))).toEqual([]);
  });

  test('a loft of thin walls goes along the rims of the face', async () => {
    const thin = peg(6).step('l', 'loft', {
      ...{ sections: ['t'], before: [{ to: 'face', name: 'e/end' }], course: 'straight' },
      ...{ body: 'thin', wall: '1 mm', lies: 'left', result: 'new' },
    });
    const cone = (r: number, s: number) => (Math.PI * 7 * (r * r + r * s + s * s)) / 3;
    expect(await thin.volume()).toBeCloseTo(Math.PI * 36 * 11 + cone(6, 2) - cone(5, 1), 5);
  });

  test('a face that is not flat is refused with what would do', async () => {
    const round = peg(5).step('l', 'loft', { sections: ['t'], before: [{ to: 'face', name: 'e/side/o' }] });
    expect(await round.trouble()).toMatch(/has to be flat/);
  });
});
