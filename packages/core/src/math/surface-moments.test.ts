import fc from 'fast-check';
import { gaussLegendre, KRONROD_15 } from './quadrature.ts';
import { solidMoments, triangleMoments } from './surface-moments.ts';
import { add3, cross3, dot3, scale3, sub3, type Vec3 } from './vector.ts';

const FACES = [
  [0, 2, 1],
  [0, 1, 3],
  [1, 2, 3],
  [2, 0, 3],
];
const around = (corners: readonly Vec3[]) => new Float32Array(corners.flat());
const place = fc.tuple(
  fc.integer({ min: -40, max: 40 }),
  fc.integer({ min: -40, max: 40 }),
  fc.integer({ min: -40, max: 40 }),
);

test('a tetrahedron anywhere: volume, centre, and how long it is each way', () => {
  fc.assert(
    fc.property(place, place, place, place, (a, b, c, d) => {
      const six = dot3(cross3(sub3(b, a), sub3(c, a)), sub3(d, a));
      fc.pre(six > 1);
      const corners = [a, b, c, d];
      const mesh = triangleMoments(around(corners), new Uint32Array(FACES.flat()), 0);
      const { volume, centre, uncertainty } = solidMoments([mesh]);
      const middle = scale3(
        corners.reduce<Vec3>((sum, corner) => add3(sum, corner), [0, 0, 0]),
        1 / 4,
      );
      expect(volume / (six / 6)).toBeCloseTo(1, 9);
      centre.forEach((c, k) => expect(c).toBeCloseTo(middle[k]!, 6));
      expect(uncertainty.volume).toBeLessThan(1e-7 * (1 + volume));
    }),
  );
});

test('a face that is missing shows: the three ways do not agree', () => {
  const corners: Vec3[] = [
    [0, 0, 0],
    [30, 0, 0],
    [0, 20, 0],
    [0, 0, 10],
  ];
  const without = (k: number) =>
    triangleMoments(around(corners), new Uint32Array(FACES.filter((_, n) => n !== k).flat()), 0);
  for (const k of [0, 1, 2, 3]) {
    const { volume, uncertainty } = solidMoments([without(k)]);
    expect(uncertainty.volume).toBeGreaterThan(0.2 * volume);
  }
});

test('pieces are put together about any place: two halves of a block far out', () => {
  const box = (from: Vec3, size: Vec3) => {
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((k): Vec3 => [
      from[0] + (k & 1) * size[0],
      from[1] + ((k >> 1) & 1) * size[1],
      from[2] + (k >> 2) * size[2],
    ]);
    const quads = [
      [0, 2, 3, 1],
      [4, 5, 7, 6],
      [0, 1, 5, 4],
      [2, 6, 7, 3],
      [0, 4, 6, 2],
      [1, 3, 7, 5],
    ];
    const triangles = quads.flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]);
    return quads.map((_, k) => triangleMoments(around(corners), new Uint32Array(triangles.slice(6 * k, 6 * k + 6)), 0));
  };
  const far = 4096;
  const { volume, centre, area } = solidMoments([
    ...box([far, far, 0], [8, 4, 2]),
    ...box([far + 8, far, 0], [8, 4, 2]),
  ]);
  expect(volume).toBeCloseTo(128, 8);
  expect(area).toBeCloseTo(2 * 112, 8);
  [far + 8, far + 2, 1].forEach((c, k) => expect(centre[k]).toBeCloseTo(c, 8));
});

test('Gauss is exact up to its degree, Kronrod beyond the Gauss rule that it holds', () => {
  const integral = (rule: { nodes: readonly number[] }, weights: readonly number[], power: number) =>
    rule.nodes.reduce((sum, x, k) => sum + weights[k]! * x ** power, 0);
  for (const n of [1, 2, 3, 5, 12, 24])
    for (let power = 0; power < 2 * n; power++) {
      const rule = gaussLegendre(n);
      expect(integral(rule, rule.weights, power)).toBeCloseTo(power % 2 ? 0 : 2 / (power + 1), 13);
    }
  for (let power = 0; power <= 22; power++)
    expect(integral(KRONROD_15, KRONROD_15.weights, power)).toBeCloseTo(power % 2 ? 0 : 2 / (power + 1), 13);
  for (let power = 0; power <= 13; power++)
    expect(integral(KRONROD_15, KRONROD_15.gauss, power)).toBeCloseTo(power % 2 ? 0 : 2 / (power + 1), 13);
});
