import fc from 'fast-check';
import { Span } from './index.ts';

const row = (...by: number[]) => ({ at: [...by.keys()], by });

test('rows that say something new are taken, sums of others are not', () => {
  const span = new Span(4);
  expect(
    [row(1, 0, 0, 0), row(1, 1, 0, 0), row(3, 2, 0, 0), row(0, 0, 0, 0), row(1e-9, 0, 1e-9, 0)].map((r) => span.add(r)),
  ).toEqual([true, true, false, false, false]);
  expect(span.rank).toBe(2);
  expect(span.says(row(0, 5, 0, 0))).toBe(true);
  expect(span.says(row(0, 0, 1, 0))).toBe(false);
  // 2 x the second less the first
  expect(span.sumOf(row(1, 2, 0, 0))).toEqual([0, 1]);
  expect(span.sumOf(row(2, 2, 0, 0))).toEqual([1]);
  expect(span.freedomOf(1)).toBeCloseTo(0, 9);
  expect(span.freedomOf(3)).toBeCloseTo(1, 9);
});

test('a copy goes its own way', () => {
  const span = new Span(2);
  span.add(row(1, 0));
  const other = span.copy();
  other.add(row(0, 1));
  expect([span.rank, other.rank]).toEqual([1, 2]);
});

test('the rank does not depend on the order, and every sum of the rows is said', () => {
  const rows = fc.array(fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 6, maxLength: 6 }), { maxLength: 9 });
  fc.assert(
    fc.property(rows, fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 9, maxLength: 9 }), (all, weights) => {
      const of = (list: number[][]) => {
        const span = new Span(6);
        list.forEach((entries) => span.add(row(...entries)));
        return span;
      };
      const span = of(all);
      expect(of([...all].reverse()).rank).toBe(span.rank);
      const sum = Array.from({ length: 6 }, (_, k) => all.reduce((s, r, i) => s + weights[i]! * r[k]!, 0));
      expect(span.says(row(...sum))).toBe(true);
    }),
  );
});
