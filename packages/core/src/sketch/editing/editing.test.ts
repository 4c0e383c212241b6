import fc from 'fast-check';
import { distance2, type Vec2 } from '../../math/index.ts';
import {
  chamfer,
  copied,
  cornersAmong,
  extend,
  fillet,
  filled,
  findRegions,
  isSized,
  mirrored,
  moved,
  split,
  trim,
  turnedRound,
  type Entities,
  type Relation,
  type Relations,
} from '../index.ts';
import { along, nearestOn, type Piece } from '../pieces/index.ts';
import { circle, level, line, point, upright } from '../test-scene.ts';
import { areaOf, box, revised, solvedOf } from './test-edits.ts';

describe('trim', () => {
  const cross: Entities = {
    a: point(-10, 0),
    b: point(10, 0),
    c: point(-4, -8),
    d: point(-4, 8),
    e: point(5, -8),
    f: point(5, 8),
    ab: line('a', 'b'),
    cd: line('c', 'd'),
    ef: line('e', 'f'),
  };
  const sketch = { entities: cross, relations: { h: level('ab') } };

  test('an end goes up to the nearest crossing and stays on it', () => {
    const after = revised(sketch, (b) => trim(b, 'ab', [8, 0.2]));
    expect(after.entities['b']).toBeUndefined();
    const { a, b } = solvedOf(after).geometry.line('ab');
    expect(a).toEqual([-10, 0]);
    expect(b[0]).toBeCloseTo(5, 9);
    expect(Object.values(after.relations)).toContainEqual(expect.objectContaining({ kind: 'coincident', b: 'ef' }));
  });

  test('the middle goes, what is left stays along one line', () => {
    const after = revised(sketch, (b) => trim(b, 'ab', [1, 0]));
    const lines = Object.entries(after.entities).filter(([, { kind }]) => kind === 'line');
    expect(lines).toHaveLength(4);
    expect(
      Object.values(after.relations)
        .map(({ kind }) => kind)
        .sort(),
    ).toEqual(['coincident', 'coincident', 'collinear', 'horizontal']);
    expect(solvedOf(after).state).toBe('loose');
  });

  test('a curve that nothing crosses goes whole, with what stood on it', () => {
    const alone = { entities: { a: point(0, 0), b: point(5, 5), l: line('a', 'b') }, relations: { h: level('l') } };
    const after = revised(alone, (b) => trim(b, 'l', [2, 2]));
    expect([after.entities, after.relations]).toEqual([{}, {}]);
  });

  test('a circle becomes the arc that is left; its diameter still holds', () => {
    const round = {
      entities: { ...cross, m: point(0, 0), k: circle('m', 6) },
      relations: { d: { kind: 'diameter', circle: 'k', value: '12' } } as Relations,
    };
    const after = revised(round, (b) => trim(b, 'k', [0, 6]));
    expect(after.entities['k']).toMatchObject({ kind: 'arc', radius: 6 });
    expect(after.relations['d']).toBeDefined();
    const [piece] = solvedOf(after).geometry.pieces('k');
    // the stretch over the top, between the two uprights, is gone
    expect(piece!.from[0]).toBeCloseTo(-4, 6);
    expect(piece!.to[0]).toBeCloseTo(5, 6);
  });

  test('a spline that is trimmed is the same curve as before', () => {
    const wave: Entities = {
      p: point(-12, -3),
      q: point(-3, 4),
      r: point(8, -2),
      s: point(14, 5),
      h: point(-9, 2),
      i: point(12, 5),
      w: { kind: 'spline', points: ['p', 'q', 'r', 's'], start: 'h', end: 'i', knots: [0, 11, 23, 32] },
      c: point(5, -8),
      d: point(5, 8),
      cut: line('c', 'd'),
    };
    const before = solvedOf({ entities: wave, relations: {} }).geometry;
    const after = revised({ entities: wave, relations: {} }, (b) => trim(b, 'w', [14, 5]));
    const pieces = solvedOf(after).geometry.pieces('w');
    const old = before.pieces('w');
    const near = (at: Vec2) => Math.min(...old.map((piece) => distance2(nearestOn(piece, at), at)));
    for (const piece of pieces) for (const at of samples(piece)) expect(near(at)).toBeLessThan(1e-6);
    expect(pieces.at(-1)!.to[0]).toBeCloseTo(5, 6);
  });
});

const samples = (piece: Piece) => Array.from({ length: 101 }, (_, k) => along(piece, k / 100));

