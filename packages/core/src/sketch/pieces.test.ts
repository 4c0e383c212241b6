import fc from 'fast-check';
import { distance2, type Vec2 } from '../math/index.ts';
import {
  along,
  arcBetween,
  areaShare,
  crossings,
  fullCircle,
  lengthOf,
  meetings,
  nearestOn,
  polyline,
  reversed,
  type Piece,
} from './pieces.ts';

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
      for (const { t, u } of meetings(p, q, 1e-6)) expect(distance2(along(p, t), along(q, u))).toBeLessThan(1e-5);
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
])('%s', (_, p, q, count) => expect(meetings(p, q, 1e-6)).toHaveLength(count));

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
