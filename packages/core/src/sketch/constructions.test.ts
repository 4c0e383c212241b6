import { ORIGIN, solveSketch, X_AXIS, type Entities, type Entity, type Relation, type Relations } from './index.ts';
import { point, line, circle, quadrangle, aligned, sizes, places } from './test-scene.ts';

describe('constructions with known answers', () => {
  test('a triangle from its three sides keeps its hand', () => {
    const triangle: Entities = { a: point(0, 0), b: point(9, 1), c: point(2, -6), ab: line('a', 'b') };
    const relations: Relations = {
      o: { kind: 'coincident', a: 'a', b: ORIGIN },
      x: { kind: 'coincident', a: 'b', b: X_AXIS },
      ab: aligned('a', 'b'),
      bc: aligned('b', 'c'),
      ca: aligned('c', 'a'),
    };
    const { geometry, state } = solveSketch(triangle, relations, sizes({ ab: 5, bc: 4, ca: 3 }));
    expect(state).toBe('settled');
    // 3-4-5: the height over the hypotenuse is 12/5
    expect(geometry.point('c')[0]).toBeCloseTo(9 / 5, 9);
    expect(geometry.point('c')[1]).toBeCloseTo(-12 / 5, 9);
  });

  test('the circle in the corner: tangent to both axes, radius 7', () => {
    const entities: Entities = { m: point(8, 6), k: circle('m', 5) };
    const relations: Relations = {
      x: { kind: 'tangent', circle: 'k', to: X_AXIS, side: 1 },
      y: { kind: 'tangent', circle: 'k', to: 'y-axis', side: -1 },
      r: { kind: 'radius', circle: 'k', value: '7' },
    };
    const solution = solveSketch(entities, relations, sizes({ r: 7 }));
    expect(solution.state).toBe('settled');
    expect(places(solution.geometry, 'm')).toEqual([[7, 7]]);
  });

  test('three circles in a row, touching from outside and from inside', () => {
    const entities: Entities = { m: point(0, 0), n: point(9, 0.5), k: circle('m', 4), l: circle('n', 3) };
    const base: Relations = {
      o: { kind: 'coincident', a: 'm', b: ORIGIN },
      x: { kind: 'coincident', a: 'n', b: X_AXIS },
      d: { kind: 'diameter', circle: 'k', value: '1' },
      e: { kind: 'radius', circle: 'l', value: '1' },
    };
    const apart = (side: 1 | -1) =>
      solveSketch(
        entities,
        { ...base, t: { kind: 'tangent', circle: 'k', to: 'l', side } },
        sizes({ d: 10, e: 2 }),
      ).geometry.point('n')[0];
    expect(apart(1)).toBeCloseTo(7, 9);
    expect(apart(-1)).toBeCloseTo(3, 9);
  });

  test('an angle keeps its sector: 30 degrees off the x axis, also beyond 180', () => {
    const entities: Entities = { a: point(0, 0), b: point(8, 5), ab: line('a', 'b') };
    const relations: Relations = {
      o: { kind: 'coincident', a: 'a', b: ORIGIN },
      d: aligned('a', 'b'),
      t: { kind: 'angle', a: X_AXIS, b: 'ab', alongA: 1, alongB: 1, sense: 1, value: '1' },
    };
    for (const degrees of [30, 150, 210, 330]) {
      const angle = (degrees * Math.PI) / 180;
      const { geometry, state } = solveSketch(entities, relations, sizes({ d: 10, t: angle }));
      expect(state).toBe('settled');
      expect(geometry.point('b')[0]).toBeCloseTo(10 * Math.cos(angle), 8);
      expect(geometry.point('b')[1]).toBeCloseTo(10 * Math.sin(angle), 8);
    }
  });

  test('half a profile mirrored: points, lines and circles about the upright axis', () => {
    const half: Entities = {
      p: point(10, 0.2),
      q: point(8, 12),
      r: point(-11, 1),
      s: point(-7, 11),
      m: point(5, 5),
      n: point(-6, 4),
      pq: line('p', 'q'),
      sr: line('s', 'r'),
      k: circle('m', 2),
      l: circle('n', 1.4),
    };
    const relations: Relations = {
      sides: { kind: 'symmetric', a: 'pq', b: 'sr', axis: 'y-axis', crossed: true },
      holes: { kind: 'symmetric', a: 'k', b: 'l', axis: 'y-axis' },
      p: { kind: 'fixed', entity: 'p', at: [10, 0] },
      q: { kind: 'fixed', entity: 'q', at: [8, 12] },
      k: { kind: 'fixed', entity: 'k', at: [5, 5, 2] },
    };
    const { geometry, state } = solveSketch(half, relations, sizes({}));
    expect(state).toBe('settled');
    expect(places(geometry, 'r', 's', 'n')).toEqual([
      [-10, 0],
      [-8, 12],
      [-5, 5],
    ]);
    expect(geometry.circle('l').radius).toBeCloseTo(2, 9);
  });

  test('collinear lines that share an end have one condition, apart they have two', () => {
    const entities: Entities = {
      a: point(0, 0),
      b: point(5, 1),
      c: point(11, 0),
      d: point(16, 3),
      e: line('a', 'b'),
      f: line('b', 'c'),
      g: line('c', 'd'),
    };
    const freedomsOf = (relations: Relations) => solveSketch(entities, relations, sizes({})).freedoms;
    expect(freedomsOf({ r: { kind: 'collinear', a: 'e', b: 'f' } })).toBe(7);
    expect(freedomsOf({ r: { kind: 'collinear', a: 'e', b: 'g' } })).toBe(6);
  });

  test('the ends of an arc lie on its circle: five freedoms, and a radius leaves four', () => {
    const entities: Entities = {
      m: point(0, 0),
      a: point(5, 0.3),
      b: point(0.2, 4.6),
      k: { kind: 'arc', centre: 'm', a: 'a', b: 'b', radius: 5 },
    };
    expect(solveSketch(entities, {}, sizes({})).freedoms).toBe(5);
    const { geometry, freedoms: left } = solveSketch(
      entities,
      { r: { kind: 'radius', circle: 'k', value: '8' } },
      sizes({ r: 8 }),
    );
    expect(left).toBe(4);
    for (const id of ['a', 'b'])
      expect(Math.hypot(...[0, 1].map((c) => geometry.point(id)[c]! - geometry.point('m')[c]!))).toBeCloseTo(8, 9);
  });

  test('a slot from two lines and two arcs that touch at their ends: settled by length, width and place', () => {
    const arc = (centre: string, a: string, b: string): Entity => ({ kind: 'arc', centre, a, b, radius: 4 });
    const entities: Entities = {
      m: point(0.3, 0.2),
      n: point(21, -0.4),
      p: point(0.5, -4.2),
      q: point(20, -3.6),
      r: point(21, 4),
      s: point(-0.4, 3.9),
      lower: line('p', 'q'),
      upper: line('r', 's'),
      left: arc('m', 's', 'p'),
      right: arc('n', 'q', 'r'),
    };
    const touching = (circle: string, to: string): Relation => ({ kind: 'tangent', circle, to, side: 1 });
    const relations: Relations = {
      o: { kind: 'coincident', a: 'm', b: ORIGIN },
      x: { kind: 'coincident', a: 'n', b: X_AXIS },
      t1: touching('left', 'lower'),
      t2: touching('left', 'upper'),
      t3: touching('right', 'lower'),
      t4: touching('right', 'upper'),
      e: { kind: 'equal', a: 'left', b: 'right' },
      r: { kind: 'radius', circle: 'left', value: '3' },
      d: aligned('m', 'n'),
    };
    const { geometry, state } = solveSketch(entities, relations, sizes({ r: 3, d: 24 }));
    expect(state).toBe('settled');
    expect(places(geometry, 'n', 'p', 'q', 'r', 's')).toEqual([
      [24, 0],
      [0, -3],
      [24, -3],
      [24, 3],
      [0, 3],
    ]);
  });

  test('an S of two arcs that touch at a common end', () => {
    const entities: Entities = {
      m: point(0, 5.2),
      n: point(0.3, -4.6),
      a: point(-5, 5),
      o: point(0.1, 0.2),
      b: point(5, -5),
      upper: { kind: 'arc', centre: 'm', a: 'a', b: 'o', radius: 5 },
      lower: { kind: 'arc', centre: 'n', a: 'b', b: 'o', radius: 5 },
    };
    const relations: Relations = {
      o: { kind: 'coincident', a: 'o', b: ORIGIN },
      m: { kind: 'coincident', a: 'm', b: 'y-axis' },
      t: { kind: 'tangent', circle: 'upper', to: 'lower', side: 1 },
      r: { kind: 'radius', circle: 'upper', value: '6' },
      s: { kind: 'radius', circle: 'lower', value: '4' },
    };
    const { geometry } = solveSketch(entities, relations, sizes({ r: 6, s: 4 }));
    expect(places(geometry, 'm', 'n')).toEqual([
      [0, 6],
      [0, -4],
    ]);
  });

  test('concentric circles keep their radii', () => {
    const entities: Entities = { m: point(0, 0), n: point(4, 2), k: circle('m', 3), l: circle('n', 7) };
    const { geometry, freedoms: left } = solveSketch(
      entities,
      { r: { kind: 'concentric', a: 'k', b: 'l' } },
      sizes({}),
    );
    expect(left).toBe(4);
    expect(geometry.circle('k')).toEqual({ centre: [2, 1], radius: 3 });
    expect(geometry.circle('l')).toEqual({ centre: [2, 1], radius: 7 });
  });

  test('three points in line are a special place: collinear by 3 + 4 = 7, still settled, not clashing', () => {
    const entities: Entities = { a: point(0, 0), b: point(3, 0.01), c: point(7, 0), ab: line('a', 'b') };
    const relations: Relations = {
      o: { kind: 'coincident', a: 'a', b: ORIGIN },
      x: { kind: 'coincident', a: 'c', b: X_AXIS },
      ac: aligned('a', 'c'),
      ab: aligned('a', 'b'),
      bc: aligned('b', 'c'),
    };
    expect(solveSketch(entities, relations, sizes({ ac: 6.9, ab: 3, bc: 4 })).state).toBe('settled');
    expect(solveSketch(entities, relations, sizes({ ac: 7.5, ab: 3, bc: 4 })).state).toBe('clashing');
  });

  test('a parallelogram told twice is redundant, not clashing', () => {
    const relations: Relations = {
      p1: { kind: 'parallel', a: 'l1', b: 'l3' },
      p2: { kind: 'parallel', a: 'l2', b: 'l4' },
      e: { kind: 'equal', a: 'l1', b: 'l3' },
    };
    expect(solveSketch(quadrangle, relations, sizes({}))).toMatchObject({ state: 'loose', freedoms: 6 });
  });

  test('a regular hexagon from equal chords and a hub', () => {
    const ids = ['p0', 'p1', 'p2', 'p3', 'p4', 'p5'];
    const corners = ids.map((id, k) => [id, point(10 * Math.cos(k) + 0.3 * k, 10 * Math.sin(k * 1.1))] as const);
    const sides = ids.map((id, k) => [`l${k}`, line(id, ids[(k + 1) % 6]!)] as const);
    const entities: Entities = { ...Object.fromEntries([...corners, ...sides]), m: point(0.1, 0.2), k: circle('m', 9) };
    const relations: Relations = Object.fromEntries([
      ...ids.map((id, k) => [`on${k}`, { kind: 'coincident', a: id, b: 'k' }] as const),
      ...[1, 2, 3, 4, 5].map((k) => [`e${k}`, { kind: 'equal', a: 'l0', b: `l${k}` }] as const),
      ['o', { kind: 'coincident', a: 'm', b: ORIGIN }],
      ['x', { kind: 'coincident', a: 'p0', b: X_AXIS }],
      ['d', { kind: 'diameter', circle: 'k', value: '1' }],
    ]);
    const { geometry, state } = solveSketch(entities, relations, sizes({ d: 20 }));
    expect(state).toBe('settled');
    ids.forEach((id, k) => {
      expect(geometry.point(id)[0]).toBeCloseTo(10 * Math.cos((k * Math.PI) / 3), 8);
      expect(geometry.point(id)[1]).toBeCloseTo(10 * Math.sin((k * Math.PI) / 3), 8);
    });
  });
});
