import fc from 'fast-check';
import { randomFrom, type Vec2 } from '../../math/index.ts';
import {
  curesOf,
  entityNames,
  FigureBuilder,
  Geometry,
  hasCollapsed,
  isSized,
  motionSentence,
  ORIGIN,
  polygon,
  rectangle,
  relationKind,
  relationSentence,
  settleAll,
  solveSketch,
  straightSlot,
  type Entities,
  type Relation,
  type Relations,
} from '../index.ts';
import { atOrigin, circle, line, point, quadrangle, rectangle as levels, sized, sizes } from '../test-scene.ts';

const write = (_: Relation, measure: number) => measure.toFixed(3);
const read = (relation: Relation) => (isSized(relation) ? Number(relation.value) : undefined);
let ids = 0;
const tools = { write, read, newId: (prefix: string) => `${prefix}${++ids}` };

const firstCures = (entities: Entities, relations: Relations, all: Record<string, number> = {}) => {
  const { motions, geometry } = solveSketch(entities, relations, sizes(all));
  return motions.map((motion) => ({ motion, cures: curesOf(geometry, Object.values(relations), motion, write) }));
};

describe('cures of a freedom', () => {
  test('what makes a curve vanish is told apart from what only moves or turns it', () => {
    const before = new Geometry({ a: point(0, 0), b: point(10, 0), ab: line('a', 'b'), k: circle('a', 2) });
    const with_ = (more: Entities) => new Geometry({ ...before.entities, ...more });
    expect(hasCollapsed(before, with_({ b: point(0.1, 0) }))).toBe(true);
    expect(hasCollapsed(before, with_({ k: circle('a', 0.05) }))).toBe(true);
    expect(hasCollapsed(before, with_({ b: point(0, -6), k: circle('a', 1) }))).toBe(false);
  });

  test('settling leaves every curve of a sketch with little and large things in it as long as it was', () => {
    const coordinate = fc.integer({ min: -40, max: 40 });
    const little = fc.integer({ min: 1, max: 9 }).map((k) => k / 50);
    fc.assert(
      fc.property(coordinate, coordinate, little, little, (x, y, dx, dy) => {
        fc.pre(Math.hypot(x, y) > 5);
        // a step as small as what is taken for an inaccurate hand, between two long lines
        const entities: Entities = {
          ...{ a: point(0, 0), b: point(x, y), c: point(x + dx, y + dy), d: point(2 * x + dx, 2 * y + dy) },
          ...{ ab: line('a', 'b'), bc: line('b', 'c'), cd: line('c', 'd'), k: circle('c', dx) },
        };
        const added = settleAll(entities, {}, new Map(), tools);
        const values = Object.entries(added).flatMap(([id, relation]) => {
          const value = read(relation);
          return value === undefined ? [] : [[id, value] as const];
        });
        const after = solveSketch(entities, added, new Map(values));
        expect(hasCollapsed(new Geometry(entities), after.geometry)).toBe(false);
      }),
      { numRuns: 15 },
    );
  });

  test('a circle that can only grow is stopped by its diameter, an arc by its radius', () => {
    const [growing] = firstCures(
      { m: point(3, 4), k: circle('m', 7) },
      { f: { kind: 'fixed', entity: 'm', at: [3, 4] } },
    );
    expect(growing!.cures[0]).toMatchObject({ kind: 'diameter', circle: 'k', value: '14.000' });
  });

  test('a rectangle that can slide is held from the origin, or laid on it where it nearly lies there', () => {
    const away: Entities = { ...quadrangle, p: point(12, 9), q: point(50, 9), r: point(50, 30), s: point(12, 30) };
    for (const { motion, cures } of firstCures(away, sized, { w: 38, h: 21 })) {
      expect(motion.look).toBe('slide');
      const direction = Math.abs(motion.direction![0]) > 0.5 ? 'horizontal' : 'vertical';
      expect(cures[0]).toMatchObject({ kind: 'distance', a: ORIGIN, direction });
    }
    const near: Entities = {
      ...away,
      p: point(0.05, 0.04),
      q: point(40.05, 0.04),
      r: point(40.05, 20.04),
      s: point(0.05, 20.04),
    };
    const [cure] = firstCures(near, sized, { w: 40, h: 20 });
    expect(cure!.cures[0]).toMatchObject({ kind: 'coincident' });
  });

  test('a line that nearly stands upright is offered to stand upright first', () => {
    const [turning] = firstCures(
      { a: point(0, 0), b: point(0.04, 30), l: line('a', 'b') },
      {
        o: { kind: 'coincident', a: 'a', b: ORIGIN },
        d: { kind: 'distance', a: 'a', b: 'b', direction: 'aligned', sense: 1, value: '30' },
      },
      { d: 30 },
    );
    expect(turning!.cures.slice(0, 3).map(({ kind }) => kind)).toContain('vertical');
  });

  test('each cure that is offered takes a freedom away (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = randomFrom(seed);
        const b = new FigureBuilder((prefix) => `${prefix}${++ids}`);
        const at = (): Vec2 => [60 * random() - 30, 60 * random() - 30];
        const [p, q] = [at(), at()];
        straightSlot(b, [b.place(p), p], [b.place(q), q], 2 + 3 * random());
        const before = solveSketch(b.entities, b.relations, sizes({}));
        const motion = before.motions[Math.floor(random() * before.motions.length)]!;
        const [cure] = curesOf(before.geometry, Object.values(b.relations), motion, write);
        const after = solveSketch(
          before.geometry.entities,
          { ...b.relations, cure: cure! },
          sizes(isSized(cure!) ? { cure: Number(cure.value) } : {}),
        );
        expect(after.state).not.toBe('clashing');
        expect(after.freedoms).toBeLessThan(before.freedoms);
      }),
      { numRuns: 25 },
    );
  });
});

