import fc from 'fast-check';
import { findFlaws } from '../advice/index.ts';
import { findRegions, ORIGIN, solveSketch, type Entities, type Relations, type SketchSolution } from '../index.ts';
import { aligned, circle, line, point, sizes } from '../test-scene.ts';

/** Two wheels, and lines with their ends on both rims that are made to touch them; roughly drawn. */
function belt(r: number, s: number, apart: number, turn: number, rough: readonly number[], crossed = false) {
  const [c, n] = [Math.cos(turn), Math.sin(turn)];
  const at = (x: number, y: number, k: number) =>
    point(x * c - y * n + rough[k % rough.length]!, x * n + y * c + rough[(k + 1) % rough.length]!);
  const other = crossed ? -1 : 1;
  const entities: Entities = {
    a: point(0, 0),
    b: at(apart, 0, 8),
    o: circle('a', r),
    q: circle('b', s),
    p1: at(0, r, 0),
    p2: at(apart, other * s, 2),
    p3: at(0, -r, 4),
    p4: at(apart, -other * s, 6),
    l1: line('p1', 'p2'),
    l2: line('p3', 'p4'),
  };
  const relations: Relations = {
    z: { kind: 'coincident', a: 'a', b: ORIGIN },
    d: aligned('a', 'b'),
    ro: { kind: 'radius', circle: 'o', value: '1' },
    rq: { kind: 'radius', circle: 'q', value: '1' },
    e1: { kind: 'coincident', a: 'p1', b: 'o' },
    e2: { kind: 'coincident', a: 'p2', b: 'q' },
    e3: { kind: 'coincident', a: 'p3', b: 'o' },
    e4: { kind: 'coincident', a: 'p4', b: 'q' },
    t1: { kind: 'tangent', circle: 'o', to: 'l1', side: -1 },
    t2: { kind: 'tangent', circle: 'q', to: 'l1', side: crossed ? 1 : -1 },
    t3: { kind: 'tangent', circle: 'o', to: 'l2', side: 1 },
    t4: { kind: 'tangent', circle: 'q', to: 'l2', side: crossed ? -1 : 1 },
  };
  return solveSketch(entities, relations, sizes({ d: apart, ro: r, rq: s }));
}

const found = ({ geometry }: SketchSolution) => {
  const regions = findRegions(geometry);
  return {
    ...regions,
    flaws: findFlaws(geometry, regions),
    total: regions.regions.reduce((sum, { area }) => sum + area, 0),
  };
};

/** Two discs and what the belt encloses beside them, by the textbook. */
function beltArea(r: number, s: number, apart: number): number {
  const lean = Math.asin((r - s) / apart);
  const straight = Math.sqrt(apart ** 2 - (r - s) ** 2);
  return straight * (r + s) + r ** 2 * (Math.PI / 2 + lean) + s ** 2 * (Math.PI / 2 - lean);
}

const rough = fc.array(fc.double({ min: -1.5, max: 1.5, noNaN: true }), { minLength: 10, maxLength: 10 });

test('a belt over two wheels has three areas and no flaw, however roughly it was drawn', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 6, max: 40, noNaN: true }),
      fc.double({ min: 6, max: 40, noNaN: true }),
      fc.double({ min: 1.3, max: 4, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      rough,
      (r, s, far, turn, off) => {
        const apart = (r + s) * far;
        const solution = belt(r, s, apart, turn, off);
        fc.pre(solution.state !== 'clashing');
        const { regions, openEnds, flaws, total } = found(solution);
        expect(openEnds).toEqual([]);
        expect(flaws).toEqual([]);
        expect(regions).toHaveLength(3);
        expect(total / beltArea(r, s, apart)).toBeCloseTo(1, 6);
      },
    ),
    { numRuns: 150 },
  );
});

test('a crossed belt has four', () => {
  const solution = belt(22, 18, 90, 0.3, [0.2, -0.4, 0.5], true);
  const { regions, openEnds, flaws } = found(solution);
  expect([solution.state === 'clashing', openEnds, flaws, regions.length]).toEqual([false, [], [], 4]);
});

