import fc from 'fast-check';
import { deviations, isFitClass } from './index.ts';

/** A size within each step of the standard, mm. */
const SIZES = [2, 5, 8, 15, 25, 40, 70, 100, 150, 220, 300, 350, 450];

const of = (fitClass: string, size: number) => {
  const found = deviations(fitClass, size);
  if (!found.ok) throw new Error(found.issue.code);
  return [Math.round(found.value.upper * 1000), Math.round(found.value.lower * 1000)];
};

/** Limit deviations in micrometres, upper and lower, by steps of size (ISO 286-2:2010, tables 2 to 32). */
const PUBLISHED: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  H7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63].map((up) => [up, 0] as const),
  H8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97].map((up) => [up, 0] as const),
  h6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40].map((low) => [0, -low] as const),
  f7: [
    [-6, -16],
    [-10, -22],
    [-13, -28],
    [-16, -34],
    [-20, -41],
    [-25, -50],
    [-30, -60],
    [-36, -71],
    [-43, -83],
    [-50, -96],
    [-56, -108],
    [-62, -119],
    [-68, -131],
  ],
  g6: [
    [-2, -8],
    [-4, -12],
    [-5, -14],
    [-6, -17],
    [-7, -20],
    [-9, -25],
    [-10, -29],
    [-12, -34],
    [-14, -39],
    [-15, -44],
    [-17, -49],
    [-18, -54],
    [-20, -60],
  ],
  k6: [
    [6, 0],
    [9, 1],
    [10, 1],
    [12, 1],
    [15, 2],
    [18, 2],
    [21, 2],
    [25, 3],
    [28, 3],
    [33, 4],
    [36, 4],
    [40, 4],
    [45, 5],
  ],
  m6: [
    [8, 2],
    [12, 4],
    [15, 6],
    [18, 7],
    [21, 8],
    [25, 9],
    [30, 11],
    [35, 13],
    [40, 15],
    [46, 17],
    [52, 20],
    [57, 21],
    [63, 23],
  ],
  n6: [
    [10, 4],
    [16, 8],
    [19, 10],
    [23, 12],
    [28, 15],
    [33, 17],
    [39, 20],
    [45, 23],
    [52, 27],
    [60, 31],
    [66, 34],
    [73, 37],
    [80, 40],
  ],
  p6: [
    [12, 6],
    [20, 12],
    [24, 15],
    [29, 18],
    [35, 22],
    [42, 26],
    [51, 32],
    [59, 37],
    [68, 43],
    [79, 50],
    [88, 56],
    [98, 62],
    [108, 68],
  ],
};

describe.each(Object.keys(PUBLISHED))('%s', (fitClass) => {
  test.each(SIZES.map((size, k) => [size, PUBLISHED[fitClass]![k]!] as const))('at %d mm', (size, limits) => {
    expect(of(fitClass, size)).toEqual(limits.map((n) => n + 0));
  });
});

test('s6, which is told in finer steps', () => {
  const published: readonly (readonly [size: number, upper: number, lower: number])[] = [
    [3, 20, 14],
    [6, 27, 19],
    [10, 32, 23],
    [18, 39, 28],
    [30, 48, 35],
    [50, 59, 43],
    [60, 72, 53],
    [70, 78, 59],
    [90, 93, 71],
    [110, 101, 79],
    [130, 117, 92],
    [150, 125, 100],
    [170, 133, 108],
    [190, 151, 122],
    [210, 159, 130],
    [240, 169, 140],
    [260, 190, 158],
    [300, 202, 170],
    [340, 226, 190],
    [380, 244, 208],
    [420, 272, 232],
    [480, 292, 252],
  ];
  for (const [size, ...limits] of published) expect([size, ...of('s6', size)]).toEqual([size, ...limits]);
});

test('holes that take less play', () => {
  // ISO 286-2: tables 9 to 14, 30 to 50 mm and the exception of M6
  expect(of('K7', 40)).toEqual([7, -18]);
  expect(of('M7', 40)).toEqual([0, -25]);
  expect(of('M8', 40)).toEqual([5, -34]);
  expect(of('N7', 40)).toEqual([-8, -33]);
  expect(of('N9', 40)).toEqual([0, -62]);
  expect(of('P7', 40)).toEqual([-17, -42]);
  expect(of('P9', 40)).toEqual([-26, -88]);
  expect(of('JS7', 40)).toEqual([12, -12]);
  expect(of('js6', 40)).toEqual([8, -8]);
  expect(of('M6', 300)).toEqual([-9, -41]);
  expect(of('k8', 40)).toEqual([39, 0]);
});

test('steps end at their size', () => {
  expect(of('H7', 10)).toEqual([15, 0]);
  expect(of('H7', 10.01)).toEqual([18, 0]);
});

test('a finer grade never has wider limits, and a hole is never smaller than that of a later letter', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.1, max: 500, noNaN: true }), fc.integer({ min: 6, max: 12 }), (size, grade) => {
      const width = ([upper, lower]: number[]) => upper! - lower!;
      expect(width(of(`H${grade}`, size))).toBeGreaterThan(width(of(`H${grade - 1}`, size)) - 1);
      const uppers = ['D', 'E', 'F', 'G', 'H', 'K', 'M'].map((letter) => of(`${letter}${grade}`, size)[0]!);
      expect(uppers).toEqual([...uppers].sort((a, b) => b - a));
    }),
  );
});

test('what is no class, and what no table tells', () => {
  expect(['H7', 'js6', 'JS10', 'k6'].every(isFitClass)).toBe(true);
  expect(['h', '7', 'Hs7', 'a b', 'Q7', 'H777'].some(isFitClass)).toBe(false);
  for (const [fitClass, size, code] of [
    ['Q7', 10, 'fit.class'],
    ['H4', 10, 'fit.class'],
    ['H14', 10, 'fit.class'],
    ['H7', 0, 'fit.size'],
    ['H7', 501, 'fit.size'],
  ] as const)
    expect(deviations(fitClass, size)).toMatchObject({ ok: false, issue: { code } });
});
