import fc from 'fast-check';
import { Geometry } from '../geometry.ts';
import type { Entity } from '../entities/index.ts';
import { filled, findRegions, resolveRegions } from './index.ts';

type Drawn = Record<string, Entity>;

/** A closed or open chain of lines through these places. */
function chain(name: string, places: readonly (readonly [number, number])[], closed = true): Drawn {
  const drawn: Drawn = {};
  places.forEach(([x, y], k) => (drawn[`${name}p${k}`] = { kind: 'point', x, y }));
  places.forEach((_, k) => {
    if (k === places.length - 1 && !closed) return;
    drawn[`${name}${k}`] = { kind: 'line', a: `${name}p${k}`, b: `${name}p${(k + 1) % places.length}` };
  });
  return drawn;
}

const box = (name: string, x: number, y: number, w: number, h: number) =>
  chain(name, [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ]);

const circle = (name: string, x: number, y: number, radius: number): Drawn => ({
  [`${name}m`]: { kind: 'point', x, y },
  [name]: { kind: 'circle', centre: `${name}m`, radius },
});

const regionsOf = (...parts: Drawn[]) => findRegions(new Geometry(Object.assign({}, ...parts)));
const areas = (...parts: Drawn[]) =>
  regionsOf(...parts)
    .regions.map((region) => Math.round(region.area * 1e6) / 1e6)
    .sort((a, b) => a - b);

const disc = (radius: number) => Math.round(Math.PI * radius ** 2 * 1e6) / 1e6;

test('a rectangle with four holes: the plate has four openings, the holes are regions inside', () => {
  const holes = [
    [8, 8],
    [52, 8],
    [52, 32],
    [8, 32],
  ].map(([x, y], k) => circle(`c${k}`, x!, y!, 3));
  const found = regionsOf(box('a', 0, 0, 60, 40), ...holes);
  expect(found.regions).toHaveLength(5);
  const [plate] = filled(found);
  expect(filled(found)).toHaveLength(1);
  expect(plate!.holes).toHaveLength(4);
  expect(plate!.area).toBeCloseTo(2400 - 4 * Math.PI * 9, 9);
  expect(plate!.key).toBe('a0+ a1+ a2+ a3+');
});

test('islands in holes in islands are filled by turns', () => {
  const found = regionsOf(circle('a', 0, 0, 10), circle('b', 0, 0, 8), circle('c', 0, 0, 6), circle('d', 0, 0, 4));
  expect(filled(found).map((region) => region.key)).toEqual(['a+', 'c+']);
  expect(filled(found).map((region) => region.area / Math.PI)).toEqual([expect.closeTo(36, 9), expect.closeTo(20, 9)]);
});

test('two overlapping circles give a lens and two crescents', () => {
  // lens of two unit circles one apart: 2 pi / 3 - sqrt(3) / 2
  const lens = (2 * Math.PI) / 3 - Math.sqrt(3) / 2;
  const found = areas(circle('a', 0, 0, 1), circle('b', 1, 0, 1));
  expect(found).toEqual([lens, Math.PI - lens, Math.PI - lens].map((area) => expect.closeTo(area, 5)));
});

test('a line across splits a rectangle, and sticks out on both sides as open ends', () => {
  const across = chain(
    'x',
    [
      [-5, 5],
      [25, 5],
    ],
    false,
  );
  const found = regionsOf(box('a', 0, 0, 20, 10), across);
  expect(found.regions.map((region) => region.area)).toEqual([100, 100]);
  expect(found.openEnds.map((end) => [...end.at])).toEqual([
    [-5, 5],
    [25, 5],
  ]);
  expect(found.regions.map((region) => region.key).sort()).toEqual(['a0+ a1+ a3+ x0-', 'a1+ a2+ a3+ x0+']);
});

test('an open chain bounds nothing and tells both its ends', () => {
  const found = regionsOf(
    chain(
      'a',
      [
        [0, 0],
        [10, 0],
        [10, 10],
      ],
      false,
    ),
  );
  expect(found.regions).toEqual([]);
  expect(found.openEnds).toHaveLength(2);
});

test('a circle that touches a side from inside makes two regions', () => {
  expect(areas(box('a', 0, 0, 20, 20), circle('c', 10, 5, 5))).toEqual([disc(5), 400 - disc(5)].sort((a, b) => a - b));
});

test('a circle that touches all four sides leaves four corners', () => {
  const corner = expect.closeTo(100 - Math.PI * 25, 5);
  expect(areas(box('a', 0, 0, 10, 10), circle('c', 5, 5, 5))).toEqual([
    expect.anything(),
    expect.anything(),
    expect.anything(),
    expect.anything(),
    disc(5),
  ]);
  const corners = areas(box('a', 0, 0, 10, 10), circle('c', 5, 5, 5)).slice(0, 4);
  expect(corners.reduce((sum, area) => sum + area, 0)).toEqual(corner);
});

