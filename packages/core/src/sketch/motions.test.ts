import {
  FigureBuilder,
  ORIGIN,
  played,
  polygon,
  solveSketch,
  straightSlot,
  X_AXIS,
  type Entities,
  type Relations,
} from './index.ts';
import { aligned, circle, line, point, quadrangle, rectangle, sizes } from './test-scene.ts';

const motions = (entities: Entities, relations: Relations, values: Record<string, number> = {}) =>
  solveSketch(entities, relations, sizes(values)).motions;

test('a circle hung by its centre can only grow', () => {
  const entities: Entities = { m: point(0, 0), k: circle('m', 5) };
  expect(motions(entities, { o: { kind: 'coincident', a: 'm', b: ORIGIN } })).toMatchObject([
    { look: 'grow', entities: ['k'], places: { k: [1] } },
  ]);
});

test('a circle of fixed size slides level and upright', () => {
  const entities: Entities = { m: point(3, 4), k: circle('m', 5) };
  const found = motions(entities, { r: { kind: 'radius', circle: 'k', value: '5' } }, { r: 5 });
  expect(found.map(({ look, entities: ids, direction }) => [look, ids, direction!.map(Math.abs)])).toEqual(
    expect.arrayContaining([
      ['slide', ['k'], [1, 0]],
      ['slide', ['k'], [0, 1]],
    ]),
  );
});

test('an arm of fixed length on a pin turns', () => {
  const entities: Entities = { a: point(0, 0), b: point(8, 3), e: line('a', 'b') };
  const relations: Relations = { o: { kind: 'coincident', a: 'a', b: ORIGIN }, d: aligned('a', 'b') };
  const [motion] = motions(entities, relations, { d: Math.hypot(8, 3) });
  // one moving point alone can't tell a turn from a slide: it goes square on the arm
  expect(motion!.entities).toEqual(['e']);
  const [x, y] = motion!.places['b'] as [number, number];
  expect(8 * x + 3 * y).toBeCloseTo(0, 6);
});

test('a rigid triangle on a pin turns about it', () => {
  const entities: Entities = {
    a: point(0, 0),
    b: point(8, 0.5),
    c: point(3, 6),
    e: line('a', 'b'),
    f: line('b', 'c'),
    g: line('c', 'a'),
  };
  const relations: Relations = {
    o: { kind: 'coincident', a: 'a', b: ORIGIN },
    d: aligned('a', 'b'),
    h: aligned('b', 'c'),
    i: aligned('c', 'a'),
  };
  expect(motions(entities, relations, { d: 8, h: 7.5, i: 6.5 })).toMatchObject([
    { look: 'turn', entities: ['e', 'f', 'g'] },
  ]);
});

test('a rectangle: four motions, each of one side', () => {
  const found = motions(quadrangle, rectangle);
  expect(found.map(({ look }) => look)).toEqual(['slide', 'slide', 'slide', 'slide']);
  expect(found.map(({ places }) => Object.keys(places).length)).toEqual([2, 2, 2, 2]);
});

test('two points kept symmetric about an upright line spread along X, and slide along Y', () => {
  const entities: Entities = { p: point(-4, 3), q: point(4, 3), e: line('p', 'q') };
  const found = motions(entities, { s: { kind: 'symmetric', a: 'p', b: 'q', axis: 'y-axis' } });
  expect(found.map(({ look, direction }) => [look, ...direction!.map((c) => Math.round(Math.abs(c)))]).sort()).toEqual([
    ['slide', 0, 1],
    ['spread', 1, 0],
  ]);
});

test('as many motions as freedoms, none for a settled sketch', () => {
  const entities: Entities = { m: point(3, 4), k: circle('m', 5) };
  const relations: Relations = {
    x: { kind: 'tangent', circle: 'k', to: X_AXIS, side: 1 },
    y: { kind: 'tangent', circle: 'k', to: 'y-axis', side: -1 },
  };
  expect(motions(entities, relations)).toMatchObject([{ look: 'change' }]);
  expect(motions(entities, { ...relations, r: { kind: 'radius', circle: 'k', value: '5' } }, { r: 5 })).toEqual([]);
});

test('playing moves what the motion moves, by as much as is asked, and nothing else', () => {
  const entities: Entities = { m: point(0, 0), k: circle('m', 5), p: point(9, 9) };
  const relations: Relations = {
    o: { kind: 'coincident', a: 'm', b: ORIGIN },
    f: { kind: 'fixed', entity: 'p', at: [9, 9] },
  };
  const [motion] = motions(entities, relations);
  expect(played(entities, motion!, 2)).toEqual({ ...entities, k: circle('m', 7) });
});

test.each<[string, (b: FigureBuilder) => void, string[]]>([
  [
    'a slot',
    (b) => straightSlot(b, [b.place([5, 6]), [5, 6]], [b.place([30, 21]), [30, 21]], 4),
    ['grow', 'slide', 'slide', 'turn'],
  ],
  ['a polygon', (b) => polygon(b, [b.place([5, 6]), [5, 6]], [20, 9], 6), ['grow', 'slide', 'slide', 'turn']],
])('%s as a whole slides, turns and grows before anything else is told', (_, make, looks) => {
  const b = new FigureBuilder(
    (
      (k) => (prefix: string) =>
        `${prefix}${++k}`
    )(0),
  );
  make(b);
  const { motions, freedoms } = solveSketch(b.entities, b.relations, sizes({}));
  expect(motions).toHaveLength(freedoms);
  expect(
    motions
      .slice(0, 4)
      .map(({ look }) => look)
      .sort(),
  ).toEqual(looks);
});
