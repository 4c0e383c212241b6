import { nearestInPolyhedron, rangeSplit, randomFrom, inner, norm } from './index.ts';

const random = randomFrom(7);
const some = (n: number) => Float64Array.from({ length: n }, () => 2 * random() - 1);

test('the nearest place of a polyhedron is where nothing pulls and nothing is violated (Karush, Kuhn, Tucker)', () => {
  for (let k = 0; k < 300; k++) {
    const [n, m] = [1 + (k % 6), 1 + (k % 9)];
    const inside = some(n);
    // all of them hold at one place: it is not empty; some are told twice
    const halfSpaces = Array.from({ length: m }, () => some(n)).map((along) => ({
      along,
      least: inner(along, inside) - 0.3 * random(),
    }));
    if (m > 2) halfSpaces.push(halfSpaces[0]!);
    const from = some(n).map((c) => 3 * c);
    const { at, pushes } = nearestInPolyhedron(from, halfSpaces)!;
    halfSpaces.forEach(({ along, least }, i) => {
      const slack = inner(along, at) - least;
      expect(slack).toBeGreaterThan(-1e-9);
      expect(pushes[i]!).toBeGreaterThanOrEqual(-1e-12);
      expect(pushes[i]! * slack).toBeCloseTo(0, 8);
    });
    const pushed = from.map((c, i) => c + halfSpaces.reduce((sum, { along }, h) => sum + pushes[h]! * along[i]!, 0));
    expect(norm(pushed.map((c, i) => c - at[i]!))).toBeLessThan(1e-9);
  }
});

test('an empty polyhedron has no nearest place', () => {
  const up = Float64Array.of(0, 1);
  const down = Float64Array.of(0, -1);
  expect(
    nearestInPolyhedron(Float64Array.of(3, 3), [
      { along: up, least: 1 },
      { along: down, least: 0.5 },
    ]),
  ).toBeUndefined();
  expect(nearestInPolyhedron(Float64Array.of(3, 3), [{ along: Float64Array.of(0, 0), least: 1 }])).toBeUndefined();
});

test('rows are split into what they tell and what they leave, also where some say it twice', () => {
  for (let k = 0; k < 100; k++) {
    const n = 2 + (k % 8);
    const rows = Array.from({ length: 1 + (k % n) }, () => some(n));
    const twice = rows.length > 1 ? [rows[0]!.map((c, i) => 2 * c - rows[1]![i]!)] : [];
    const all = [...rows, ...twice];
    const { rank, free, particular } = rangeSplit(all, n);
    expect(rank + free.length).toBe(n);
    expect(rank).toBe(Math.min(rows.length, n));
    const wanted = some(n);
    const found = particular(all.map((row) => inner(row, wanted)));
    for (const row of all) {
      expect(inner(row, found)).toBeCloseTo(inner(row, wanted), 9);
      for (const way of free) expect(inner(row, way)).toBeCloseTo(0, 10);
    }
    for (const way of free) expect(inner(way, found)).toBeCloseTo(0, 10);
    free.forEach((one, i) => free.forEach((other, j) => expect(inner(one, other)).toBeCloseTo(i === j ? 1 : 0, 10)));
  }
});
