import fc from 'fast-check';
import { randomFrom } from '../math/index.ts';
import {
  dragSketch,
  Geometry,
  isSized,
  Layout,
  ORIGIN,
  relationKind,
  RELATION_NAMES,
  relationSchema,
  solveSketch,
  X_AXIS,
  type Entities,
  type Entity,
  type Relation,
  type Relations,
  type Sizes,
} from './index.ts';

const point = (x: number, y: number): Entity => ({ kind: 'point', x, y });
const line = (a: string, b: string): Entity => ({ kind: 'line', a, b });
const circle = (centre: string, radius: number): Entity => ({ kind: 'circle', centre, radius });

/** A rough quadrangle p q r s with sides l1 (p-q) to l4 (s-p). */
const quadrangle: Entities = {
  p: point(0.3, -0.2),
  q: point(41, 1),
  r: point(39, 22),
  s: point(-1, 19),
  l1: line('p', 'q'),
  l2: line('q', 'r'),
  l3: line('r', 's'),
  l4: line('s', 'p'),
};

const level = (a: string): Relation => ({ kind: 'horizontal', a });
const upright = (a: string): Relation => ({ kind: 'vertical', a });
const aligned = (a: string, b: string): Relation => ({
  kind: 'distance',
  a,
  b,
  direction: 'aligned',
  sense: 1,
  value: '1',
});
const rectangle: Relations = { h1: level('l1'), h3: level('l3'), v2: upright('l2'), v4: upright('l4') };
const sized: Relations = { ...rectangle, w: aligned('p', 'q'), h: aligned('q', 'r') };
const atOrigin: Relations = { o: { kind: 'coincident', a: 'p', b: ORIGIN } };

const sizes = (entries: Record<string, number>): Sizes => new Map(Object.entries(entries));
const places = (geometry: Geometry, ...ids: string[]) =>
  ids.map((id) => geometry.point(id).map((c) => Math.round(c * 1e8) / 1e8));

describe('a rectangle', () => {
  test('has four freedoms with its sides level and upright', () => {
    expect(solveSketch(quadrangle, rectangle, sizes({}))).toMatchObject({ state: 'loose', freedoms: 4 });
  });

  test('two sizes leave it to slide; the origin settles it in the exact place', () => {
    const slides = solveSketch(quadrangle, sized, sizes({ w: 40, h: 20 }));
    expect(slides).toMatchObject({ state: 'loose', freedoms: 2 });
    const settled = solveSketch(quadrangle, { ...sized, ...atOrigin }, sizes({ w: 40, h: 20 }));
    expect(settled).toMatchObject({ state: 'settled', freedoms: 0, clash: [] });
    expect(settled.loose.size).toBe(0);
    expect(places(settled.geometry, 'p', 'q', 'r', 's')).toEqual([
      [0, 0],
      [40, 0],
      [40, 20],
      [0, 20],
    ]);
  });

  test('loose entities are told apart from settled ones', () => {
    const relations = { ...rectangle, w: aligned('p', 'q'), ...atOrigin };
    const solution = solveSketch(quadrangle, relations, sizes({ w: 40 }));
    expect(solution.freedoms).toBe(1);
    expect([...solution.loose].sort()).toEqual(['l2', 'l3', 'l4', 'r', 's']);
    // only the height is free: both upper corners slide upright
    expect([...solution.slides.keys()].sort()).toEqual(['r', 's']);
    for (const [x, y] of solution.slides.values())
      expect([Math.abs(x), Math.abs(y)]).toEqual([0, 1].map((c) => expect.closeTo(c, 9)));
  });

  test('one size too many clashes: the fighting set is minimal, the drawing stays', () => {
    const relations = { ...sized, ...atOrigin, top: aligned('r', 's') };
    const solution = solveSketch(quadrangle, relations, sizes({ w: 40, h: 20, top: 44 }));
    expect(solution.state).toBe('clashing');
    expect(solution.clash).toEqual(expect.arrayContaining(['w', 'top']));
    expect(solution.clash).not.toContain('h');
    expect(solution.clash).not.toContain('o');
    expect(solution.geometry.point('r')).toEqual([39, 22]);
  });

  test('a line that is to be level and upright at once would lose its length: the two relations fight', () => {
    const relations = { ...sized, ...atOrigin, wrong: upright('l1') };
    const { state, clash } = solveSketch(quadrangle, relations, sizes({}));
    expect(state).toBe('clashing');
    expect([...clash].sort()).toEqual(['h1', 'wrong']);
  });

  test('a level line that is asked to stand upright turns and keeps its length', () => {
    const entities: Entities = { a: point(2, 5), b: point(12, 5), ab: line('a', 'b') };
    const { geometry, state } = solveSketch(entities, { v: upright('ab') }, sizes({}));
    expect(state).toBe('loose');
    expect(places(geometry, 'a', 'b')).toEqual([
      [7, 0],
      [7, 10],
    ]);
  });

  test('one size too many that agrees is harmless', () => {
    const relations = { ...sized, ...atOrigin, top: aligned('r', 's') };
    expect(solveSketch(quadrangle, relations, sizes({ w: 40, h: 20, top: 40 }))).toMatchObject({ state: 'settled' });
  });

  test('a dimension walked far and back gives the same shape, never mirrored', () => {
    const relations = { ...sized, ...atOrigin };
    for (const w of [0.01, 1, 40, 900, 20000]) {
      const { geometry, state } = solveSketch(quadrangle, relations, sizes({ w, h: 20 }));
      expect(state).toBe('settled');
      expect(geometry.point('q')[0]).toBeCloseTo(w, 7);
      expect(geometry.point('r')[1]).toBeCloseTo(20, 7);
    }
  });
});

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