test('doubled and overlapping lines count once', () => {
  expect(areas(box('a', 0, 0, 10, 10), box('b', 0, 0, 10, 10))).toEqual([100]);
  expect(areas(box('a', 0, 0, 10, 10), box('b', 10, 2, 10, 5))).toEqual([50, 100]);
});

test('two rectangles that share a corner only', () => {
  expect(areas(box('a', 0, 0, 10, 10), box('b', 10, 10, 5, 5))).toEqual([25, 100]);
});

test('construction lines bound nothing', () => {
  const dashed = Object.fromEntries(
    Object.entries(box('a', 0, 0, 10, 10)).map(([id, e]) => [id, e.kind === 'line' ? { ...e, construction: true } : e]),
  ) as Drawn;
  expect(areas(dashed)).toEqual([]);
});

test('keys survive an edit: split sides, moved places and reordered records name the same region', () => {
  const before = regionsOf(box('a', 0, 0, 20, 10));
  const key = before.regions[0]!.key;
  const reordered = Object.fromEntries(Object.entries(box('a', 3, 4, 50, 70)).reverse());
  expect(resolveRegions(regionsOf(reordered), [key]).regions[0]!.area).toBeCloseTo(3500, 9);
  const bitten = regionsOf(box('a', 0, 0, 20, 10), circle('c', 20, 5, 2));
  const { regions, gone } = resolveRegions(bitten, [key]);
  expect(gone).toEqual([]);
  expect(regions[0]!.area).toBeCloseTo(200 - (Math.PI * 4) / 2, 6);
  expect(resolveRegions(regionsOf(circle('z', 0, 0, 1)), [key]).gone).toEqual([key]);
});

test('a grid of m by n lines has (m - 1)(n - 1) cells, wherever it lies and however it is turned (property)', () => {
  const count = fc.integer({ min: 2, max: 5 });
  const coordinate = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(
      count,
      count,
      fc.double({ min: 0, max: 6.28, noNaN: true }),
      coordinate,
      coordinate,
      (m, n, turn, dx, dy) => {
        const at = (x: number, y: number) =>
          [dx + x * Math.cos(turn) - y * Math.sin(turn), dy + x * Math.sin(turn) + y * Math.cos(turn)] as const;
        const lines = [
          ...Array.from({ length: m }, (_, i) => chain(`v${i}`, [at(7 * i, 0), at(7 * i, 5 * (n - 1))], false)),
          ...Array.from({ length: n }, (_, j) => chain(`h${j}`, [at(0, 5 * j), at(7 * (m - 1), 5 * j)], false)),
        ];
        const found = regionsOf(...lines);
        expect(found.regions).toHaveLength((m - 1) * (n - 1));
        for (const region of found.regions) expect(region.area).toBeCloseTo(35, 6);
        expect(new Set(found.regions.map((region) => region.key)).size).toBe(found.regions.length);
      },
    ),
    { numRuns: 40 },
  );
});

test('areas of discs in a row do not overlap: the union of all regions is counted once (property)', () => {
  const discs = fc.array(
    fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 9 })),
    { minLength: 1, maxLength: 5 },
  );
  fc.assert(
    fc.property(discs, (list) => {
      const found = regionsOf(...list.map(([x, y, r], k) => circle(`c${k}`, x, y, r)));
      const total = found.regions.reduce((sum, region) => sum + region.area, 0);
      // sampled union on a fine grid, 1 % of the box
      let inside = 0;
      const step = 0.2;
      for (let x = -10; x < 40; x += step)
        for (let y = -10; y < 40; y += step)
          if (list.some(([cx, cy, r]) => (x - cx) ** 2 + (y - cy) ** 2 < r * r)) inside += step * step;
      expect(Math.abs(total - inside)).toBeLessThan(0.05 * inside + 1);
    }),
    { numRuns: 40 },
  );
});

test('a line from the rim to a hole, and one between two outlines, bound nothing', () => {
  const entities: Drawn = {
    ...box('a', 0, 0, 40, 20),
    m: { kind: 'point', x: 20, y: 10 },
    hole: { kind: 'circle', centre: 'm', radius: 5 },
    p: { kind: 'point', x: 0, y: 10 },
    q: { kind: 'point', x: 15, y: 10 },
    bridge: { kind: 'line', a: 'p', b: 'q' },
    ...box('b', 60, 0, 10, 20),
    r: { kind: 'point', x: 40, y: 5 },
    s: { kind: 'point', x: 60, y: 5 },
    road: { kind: 'line', a: 'r', b: 's' },
  };
  const found = filled(findRegions(new Geometry(entities))).toSorted((a, b) => a.area - b.area);
  expect(found.map(({ area }) => area)).toEqual([expect.closeTo(200, 9), expect.closeTo(800 - 25 * Math.PI, 9)]);
  expect(found[1]!.holes).toHaveLength(1);
});
