import fc from 'fast-check';
import { distance2, type Vec2 } from '../../math/index.ts';
import {
  along,
  arcBetween,
  areaShare,
  crossings,
  ellipseBetween,
  fullCircle,
  fullEllipse,
  lengthOf,
  intersections,
  nearestOn,
  onEllipse,
  polyline,
  fromQuadratic,
  reversed,
  stretch,
  type Piece,
} from './index.ts';

const segment = (from: Vec2, to: Vec2): Piece => ({ form: 'segment', entity: 's', from, to });
const number = fc.double({ min: -20, max: 20, noNaN: true });
const place = fc.tuple(number, number) as fc.Arbitrary<Vec2>;
const piece: fc.Arbitrary<Piece> = fc.oneof(
  fc
    .tuple(place, place)
    .filter(([a, b]) => distance2(a, b) > 0.1)
    .map(([a, b]) => segment(a, b)),
  fc.tuple(place, fc.double({ min: 0.5, max: 9, noNaN: true }), number, number).map(([centre, radius, a, b]) => {
    const at = (angle: number): Vec2 => [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
    return arcBetween('a', centre, radius, at(a), at(b));
  }),
  fc
    .tuple(place, place, fc.double({ min: 1, max: 9, noNaN: true }), number, number)
    .filter(([centre, tip]) => distance2(centre, tip) > 1)
    .map(([centre, tip, minor, a, b]) => {
      const whole = fullEllipse('e', centre, tip, minor);
      return ellipseBetween('e', [centre, tip, minor], onEllipse(whole, a), onEllipse(whole, b));
    })
    .filter(({ sweep }) => sweep > 0.01),
  fc
    .tuple(place, place, place, place)
    .filter(([from, , , to]) => distance2(from, to) > 0.5)
    .map(([from, p, q, to]): Piece => ({ form: 'bezier', entity: 'b', from, to, inner: [p, q] })),
);

test('reversed twice is the same piece; its share of the area changes sign (property)', () => {
  fc.assert(
    fc.property(piece, (p) => {
      expect(areaShare(reversed(p))).toBeCloseTo(-areaShare(p), 6);
      expect(along(reversed(reversed(p)), 0.3).map((c) => c.toFixed(6))).toEqual(
        along(p, 0.3).map((c) => c.toFixed(6)),
      );
      expect(lengthOf(reversed(p))).toBeCloseTo(lengthOf(p), 9);
    }),
  );
});

test('the nearest place is on the piece and no sampled place is nearer (property)', () => {
  fc.assert(
    fc.property(piece, place, (p, at) => {
      const least = distance2(nearestOn(p, at), at);
      for (const sample of polyline(p)) expect(least).toBeLessThanOrEqual(distance2(sample, at) + 1e-9);
    }),
  );
});

test('where two pieces meet, the place is the same on both, within the tolerance (property)', () => {
  fc.assert(
    fc.property(piece, piece, (p, q) => {
      for (const { t, u } of intersections(p, q, 1e-6)) expect(distance2(along(p, t), along(q, u))).toBeLessThan(1e-5);
    }),
  );
});

test.each<[string, Piece, Piece, number]>([
  ['crossing lines', segment([0, 0], [2, 2]), segment([0, 2], [2, 0]), 1],
  ['lines end to end', segment([0, 0], [2, 2]), segment([2, 2], [5, 0]), 1],
  ['lines apart', segment([0, 0], [2, 2]), segment([3, 0], [5, 1]), 0],
  ['parallel lines', segment([0, 0], [2, 0]), segment([0, 1], [2, 1]), 0],
  ['a line through a circle', segment([-9, 0], [9, 0]), fullCircle('c', [0, 0], 5), 2],
  ['a line that touches a circle', segment([-9, 5], [9, 5]), fullCircle('c', [0, 0], 5), 1],
  ['a line inside a circle', segment([-1, 0], [1, 0]), fullCircle('c', [0, 0], 5), 0],
  ['two circles', fullCircle('a', [0, 0], 5), fullCircle('b', [6, 0], 5), 2],
  ['circles that touch from outside', fullCircle('a', [0, 0], 5), fullCircle('b', [8, 0], 3), 1],
  ['circles that touch from inside', fullCircle('a', [0, 0], 5), fullCircle('b', [2, 0], 3), 1],
  ['concentric circles', fullCircle('a', [0, 0], 5), fullCircle('b', [0, 0], 3), 0],
  ['the other half of a circle', segment([0, -9], [0, -1]), arcBetween('a', [0, 0], 5, [5, 0], [-5, 0]), 0],
])('%s', (_, p, q, count) => expect(intersections(p, q, 1e-6)).toHaveLength(count));

test('a closed loop is crossed an even number of times, with sign once around what lies inside (property)', () => {
  const lens = [arcBetween('a', [0, 0], 5, [3, -4], [3, 4]), arcBetween('b', [6, 0], 5, [3, 4], [3, -4])];
  fc.assert(
    fc.property(place, (at) => {
      const inside = Math.hypot(at[0], at[1]) < 5 && Math.hypot(at[0] - 6, at[1]) < 5;
      const winding = lens.reduce((sum, p) => sum + crossings(p, at), 0);
      expect(Math.abs(winding)).toBe(inside ? 1 : 0);
    }),
  );
});

test('the area of a full circle is pi r^2, of a half-disc half of it', () => {
  expect(areaShare(fullCircle('c', [7, -3], 4))).toBeCloseTo(16 * Math.PI, 9);
  const half = [arcBetween('a', [0, 0], 4, [4, 0], [-4, 0]), segment([-4, 0], [4, 0])];
  expect(half.reduce((sum, p) => sum + areaShare(p), 0)).toBeCloseTo(8 * Math.PI, 9);
});

const oval = fullEllipse('e', [0, 0], [5, 0], 3);
/** The parabola y = x^2 from -2 to 2. */
const parabola: Piece = {
  form: 'bezier',
  entity: 'b',
  from: [-2, 4],
  to: [2, 4],
  inner: fromQuadratic([-2, 4], [0, -4], [2, 4]),
};

test.each<[string, Piece, Piece, readonly Vec2[]]>([
  [
    'an ellipse and a line through its centre',
    oval,
    segment([-9, 0], [9, 0]),
    [
      [-5, 0],
      [5, 0],
    ],
  ],
  ['an ellipse and a line that touches it', oval, segment([-9, 3], [9, 3]), [[0, 3]]],
  ['an ellipse and a line beside it', oval, segment([-9, 3.01], [9, 3.01]), []],
  [
    'an ellipse and the circle over its axis',
    oval,
    fullCircle('c', [0, 0], 5),
    [
      [-5, 0],
      [5, 0],
    ],
  ],
  [
    'a parabola and a level line',
    parabola,
    segment([-9, 1], [9, 1]),
    [
      [-1, 1],
      [1, 1],
    ],
  ],
  ['a parabola and the tangent in its top', parabola, segment([-9, 0], [9, 0]), [[0, 0]]],
  [
    'a parabola and an ellipse that touches its top',
    parabola,
    fullEllipse('e', [0, 1], [2, 1], 1),
    [
      [-Math.sqrt(1.75), 1.75],
      [0, 0],
      [Math.sqrt(1.75), 1.75],
    ],
  ],
])('%s meet where algebra says', (_, p, q, expected) => {
  const found = intersections(p, q, 1e-6).map(({ t }) => along(p, t));
  const sorted = found.toSorted((a, b) => a[0] - b[0]);
  expect(sorted.length).toBe(expected.length);
  sorted.forEach((at, k) => expect(distance2(at, expected[k]!)).toBeLessThan(2e-6));
});

test('areas and lengths: the ellipse is pi a b, the parabola two thirds of its box', () => {
  expect(areaShare(oval)).toBeCloseTo(15 * Math.PI, 10);
  // Ramanujan's second approximation (1914) is good to 1e-6 here
  const h = (2 / 8) ** 2;
  expect(lengthOf(oval)).toBeCloseTo(Math.PI * 8 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h))), 5);
  expect(areaShare(parabola) + areaShare(segment([2, 4], [-2, 4]))).toBeCloseTo((2 / 3) * 16, 10);
});

test('a stretch of a curve is the same curve (property)', () => {
  fc.assert(
    fc.property(
      piece,
      fc.double({ min: 0, max: 0.4, noNaN: true }),
      fc.double({ min: 0.6, max: 1, noNaN: true }),
      (p, t0, t1) => {
        const part = stretch(p, t0, t1, along(p, t0), along(p, t1));
        for (const t of [0.25, 0.5, 0.9])
          expect(distance2(along(part, t), along(p, t0 + t * (t1 - t0)))).toBeLessThan(1e-9);
      },
    ),
  );
});