test('a belt of two chains, 22 and 18: an outer one about each wheel with arcs, and the wheels', () => {
  const r = 22;
  const s = 18;
  const drawn = (grown: number, name: string): { entities: Entities; relations: Relations } => ({
    entities: {
      [`${name}1`]: point(1, r + grown),
      [`${name}2`]: point(91, s + grown + 1),
      [`${name}3`]: point(89, -s - grown),
      [`${name}4`]: point(-1, -r - grown - 1),
      [`${name}l1`]: line(`${name}1`, `${name}2`),
      [`${name}l2`]: line(`${name}3`, `${name}4`),
      [`${name}a1`]: { kind: 'arc', centre: 'a', a: `${name}1`, b: `${name}4`, radius: r + grown },
      [`${name}a2`]: { kind: 'arc', centre: 'b', a: `${name}3`, b: `${name}2`, radius: s + grown },
    },
    relations: {
      [`${name}r1`]: { kind: 'radius', circle: `${name}a1`, value: '1' },
      [`${name}r2`]: { kind: 'radius', circle: `${name}a2`, value: '1' },
      [`${name}t1`]: { kind: 'tangent', circle: `${name}a1`, to: `${name}l1`, side: -1 },
      [`${name}t2`]: { kind: 'tangent', circle: `${name}a2`, to: `${name}l1`, side: -1 },
      [`${name}t3`]: { kind: 'tangent', circle: `${name}a2`, to: `${name}l2`, side: -1 },
      [`${name}t4`]: { kind: 'tangent', circle: `${name}a1`, to: `${name}l2`, side: -1 },
    },
  });
  const [inner, outer] = [drawn(0, 'i'), drawn(3, 'u')];
  const solution = solveSketch(
    { a: point(0, 0), b: point(90, 0), o: circle('a', r), q: circle('b', s), ...inner.entities, ...outer.entities },
    {
      z: { kind: 'coincident', a: 'a', b: ORIGIN },
      d: aligned('a', 'b'),
      h: { kind: 'horizontal', a: 'a', b: 'b' },
      ro: { kind: 'radius', circle: 'o', value: '1' },
      rq: { kind: 'radius', circle: 'q', value: '1' },
      ...inner.relations,
      ...outer.relations,
    },
    sizes({ d: 90, ro: r, rq: s, ir1: r, ir2: s, ur1: r + 3, ur2: s + 3 }),
  );
  const { regions, openEnds, total } = found(solution);
  expect([solution.state, openEnds]).toEqual(['settled', []]);
  // two wheels, what the inner chain encloses between them, and the belt itself
  expect(regions).toHaveLength(4);
  expect(total).toBeCloseTo(beltArea(r + 3, s + 3, 90), 3);
});

test('lines that touch an ellipse and a spline with their ends on them close an area', () => {
  const entities: Entities = {
    m: point(0, 0),
    t: point(30, 0),
    e: { kind: 'ellipse', centre: 'm', tip: 't', minor: 14 },
    p: point(4, 14.5),
    q: point(60, 20),
    w: point(5, -14),
    l1: line('p', 'q'),
    l2: line('q', 'w'),
  };
  const relations: Relations = {
    f1: { kind: 'fixed', entity: 'm', at: [0, 0] },
    f2: { kind: 'fixed', entity: 't', at: [30, 0] },
    f3: { kind: 'fixed', entity: 'q', at: [60, 20] },
    c1: { kind: 'coincident', a: 'p', b: 'e' },
    c2: { kind: 'coincident', a: 'w', b: 'e' },
    t1: { kind: 'tangent', circle: 'e', to: 'l1', side: -1 },
    t2: { kind: 'tangent', circle: 'e', to: 'l2', side: -1 },
  };
  const solution = solveSketch(entities, relations, sizes({}));
  const { regions, openEnds, flaws } = found(solution);
  expect([solution.state === 'clashing', openEnds, flaws, regions.length]).toEqual([false, [], [], 2]);
});
