import fc from 'fast-check';
import { endToEnd, type Pair } from './end-to-end.ts';

test('an open way from end to end, a ring back to where it began', () => {
  expect(
    endToEnd([
      [2, 3],
      [1, 2],
      [4, 3],
    ]),
  ).toEqual([[1, 2, 3, 4]]);
  const [ring] = endToEnd([
    [1, 2],
    [3, 1],
    [2, 3],
  ]);
  expect(ring).toHaveLength(4);
  expect(ring!.at(-1)).toBe(ring![0]);
  expect(endToEnd([])).toEqual([]);
});

test('where more than two meet, ways end; each pair is gone once', () => {
  const point = fc.integer({ min: 0, max: 12 });
  const pair = fc.tuple(point, point).filter(([a, b]) => a !== b);
  const key = ([a, b]: Pair) => `${Math.min(a, b)} ${Math.max(a, b)}`;
  fc.assert(
    fc.property(fc.array(pair, { maxLength: 30 }), (pairs) => {
      const ways = endToEnd(pairs);
      const gone = ways.flatMap((way) => way.slice(1).map((to, k) => key([way[k]!, to])));
      expect(gone.sort()).toEqual(pairs.map(key).sort());
      const degree = (at: number) => pairs.filter((one) => one.includes(at)).length;
      for (const way of ways) for (const inner of way.slice(1, -1)) expect(degree(inner)).toBe(2);
    }),
  );
});
