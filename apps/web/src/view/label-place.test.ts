import fc from 'fast-check';
import type { Vec2 } from '@helb/core';
import { labelPlace } from './label-place.ts';

const view = { width: 660, height: 756 };

test('a name stands where it usually does, if that is seen; else where its lines come into the view', () => {
  const frame: Vec2[] = [[-100, 200], [900, 200], [900, 200], [900, 600], [900, 600], [-100, 600], [-100, 600], [-100, 200]]; // prettier-ignore
  expect(labelPlace([30, 200], frame, view)).toEqual([30, 200]);
  expect(labelPlace([-100, 200], frame, view)).toEqual([0, 200]);
  // under the words at the upper edge
  expect(labelPlace([30, 4], [[30, 4], [30, 90]], view)).toEqual([30, 30]); // prettier-ignore
  expect(labelPlace([-100, 200], [[-100, 20], [900, 20]], view)).toBeUndefined(); // prettier-ignore
});

test('wherever a line lies: the place is on it and within the view, or none of it is', () => {
  const place = fc.tuple(fc.integer({ min: -2000, max: 2000 }), fc.integer({ min: -2000, max: 2000 }));
  fc.assert(
    fc.property(place, place, (from, to) => {
      const found = labelPlace([-1, -1], [from, to], view);
      const within = ([x, y]: Vec2) => x >= -1e-6 && x <= 588 + 1e-6 && y >= 30 - 1e-6 && y <= 682 + 1e-6;
      const along = Array.from({ length: 101 }, (_, k): Vec2 => [
        from[0] + (k / 100) * (to[0] - from[0]),
        from[1] + (k / 100) * (to[1] - from[1]),
      ]);
      if (!found) return expect(along.some(within)).toBe(false);
      const [u, v] = [to[0] - from[0], to[1] - from[1]];
      expect(within(found)).toBe(true);
      expect(Math.abs(u * (found[1] - from[1]) - v * (found[0] - from[0]))).toBeLessThan(1e-6 * (1 + u * u + v * v));
    }),
  );
});