describe('dragging', () => {
  test('a loose corner follows the pointer, the relations hold exactly', () => {
    const moved = dragSketch(quadrangle, rectangle, sizes({}), { points: [{ id: 'r', to: [60, 35] }] })!;
    const geometry = new Geometry(moved);
    expect(geometry.point('r')[0]).toBeCloseTo(60, 2);
    expect(geometry.point('r')[1]).toBeCloseTo(35, 2);
    expect(geometry.point('q')[0]).toBe(geometry.point('r')[0]);
  });

  test('an arm of fixed length turns towards the pointer', () => {
    const arm: Entities = { a: point(0, 0), b: point(10, 0), ab: line('a', 'b') };
    const relations: Relations = { o: { kind: 'coincident', a: 'a', b: ORIGIN }, d: aligned('a', 'b') };
    const { b } = dragSketch(arm, relations, sizes({ d: 10 }), { points: [{ id: 'b', to: [30, 40] }] }) as Record<
      string,
      Entity
    >;
    expect(b).toMatchObject({ kind: 'point', x: expect.closeTo(6, 6), y: expect.closeTo(8, 6) });
  });

  test('a settled point does not move, whatever the pull', () => {
    const relations = { ...sized, ...atOrigin };
    const drawn = solveSketch(quadrangle, relations, sizes({ w: 40, h: 20 })).geometry.entities;
    const moved = dragSketch(drawn, relations, sizes({ w: 40, h: 20 }), { points: [{ id: 'r', to: [90, 90] }] })!;
    expect(places(new Geometry(moved), 'r')).toEqual([[40, 20]]);
  });

  test('a circle grows by its rim', () => {
    const entities: Entities = { m: point(1, 2), k: circle('m', 3) };
    expect(dragSketch(entities, {}, sizes({}), { radius: { id: 'k', to: 8 } })).toMatchObject({ k: { radius: 8 } });
  });
});

