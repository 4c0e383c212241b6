import { cross3, direction3, dot3, scale3, sub3, type Vec3 } from '@helb/core';
import fc from 'fast-check';
import { polesThrough } from './cubic-spline.ts';
import { insetGrids, nearestOf, offFrom, type Plane, type Sheet } from './inset-grid.ts';

/** The flat sides between corners below and above, outside on the right of one that goes along them. */
function prismatic(below: readonly Vec3[], above: readonly Vec3[]): Sheet[] {
  const mix = (a: Vec3, b: Vec3, share: number): Vec3 =>
    [0, 1, 2].map((k) => a[k]! * (1 - share) + b[k]! * share) as unknown as Vec3;
  return below.map((_, k): Sheet => {
    const next = (k + 1) % below.length;
    return (across, along) => {
      const [low, high] = [mix(below[k]!, below[next]!, across), mix(above[k]!, above[next]!, across)];
      const [left, right] = [mix(below[k]!, above[k]!, along), mix(below[next]!, above[next]!, along)];
      const [byAcross, byAlong] = [sub3(right, left), sub3(high, low)];
      return {
        at: mix(low, high, along),
        across: byAcross,
        along: byAlong,
        normal: direction3(cross3(byAcross, byAlong))!,
      };
    };
  });
}

const square = (half: number, z: number): Vec3[] => [
  [-half, -half, z],
  [half, -half, z],
  [half, half, z],
  [-half, half, z],
];
const levels = (low: number, high: number, steps = 4): Plane[] =>
  Array.from({ length: steps + 1 }, (_, k) => k / steps).map((share) => ({
    normal: [0, 0, 1],
    height: low + share * (high - low),
  }));
const some = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('behind four leaning sides: the closed formula, on each plane', () => {
  fc.assert(
    fc.property(some(10, 40), some(10, 40), some(5, 60), some(0.1, 2), (low, high, tall, wall) => {
      const deep = wall * Math.hypot(1, (low - high) / tall);
      fc.pre(deep < 0.9 * Math.min(low, high));
      const sheets = prismatic(square(low, 0), square(high, tall));
      const planes = levels(wall, tall);
      const grids = insetGrids(sheets, wall, planes, 6)!.grids;
      grids.forEach((grid, k) =>
        grid.forEach((row, level) => {
          const z = planes[level]!.height;
          const half = low + ((high - low) * z) / tall - deep;
          const out: Vec3 = (
            [
              [0, -1, 0],
              [1, 0, 0],
              [0, 1, 0],
              [-1, 0, 0],
            ] as Vec3[]
          )[k]!;
          for (const { at } of row) {
            expect(dot3(out, at)).toBeCloseTo(half, 7);
            expect(at[2]).toBeCloseTo(z, 12);
          }
          // it ends where the next side's begins
          expect(Math.abs(row[0]!.at[0])).toBeCloseTo(half, 7);
          expect(row.at(-1)!.at).toEqual(grids[(k + 1) % 4]![level]![0]!.at);
        }),
      );
    }),
    { numRuns: 25 },
  );
});

test('none where walls leave no room, and where an edge goes inwards', () => {
  const sheets = prismatic(square(10, 0), square(8, 20));
  expect(insetGrids(sheets, 11, levels(1, 20), 6)).toBeUndefined();
  const ell = (z: number): Vec3[] =>
    [
      [0, 0],
      [30, 0],
      [30, 10],
      [10, 10],
      [10, 30],
      [0, 30],
    ].map(([x, y]) => [x!, y!, z]);
  expect(insetGrids(prismatic(ell(0), ell(20)), 1, levels(1, 20), 6)).toBeUndefined();
});

test('behind a ridge that bends more than the wall is thick, places are nearer to the skin than the wall', () => {
  const ridged = (high: number): Sheet[] =>
    [0, 1, 2, 3].map((k): Sheet => (across, along) => {
      const z = 20 * along;
      const bump = high * Math.exp(-((z - 10) ** 2));
      const [half, slope] = [10 + bump, -2 * (z - 10) * bump];
      const [c, s] = [
        [1, 0],
        [0, 1],
        [-1, 0],
        [0, -1],
      ][k]! as [number, number];
      const turned = (x: number, y: number, up: number): Vec3 => [c * x - s * y, s * x + c * y, up];
      const run = 2 * across - 1;
      const [byAcross, byAlong] = [turned(0, 2 * half, 0), turned(20 * slope, 20 * slope * run, 20)];
      const normal = direction3(cross3(byAcross, byAlong))!;
      return { at: turned(half, half * run, z), across: byAcross, along: byAlong, normal };
    });
  const nearest = (high: number) => {
    const inset = insetGrids(ridged(high), 2, levels(2, 20, 20), 4);
    return (
      inset &&
      nearestOf(
        ridged(high),
        inset.grids.flat(2).map(({ at }) => at),
      )
    );
  };
  expect(nearest(0)).toBeGreaterThanOrEqual(2 - 1e-9);
  expect(nearest(4) ?? 0).toBeLessThan(1.9);
});

test('how far a place is from a side as thick as a wall', () => {
  const [sheet] = prismatic(square(10, 0), square(8, 20)) as [Sheet];
  const { at, normal } = sheet(0.4, 0.6);
  for (const off of [0, 0.01, -0.02])
    expect(offFrom(sheet, 2, sub3(at, scale3(normal, 2 + off)), { across: 0.1, along: 0.2 })).toBeCloseTo(
      Math.abs(off),
      10,
    );
});

test('a spline through a cubic is that cubic: its poles are what three knots in a row multiply to', () => {
  const poles = polesThrough(Array.from({ length: 8 }, (_, k) => [k ** 3, k, 1] as const));
  const knots = [0, 0, 0, 0, 1, 2, 3, 4, 5, 6, 7, 7, 7, 7];
  expect(poles).toHaveLength(10);
  poles.forEach((pole, k) => {
    const [a, b, c] = knots.slice(k + 1, k + 4) as [number, number, number];
    expect(pole[0]).toBeCloseTo(a * b * c, 9);
    expect(pole[1]).toBeCloseTo((a + b + c) / 3, 9);
    expect(pole[2]).toBeCloseTo(1, 12);
  });
});