describe('settle the rest', () => {
  const builder = () => new FigureBuilder((prefix) => `${prefix}${++ids}`);
  test.each<[string, (b: FigureBuilder) => void]>([
    ['a rectangle', (b) => rectangle(b, [10, 12], [50, 40])],
    ['a polygon', (b) => polygon(b, [b.place([20, 5]), [20, 5]], [33, 9], 6)],
    ['a slot', (b) => straightSlot(b, [b.place([8, 9]), [8, 9]], [b.place([40, 21]), [40, 21]], 5)],
    [
      'a rough chain',
      (b) => {
        const points = [
          [3, 2],
          [40, 5],
          [44, 31],
          [20, 22],
        ].map((at) => b.place(at as unknown as Vec2));
        points.forEach((from, k) => b.line(from, points[(k + 1) % 4]!));
      },
    ],
  ])('%s: nothing stays free, nothing clashes, nothing is told twice, nothing moves', (_, make) => {
    const b = builder();
    make(b);
    const before = solveSketch(b.entities, b.relations, sizes({}));
    const added = settleAll(b.entities, b.relations, sizes({}), tools);
    const numbers = Object.entries(added).flatMap(([id, relation]) =>
      isSized(relation) ? [[id, Number(relation.value)] as const] : [],
    );
    const after = solveSketch(b.entities, { ...b.relations, ...added }, new Map(numbers));
    expect(after.state).toBe('settled');
    expect(after.redundant).toEqual([]);
    // no more than one for each freedom
    expect(Object.keys(added).length).toBeLessThanOrEqual(before.freedoms);
    for (const [id, entity] of Object.entries(b.entities))
      if (entity.kind === 'point')
        after.geometry
          .point(id)
          .forEach((c, k) => expect(Math.abs(c - before.geometry.point(id)[k]!)).toBeLessThan(0.7));
  });
});

describe('told twice', () => {
  test('a size that agrees is harmless and named with what says the same', () => {
    const relations: Relations = {
      ...sized,
      ...atOrigin,
      again: { kind: 'distance', a: 's', b: 'r', direction: 'horizontal', sense: 1, value: '40' },
    };
    const { state, redundant } = solveSketch(quadrangle, relations, sizes({ w: 40, h: 20, again: 40 }));
    expect(state).toBe('settled');
    expect(redundant).toHaveLength(1);
    expect(redundant[0]).toContain('again');
    expect(redundant[0]).toContain('w');
    expect(redundant[0]).not.toContain('h');
  });

  test('a parallelogram whose second pair of parallels follows from right angles', () => {
    const relations: Relations = {
      a: { kind: 'perpendicular', a: 'l1', b: 'l2' },
      b: { kind: 'perpendicular', a: 'l2', b: 'l3' },
      c: { kind: 'parallel', a: 'l1', b: 'l3' },
    };
    const { redundant } = solveSketch(quadrangle, relations, sizes({}));
    expect(redundant.map((set) => [...set].sort())).toEqual([['a', 'b', 'c']]);
  });

  test('each of a set may go: the freedoms stay the same', () => {
    const relations: Relations = { ...levels, twice: { kind: 'parallel', a: 'l1', b: 'l3' } };
    const { redundant, freedoms } = solveSketch(quadrangle, relations, sizes({}));
    expect(redundant).toHaveLength(1);
    for (const id of redundant[0]!) {
      const fewer = Object.fromEntries(Object.entries(relations).filter(([other]) => other !== id));
      expect(solveSketch(quadrangle, fewer, sizes({})).freedoms).toBe(freedoms);
    }
  });
});

test('sentences name what they speak of, counted by kind', () => {
  const entities: Entities = { ...quadrangle, m: point(3, 3), k: circle('m', 2) };
  const nameOf = entityNames(entities);
  expect(relationSentence({ kind: 'parallel', a: 'l1', b: 'l3' }, nameOf)).toBe('line 1 and line 3 are parallel');
  expect(relationSentence({ kind: 'diameter', circle: 'k', value: '4 mm' }, nameOf)).toBe(
    'circle 1 measures across 4 mm',
  );
  expect(relationSentence({ kind: 'coincident', a: 'm', b: ORIGIN }, nameOf)).toBe(
    'point 5 and the origin lie on each other',
  );
  const { motions } = solveSketch({ m: point(1, 2), k: circle('m', 2) }, {}, sizes({}));
  const words = motions.map((motion) => motionSentence(motion, nameOf)).sort();
  expect(words).toEqual(['circle 1 can grow', 'circle 1 can slide sideways', 'circle 1 can slide up and down']);
  expect(relationKind('parallel').words).toBe('are parallel');
});
