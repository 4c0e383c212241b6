import fc from 'fast-check';
import { TripleTable } from './triple-table.ts';

test('each triple has one number, in the order in which they come', () => {
  const int = fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 });
  const near = fc.integer({ min: -3, max: 3 });
  const triple = fc.oneof(fc.tuple(near, near, near), fc.tuple(int, int, int));
  fc.assert(
    fc.property(fc.array(triple, { maxLength: 200 }), (triples) => {
      const table = new TripleTable();
      const known = new Map<string, number>();
      for (const [i, j, k] of triples) {
        const key = `${i} ${j} ${k}`;
        if (!known.has(key)) known.set(key, known.size);
        expect(table.numberOf(i, j, k)).toBe(known.get(key));
        expect(table.size).toBe(known.size);
      }
    }),
  );
});

test('so it is when there are many of them', () => {
  const table = new TripleTable();
  const side = 30;
  const numbers = () =>
    Array.from({ length: side ** 3 }, (_, n) =>
      table.numberOf(n % side, Math.floor(n / side) % side, -Math.floor(n / side ** 2)),
    );
  expect(numbers()).toEqual(Array.from({ length: side ** 3 }, (_, n) => n));
  expect(numbers().at(-1)).toBe(side ** 3 - 1);
  expect(table.size).toBe(side ** 3);
});
