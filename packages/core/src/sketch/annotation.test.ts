import { distance2, dot2, sub2, type Vec2 } from '../math/index.ts';
import { annotationSpace, arcAnnotation, linearAnnotation, rimAnnotation } from './annotation.ts';

describe('a linear dimension', () => {
  const flat = linearAnnotation([0, 0], [10, 4], [1, 0], [5, -6], 2);

  test('its line runs through the given place, between the feet of both points, arrows outwards', () => {
    expect(flat.strokes[0]).toEqual([
      [0, -6],
      [10, -6],
    ]);
    expect(flat.arrows.map(({ tip, pointing }) => [...tip, ...pointing].map((c) => c + 0))).toEqual([
      [0, -6, -1, 0],
      [10, -6, 1, 0],
    ]);
  });

  test('extension lines begin a little off the points and reach a little beyond', () => {
    const [, first, second] = flat.strokes as [unknown, Vec2[], Vec2[]];
    expect(first[0]![1]).toBeLessThan(0);
    expect(first[1]![1]).toBeLessThan(-6);
    expect(second[0]![1]).toBeLessThan(4);
  });

  test('the text stands above the line; on an upright one left of it, turned', () => {
    expect(flat.text[1]).toBeGreaterThan(-6);
    expect(flat.upright).toBe(false);
    const upright = linearAnnotation([0, 0], [1, 8], [0, 1], [5, 4], 2);
    expect(upright.text[0]).toBeLessThan(5);
    expect(upright.upright).toBe(true);
  });

  test('a point on the dimension line needs no extension line', () => {
    expect(linearAnnotation([0, 0], [10, 0], [1, 0], [5, 0], 2).strokes).toHaveLength(1);
  });
});

test('a diameter has an arrow on both sides of the rim, a radius one', () => {
  const across = rimAnnotation([1, 1], 5, [12, 9], 2, true);
  expect(across.arrows.map(({ tip }) => distance2(tip, [1, 1]))).toEqual([5, 5].map((r) => expect.closeTo(r, 9)));
  expect(rimAnnotation([1, 1], 5, [12, 9], 2, false).arrows).toHaveLength(1);
});

test('the arc of an angle starts and ends on both legs, arrows along it', () => {
  const { strokes, arrows } = arcAnnotation([0, 0], 4, 0, Math.PI / 2, 1);
  const arc = strokes[0]!;
  expect(arc[0]).toEqual([4, 0]);
  expect(arc.at(-1)!.map((c) => Math.round(c * 1e9) / 1e9)).toEqual([0, 4]);
  for (const { tip, pointing } of arrows) expect(dot2(sub2(tip, [0, 0]), pointing)).toBeCloseTo(0, 9);
});

test('stretches that overlap get lanes of their own, others share one', () => {
  const space = annotationSpace([0, 0], [10, 10], 1);
  expect(space.lane('below', 0, 10)).toBe(0);
  expect(space.lane('below', 2, 4)).toBe(1);
  expect(space.lane('below', 12, 15)).toBe(0);
  expect(space.lane('above', 0, 10)).toBe(0);
});
