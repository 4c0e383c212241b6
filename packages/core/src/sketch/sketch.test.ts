import fc from 'fast-check';
import { randomFrom } from '../math/index.ts';
import {
  SketchDrag,
  Geometry,
  ORIGIN,
  solveSketch,
  X_AXIS,
  type Entities,
  type Entity,
  type Relation,
  type Relations,
} from './index.ts';
import {
  point,
  line,
  circle,
  quadrangle,
  upright,
  aligned,
  rectangle,
  sized,
  atOrigin,
  sizes,
  places,
} from './test-scene.ts';

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

describe('dragging', () => {
  test('a loose corner follows the pointer, the relations hold exactly', () => {
    const moved = new SketchDrag(quadrangle, rectangle, sizes({})).frame({ points: [{ id: 'r', to: [60, 35] }] })!;
    const geometry = new Geometry(moved);
    expect(geometry.point('r')[0]).toBeCloseTo(60, 2);
    expect(geometry.point('r')[1]).toBeCloseTo(35, 2);
    expect(geometry.point('q')[0]).toBe(geometry.point('r')[0]);
  });

  test('an arm of fixed length turns towards the pointer', () => {
    const arm: Entities = { a: point(0, 0), b: point(10, 0), ab: line('a', 'b') };
    const relations: Relations = { o: { kind: 'coincident', a: 'a', b: ORIGIN }, d: aligned('a', 'b') };
    const { b } = new SketchDrag(arm, relations, sizes({ d: 10 })).frame({
      points: [{ id: 'b', to: [30, 40] }],
    }) as Record<string, Entity>;
    expect(b).toMatchObject({ kind: 'point', x: expect.closeTo(6, 6), y: expect.closeTo(8, 6) });
  });

  test('a settled point does not move, whatever the pull', () => {
    const relations = { ...sized, ...atOrigin };
    const drawn = solveSketch(quadrangle, relations, sizes({ w: 40, h: 20 })).geometry.entities;
    const moved = new SketchDrag(drawn, relations, sizes({ w: 40, h: 20 })).frame({
      points: [{ id: 'r', to: [90, 90] }],
    })!;
    expect(places(new Geometry(moved), 'r')).toEqual([[40, 20]]);
  });

  test('a circle grows by its rim', () => {
    const entities: Entities = { m: point(1, 2), k: circle('m', 3) };
    expect(new SketchDrag(entities, {}, sizes({})).frame({ radius: { id: 'k', to: 8 } })).toMatchObject({
      k: { radius: 8 },
    });
  });
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