describe('extend and split', () => {
  const open: Entities = {
    a: point(0, 0),
    b: point(6, 0),
    l: line('a', 'b'),
    c: point(15, -5),
    d: point(15, 5),
    wall: line('c', 'd'),
  };

  test('a line grows up to the next curve and stays on it', () => {
    const after = revised({ entities: open, relations: { h: level('l') } }, (b) => extend(b, 'l', [5, 0]));
    const { geometry, state } = solvedOf(after);
    expect(geometry.line('l').b[0]).toBeCloseTo(15, 9);
    expect(state).toBe('loose');
  });

  test('where nothing lies ahead it says so', () => {
    expect(() => revised({ entities: open, relations: {} }, (b) => extend(b, 'l', [0.5, 0]))).toThrow(
      'Nothing lies ahead',
    );
  });

  test('a line in two, a circle in two halves: lengths add up', () => {
    const after = revised({ entities: open, relations: {} }, (b) => split(b, 'l', [2, 0.3]));
    expect(Object.values(after.entities).filter(({ kind }) => kind === 'line')).toHaveLength(3);
    const round = { entities: { m: point(0, 0), k: circle('m', 6) }, relations: {} };
    const halves = revised(round, (b) => split(b, 'k', [6, 0]));
    expect(Object.values(halves.entities).filter(({ kind }) => kind === 'arc')).toHaveLength(2);
    expect(areaOf(halves)).toBeCloseTo(36 * Math.PI, 8);
    // centre, radius and the two places where it is cut
    expect(solvedOf(halves).freedoms).toBe(5);
  });
});

describe('corners', () => {
  test('four corners rounded: one radius rules them all', () => {
    const plate = box(40, 20);
    const after = revised(plate, (b) => fillet(b, plate.corners, { text: '3', size: 3 }));
    expect(areaOf(after)).toBeCloseTo(800 - (4 - Math.PI) * 9, 8);
    expect(solvedOf(after).freedoms).toBe(4);
    const [dimension] = Object.keys(after.relations).filter((id) => after.relations[id]!.kind === 'radius');
    const wider = {
      ...after,
      relations: { ...after.relations, [dimension!]: { ...after.relations[dimension!]!, value: '5' } as Relation },
    };
    expect(areaOf(wider)).toBeCloseTo(areaOf(wider), 8);
    expect(Object.values(after.relations).filter(({ kind }) => kind === 'equal')).toHaveLength(3);
  });

  test('a corner that a dimension speaks of stays where the sides would meet', () => {
    const plate = box(40, 20);
    const [p, q] = plate.corners;
    const relations: Relations = {
      ...plate.relations,
      w: { kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: '40' },
    };
    const after = revised({ ...plate, relations }, (b) => fillet(b, [q], { text: '6', size: 6 }));
    expect(after.relations['w']).toBeDefined();
    const { geometry, state } = solvedOf(after);
    expect(state).toBe('loose');
    expect(geometry.point(q)[0] - geometry.point(p)[0]).toBeCloseTo(40, 9);
  });

  test('chamfers of equal size by one dimension', () => {
    const plate = box(40, 20);
    const after = revised(plate, (b) => chamfer(b, plate.corners.slice(0, 2), { text: '4', size: 4 }));
    expect(areaOf(after)).toBeCloseTo(800 - 16, 8);
    expect(solvedOf(after).freedoms).toBe(4);
    expect(Object.values(after.relations).filter(isSized)).toHaveLength(1);
  });

  test('a radius without room is refused with what would fit', () => {
    const plate = box(40, 20);
    expect(() => revised(plate, (b) => fillet(b, plate.corners, { text: '25 mm', size: 25 }))).toThrow(
      'no room for 25 mm',
    );
    expect(() => revised(plate, (b) => fillet(b, [plate.sides[0]!], { text: '2', size: 2 }))).toThrow(
      'Choose a corner',
    );
  });

  test('corners are found among chosen points and where chosen curves meet', () => {
    const plate = box(40, 20);
    const { geometry } = solvedOf(plate);
    expect(cornersAmong(geometry, plate.sides)).toHaveLength(4);
    expect(cornersAmong(geometry, plate.sides.slice(0, 2))).toEqual([plate.corners[1]]);
    expect(cornersAmong(geometry, [plate.corners[2]])).toEqual([plate.corners[2]]);
  });
});