describe('every kind of relation', () => {
  const scene: Entities = {
    ...quadrangle,
    t: point(12, 7),
    u: point(20, 31),
    m: point(13, 14),
    n: point(25, 9),
    k: circle('m', 6),
    k2: circle('n', 4),
  };
  const coordinates = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 });
  const instances: Relation[] = [
    { kind: 'coincident', a: 't', b: 'l1' },
    { kind: 'coincident', a: 't', b: 'k' },
    { kind: 'coincident', a: 't', b: 'u' },
    level('l1'),
    upright('l2'),
    { kind: 'parallel', a: 'l1', b: 'l3' },
    { kind: 'perpendicular', a: 'l1', b: 'l2' },
    { kind: 'equal', a: 'l1', b: 'l2' },
    { kind: 'equal', a: 'k', b: 'k2' },
    { kind: 'midpoint', point: 't', line: 'l3' },
    { kind: 'tangent', circle: 'k', to: 'l2', side: -1 },
    { kind: 'tangent', circle: 'k', to: 'k2', side: 1 },
    { kind: 'tangent', circle: 'k', to: 'k2', side: -1 },
    { kind: 'concentric', a: 'k', b: 'k2' },
    { kind: 'collinear', a: 'l1', b: 'l3' },
    { kind: 'fixed', entity: 't', at: [12, 7] },
    { kind: 'fixed', entity: 'l1', at: [1, 2, 3, 4] },
    { kind: 'fixed', entity: 'k', at: [1, 2, 3] },
    { kind: 'symmetric', a: 't', b: 'u', axis: 'l4' },
    { kind: 'symmetric', a: 'k', b: 'k2', axis: 'l2' },
    { kind: 'symmetric', a: 'l1', b: 'l3', axis: 'l2', crossed: true },
    aligned('t', 'u'),
    { kind: 'distance', a: 't', b: 'l4', direction: 'aligned', sense: -1, value: '5' },
    { kind: 'distance', a: 't', b: 'u', direction: 'horizontal', sense: 1, value: '5' },
    { kind: 'diameter', circle: 'k', value: '5' },
    { kind: 'radius', circle: 'k', value: '5' },
    { kind: 'angle', a: 'l1', b: 'l2', alongA: 1, alongB: -1, sense: 1, value: '60' },
  ];

  test('is in this list', () => {
    expect(new Set(instances.map((relation) => relation.kind))).toEqual(new Set(RELATION_NAMES));
  });

  test.each(instances.map((relation) => [`${relation.kind} ${JSON.stringify(relation)}`, relation] as const))(
    '%s: the Jacobian is that of finite differences',
    (_, relation) => {
      fc.assert(
        fc.property(coordinates, fc.integer({ min: 1, max: 1e6 }), (shifts, seed) => {
          const layout = new Layout(scene);
          const start = new Geometry(scene);
          const { blocks = [] } = relationKind(relation.kind).equations(relation, {
            id: 'r',
            layout,
            start,
            value: 1.1,
          });
          const random = randomFrom(seed);
          for (const block of blocks) {
            const p = Float64Array.from(block.unknowns, (at, k) => layout.initial[at]! + shifts[k % 8]! + random());
            const n = p.length;
            const j = new Float64Array(block.residuals * n);
            block.evaluate(p, new Float64Array(block.residuals), j);
            for (let k = 0; k < n; k++) {
              const h = 1e-6;
              const [above, below] = [h, -h].map((step) => {
                const q = Float64Array.from(p);
                q[k]! += step;
                const r = new Float64Array(block.residuals);
                block.evaluate(q, r, new Float64Array(block.residuals * n));
                return r;
              }) as [Float64Array, Float64Array];
              for (let i = 0; i < block.residuals; i++)
                expect(Math.abs(j[i * n + k]! - (above[i]! - below[i]!) / (2 * h))).toBeLessThan(1e-4);
            }
          }
        }),
        { numRuns: 25 },
      );
    },
  );

  test.each(instances.map((relation) => [relation.kind, relation] as const))(
    '%s: stays finite where everything lies in one place',
    (_, relation) => {
      const layout = new Layout(scene);
      const equations = relationKind(relation.kind).equations(relation, {
        id: 'r',
        layout,
        start: new Geometry(scene),
        value: 1,
      });
      for (const block of equations.blocks ?? []) {
        const r = new Float64Array(block.residuals);
        const j = new Float64Array(block.residuals * block.unknowns.length);
        block.evaluate(new Float64Array(block.unknowns.length), r, j);
        expect([...r, ...j].every(Number.isFinite)).toBe(true);
      }
    },
  );

  test.each(instances.map((relation) => [relation.kind, relation] as const))(
    '%s: is fitted again to what it refers to, and passes its schema',
    (name, relation) => {
      const kind = relationKind(name);
      const refs = kind.refs(relation);
      const fitted = kind.fit(refs, new Geometry(scene));
      expect(fitted?.kind).toBe(name);
      expect(relationSchema.safeParse(fitted).success).toBe(true);
      expect(kind.anchors(relation, new Geometry(scene)).length).toBeGreaterThan(0);
    },
  );

  test.each(instances.filter(isSized).map((relation) => [relation.kind, relation] as const))(
    '%s: measures what it holds',
    (_, relation) => {
      const present = relationKind(relation.kind).dimension!.measure(relation, new Geometry(scene));
      const asked = Math.abs(present) * 1.25;
      const { geometry, state } = solveSketch(scene, { r: relation }, sizes({ r: asked }));
      expect(state).toBe('loose');
      expect(relationKind(relation.kind).dimension!.measure(relation, geometry)).toBeCloseTo(asked, 7);
    },
  );
});

test('a sketch made from known geometry, shaken, returns to it (property)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 8 }), fc.integer({ min: 1, max: 1e6 }), (count, seed) => {
      const random = randomFrom(seed);
      const truth: Record<string, Entity> = {};
      const drawn: Record<string, Entity> = {};
      const relations: Record<string, Relation> = { o: { kind: 'coincident', a: 'p0', b: ORIGIN } };
      const values = new Map<string, number>();
      for (let k = 0; k < count; k++) {
        const [x, y] = k === 0 ? [0, 0] : [20 * k + 8 * random(), 30 * random()];
        truth[`p${k}`] = point(x, y);
        drawn[`p${k}`] = point(x + random() - 0.5, y + random() - 0.5);
        if (k === 0) continue;
        drawn[`l${k}`] = truth[`l${k}`] = line(`p${k - 1}`, `p${k}`);
        const before = truth[`p${k - 1}`] as { x: number; y: number };
        relations[`d${k}`] = aligned(`p${k - 1}`, `p${k}`);
        values.set(`d${k}`, Math.hypot(x - before.x, y - before.y));
        const turn = Math.atan2(y - before.y, x - before.x);
        relations[`t${k}`] = { kind: 'angle', a: X_AXIS, b: `l${k}`, alongA: 1, alongB: 1, sense: 1, value: '1' };
        values.set(`t${k}`, turn < 0 ? turn + 2 * Math.PI : turn);
      }
      const { geometry, state } = solveSketch(drawn, relations, values);
      expect(state).toBe('settled');
      const real = new Geometry(truth);
      for (let k = 0; k < count; k++)
        for (const c of [0, 1] as const)
          expect(Math.abs(geometry.point(`p${k}`)[c] - real.point(`p${k}`)[c])).toBeLessThan(1e-8);
    }),
    { numRuns: 40 },
  );
});
