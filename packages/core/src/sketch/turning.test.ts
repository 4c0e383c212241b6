import { findRegions, ORIGIN, solveSketch, X_AXIS, type Entities, type Relations } from './index.ts';
import { aligned, circle, line, point, sizes } from './test-scene.ts';

const DEGREE = Math.PI / 180;

/**
 * An arm about the origin: a plate with an ear on its left, a pin off its right side, a wedge on its end, and a rim that
 * touches two of its sides; drawn at 40 degrees.
 */
const drawn = 40;
const local = {
  a: [0, 0],
  b: [60, 0],
  c: [60, 12],
  d: [0, 12],
  ear: [20, 25],
  pin: [30, -9],
  tip: [75, 6],
  hub: [6, 6],
} as const;
const at = ([x, y]: readonly [number, number], angle: number): [number, number] => [
  x * Math.cos(angle * DEGREE) - y * Math.sin(angle * DEGREE),
  x * Math.sin(angle * DEGREE) + y * Math.cos(angle * DEGREE),
];
const entities: Entities = {
  ...Object.fromEntries(Object.entries(local).map(([id, place]) => [id, point(...at(place, drawn))])),
  far: point(40, 0),
  base: { kind: 'line', a: 'a', b: 'far', construction: true },
  l1: line('a', 'b'),
  l2: line('b', 'c'),
  l3: line('c', 'd'),
  l4: line('d', 'a'),
  e1: line('d', 'ear'),
  e2: line('ear', 'c'),
  t1: line('b', 'tip'),
  t2: line('tip', 'c'),
  o: circle('hub', 6),
};
const relations: Relations = {
  z: { kind: 'coincident', a: 'a', b: ORIGIN },
  ax: { kind: 'collinear', a: 'base', b: X_AXIS },
  fl: aligned('a', 'far'),
  p1: { kind: 'perpendicular', a: 'l1', b: 'l2' },
  p2: { kind: 'parallel', a: 'l1', b: 'l3' },
  p3: { kind: 'perpendicular', a: 'l1', b: 'l4' },
  w: aligned('a', 'b'),
  h: aligned('b', 'c'),
  ea: aligned('d', 'ear'),
  eb: aligned('ear', 'c'),
  pa: aligned('a', 'pin'),
  pb: aligned('pin', 'b'),
  ta: aligned('b', 'tip'),
  tb: aligned('tip', 'c'),
  t4: { kind: 'tangent', circle: 'o', to: 'l4', side: 1 },
  t1: { kind: 'tangent', circle: 'o', to: 'l1', side: 1 },
  r: { kind: 'radius', circle: 'o', value: '1' },
  turn: { kind: 'angle', a: 'base', b: 'l1', alongA: 1, alongB: 1, sense: 1, value: '1' },
};
const apart = (p: keyof typeof local, q: keyof typeof local) =>
  Math.hypot(local[p][0] - local[q][0], local[p][1] - local[q][1]);
const asked = (angle: number) =>
  sizes({
    ...{ fl: 40, w: 60, h: 12, r: 6, turn: angle * DEGREE },
    ...{ ea: apart('d', 'ear'), eb: apart('ear', 'c'), pa: apart('a', 'pin'), pb: apart('pin', 'b') },
    ...{ ta: apart('b', 'tip'), tb: apart('tip', 'c') },
  });

const ANGLES = [40, 15, 1, 0, -1, -25, -40, -90, -180, -359, 90, 179, 180, 181, 270, 359, 360, 400, 3640];

test.each(ANGLES)('at %d degrees all of an arm stands as it was drawn, only turned', (angle) => {
  const solution = solveSketch(entities, relations, asked(angle));
  expect(solution).toMatchObject({ state: 'settled', clash: [] });
  for (const [id, place] of Object.entries(local)) {
    const [x, y] = at(place, angle);
    const [px, py] = solution.geometry.point(id);
    expect([id, px, py]).toEqual([id, expect.closeTo(x, 6), expect.closeTo(y, 6)]);
  }
  // wedge, ear, rim and plate: the areas go along
  expect(findRegions(solution.geometry).regions).toHaveLength(
    findRegions(solveSketch(entities, relations, asked(40)).geometry).regions.length,
  );
});

test('walked one after the other, each from where the last one left it, it comes home', () => {
  let now = entities;
  for (const angle of [...ANGLES, ...ANGLES.toReversed()]) {
    const { state, geometry } = solveSketch(now, relations, asked(angle));
    expect([angle, state]).toEqual([angle, 'settled']);
    now = geometry.entities;
  }
  for (const [id, place] of Object.entries(local)) {
    const [x, y] = at(place, 40);
    expect(now[id]).toMatchObject({ x: expect.closeTo(x, 6) as number, y: expect.closeTo(y, 6) as number });
  }
});