describe('lines that cross, or would, are corners too', () => {
  /** Two lines out from a circle that both touch it, at an angle, the inner ones; so far out that there is room. */
  const elbow = (turn: number): { entities: Entities; relations: Relations } => {
    const along: Vec2 = [Math.cos(turn), Math.sin(turn)];
    // the second touches on its right, so that it crosses the first
    const near: Vec2 = [16 * along[1], -16 * along[0]];
    const entities: Entities = {
      ...{ o: point(0, 0), c: circle('o', 16), a: point(0, 16), b: point(200, 16), d: point(...near) },
      ...{ e: point(near[0] + 220 * along[0], near[1] + 220 * along[1]), ab: line('a', 'b'), de: line('d', 'e') },
    };
    const relations: Relations = {
      f: { kind: 'fixed', entity: 'o', at: [0, 0] },
      r: { kind: 'diameter', circle: 'c', value: '32' },
      ...{ h: level('ab'), t1: { kind: 'tangent', circle: 'c', to: 'ab', side: -1 } },
      t2: { kind: 'tangent', circle: 'c', to: 'de', side: 1 },
      ...{ p: { kind: 'coincident', a: 'a', b: 'c' }, q: { kind: 'coincident', a: 'd', b: 'c' } },
      w: { kind: 'angle', a: 'ab', b: 'de', alongA: 1, alongB: 1, sense: 1, value: `${(turn * 180) / Math.PI} deg` },
    };
    return { entities, relations };
  };
  const ids = ['ab', 'de'] as const;

  test('rounded: both end where the arc touches, the longer parts stay, nothing else moves', () => {
    const angles = fc.double({ min: 0.7, max: 2.6, noNaN: true });
    fc.assert(
      fc.property(angles, fc.double({ min: 2, max: 40, noNaN: true }), (turn, radius) => {
        const before = elbow(turn);
        const old = solvedOf(before);
        expect(old.clash).toEqual([]);
        expect(cornersAmong(old.geometry, ids)).toEqual([ids]);
        const after = revised(before, (b) => fillet(b, [ids], { text: `${radius}`, size: radius }));
        const { geometry, clash, redundant, freedoms } = solvedOf(after);
        expect([clash, redundant, freedoms]).toEqual([[], [], old.freedoms]);
        // the crossing lies 16 / tan(turn / 2) out along both, and so much further the arc touches
        const touches = (16 + radius) / Math.tan(turn / 2);
        const { a, b } = geometry.line('ab');
        expect([a[0], a[1], b[0]]).toEqual([expect.closeTo(touches, 6), expect.closeTo(16, 6), expect.closeTo(200, 6)]);
        const { a: d } = geometry.line('de');
        expect(Math.hypot(...d)).toBeCloseTo(Math.hypot(touches, 16), 6);
      }),
      { numRuns: 30 },
    );
  });

  test('cut off, and lines that do not reach each other: they are prolonged', () => {
    const cut = revised(elbow(Math.PI / 2), (b) => chamfer(b, [ids], { text: '5', size: 5 }));
    const { geometry, clash, redundant } = solvedOf(cut);
    expect([clash, redundant]).toEqual([[], []]);
    // square to each other they cross at 16, 16
    expect(geometry.line('ab').a.map((x) => Math.round(x * 1e6) / 1e6)).toEqual([21, 16]);
    const apart: Entities = {
      ...{ a: point(10, 0), b: point(60, 0), d: point(0, 12), e: point(0, 70) },
      ...{ ab: line('a', 'b'), de: line('d', 'e') },
    };
    const relations: Relations = { h: level('ab'), v: upright('de') };
    const joined = solvedOf(revised({ entities: apart, relations }, (b) => fillet(b, [ids], { text: '3', size: 3 })));
    expect(joined.clash).toEqual([]);
    expect(joined.geometry.line('ab').a).toEqual([expect.closeTo(3, 9), expect.closeTo(0, 9)]);
    expect(joined.geometry.line('de').a).toEqual([expect.closeTo(0, 9), expect.closeTo(3, 9)]);
    // side by side they have no corner
    const beside: Entities = { ...apart, d: point(0, 5), e: point(60, 5) };
    expect(cornersAmong(solvedOf({ entities: beside, relations: {} }).geometry, ids)).toEqual([]);
  });

  test('a line that is told as long as another stays so as a whole', () => {
    const before = elbow(Math.PI / 2);
    const entities: Entities = { ...before.entities, g: point(0, -60), k: point(200, -60), gk: line('g', 'k') };
    const relations: Relations = { ...before.relations, l: level('gk'), s: { kind: 'equal', a: 'gk', b: 'ab' } };
    const old = solvedOf({ entities, relations });
    const after = solvedOf(revised({ entities, relations }, (b) => fillet(b, [ids], { text: '8', size: 8 })));
    expect([after.clash, after.redundant, after.freedoms]).toEqual([[], [], old.freedoms]);
    const { a, b } = after.geometry.line('gk');
    expect(distance2(a, b)).toBeCloseTo(200, 6);
  });
});

