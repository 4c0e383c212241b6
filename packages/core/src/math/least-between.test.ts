import fc from 'fast-check';
import { leastBetween } from './least-between.ts';

test.each<[string, (x: number) => number, number]>([
  ['a parabola', (x) => (x - 0.3) ** 2, 0.3],
  ['a corner', (x) => Math.abs(x - 0.71), 0.71],
  ['a cosine', (x) => Math.cos(3 * x), Math.PI / 3],
  ['what only falls', (x) => -x, 2],
  ['what only grows', (x) => x ** 3, -1],
])('%s', (_, of, at) => {
  const found = leastBetween(-1, 2, of, 1e-8);
  expect(found.x).toBeCloseTo(at, 6);
  expect(found.value).toBe(of(found.x));
});

test('of a valley the bottom is found in few steps, and nothing is asked outside', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.9, max: 0.9, noNaN: true }),
      fc.double({ min: 0.1, max: 5, noNaN: true }),
      (at, k) => {
        let asked = 0;
        const of = (x: number) => {
          asked++;
          expect(Math.abs(x)).toBeLessThanOrEqual(1);
          return Math.cosh(k * (x - at));
        };
        expect(Math.abs(leastBetween(-1, 1, of, 1e-7).x - at)).toBeLessThan(1e-6 + 2e-8 / k);
        expect(asked).toBeLessThan(50);
      },
    ),
  );
});