describe('copies', () => {
  const half = {
    entities: {
      a: point(0, -5),
      b: point(0, 12),
      axis: { ...line('a', 'b'), construction: true } as Entities[string],
      p: point(0, 0),
      q: point(9, 0),
      r: point(9, 6),
      s: point(0, 10),
      pq: line('p', 'q'),
      m: point(5, 3),
      k: circle('m', 1.5),
      n: point(6, 4),
      rs: { kind: 'arc', centre: 'n2', a: 'r', b: 's', radius: 9.5 },
      n2: point(-0.4, 0.55),
      qr: line('q', 'r'),
    } as Entities,
    relations: {
      h: level('pq'),
      v: upright('qr'),
      f: { kind: 'fixed', entity: 'axis', at: [0, -5, 0, 12] },
      o: { kind: 'coincident', a: 'p', b: 'axis' },
      s: { kind: 'coincident', a: 's', b: 'axis' },
    } as Relations,
  };

  test('a half mirrored is whole, closed, and follows the other half without a freedom of its own', () => {
    const before = solvedOf(half);
    const after = revised(half, (b) => mirrored(b, ['pq', 'qr', 'rs', 'k'], 'axis'));
    const solution = solvedOf(after);
    expect(solution.freedoms).toBe(before.freedoms);
    expect(solution.redundant).toEqual([]);
    expect(filled(findRegions(solution.geometry))[0]!.holes).toHaveLength(2);
    const xs = Object.keys(after.entities)
      .filter((id) => after.entities[id]!.kind === 'circle')
      .map((id) => solution.geometry.circle(id).centre[0]);
    expect(xs[0]! + xs[1]!).toBeCloseTo(0, 9);
  });

  test('copies keep the relations among themselves; level lines turn with quarter turns, else they are let go', () => {
    const plate = box(40, 20);
    const similarity = { about: [0, 0], angle: Math.PI / 2, scale: 1, shift: [100, 0] } as const;
    const after = revised(plate, (b) => copied(b, plate.sides, similarity));
    expect(solvedOf(after).freedoms).toBe(8);
    expect(areaOf(after)).toBeCloseTo(1600, 8);
    const slanting = revised(plate, (b) => copied(b, plate.sides, { ...similarity, angle: 0.3 }));
    expect(solvedOf(slanting).freedoms).toBe(12);
  });

  test('scaled copies have scaled sizes', () => {
    const plate = box(40, 20);
    const [p, q] = plate.corners;
    const relations: Relations = {
      ...plate.relations,
      w: { kind: 'distance', a: p, b: q, direction: 'aligned', sense: 1, value: '40' },
    };
    const twice = { about: [0, 0], angle: 0, scale: 2, shift: [0, 0] } as const;
    const after = revised({ ...plate, relations }, (b) => moved(b, plate.sides, twice));
    expect(after.relations['w']).toMatchObject({ value: '(40) * 2' });
    expect(areaOf(after)).toBeCloseTo(3200, 6);
  });

  test('what runs the other way is told anew: nothing moves (property)', () => {
    const rich = {
      entities: { ...half.entities, t: point(3, 8) },
      relations: {
        ...half.relations,
        d: { kind: 'distance', a: 't', b: 'pq', direction: 'aligned', sense: 1, value: '8' },
        t: { kind: 'tangent', circle: 'k', to: 'qr', side: 1 },
        w: { kind: 'angle', a: 'pq', b: 'axis', alongA: 1, alongB: 1, sense: 1, value: '90 deg' },
      } as Relations,
    };
    const before = solvedOf(rich);
    fc.assert(
      fc.property(
        fc.subarray(['pq', 'qr', 'axis']).filter((list) => list.length > 0),
        (turned) => {
          const after = solvedOf(revised(rich, (b) => turnedRound(b, turned)));
          expect(after.state).toBe(before.state);
          for (const id of ['p', 'q', 'r', 't', 'm'])
            after.geometry.point(id).forEach((c, k) => expect(c).toBeCloseTo(before.geometry.point(id)[k]!, 7));
        },
      ),
    );
  });
});
