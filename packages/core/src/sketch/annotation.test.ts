import { distance2, dot2, sub2, type Vec2 } from '../math/index.ts';
import { arcAnnotation, linearAnnotation, linearPlaces, rimAnnotation } from './annotation.ts';
import {
  FigureBuilder,
  Geometry,
  layoutDimensions,
  polyline,
  rectangle,
  relationKind,
  textBox,
  type SizedRelation,
} from './index.ts';
import { boxesOverlap } from './pieces/index.ts';

describe('a linear dimension', () => {
  const space = { gap: 2, width: 3 };
  const flat = linearAnnotation([0, 0], [10, 4], [1, 0], [5, -6], space);

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
    const upright = linearAnnotation([0, 0], [1, 8], [0, 1], [5, 4], space);
    expect(upright.text[0]).toBeLessThan(5);
    expect(upright.upright).toBe(true);
  });

  test('a point on the dimension line needs no extension line', () => {
    expect(linearAnnotation([0, 0], [10, 0], [1, 0], [5, 0], space).strokes).toHaveLength(1);
  });
});

test('a diameter has an arrow on both sides of the rim, a radius one', () => {
  const across = rimAnnotation([1, 1], 5, [12, 9], { gap: 2, width: 3 }, true);
  expect(across.arrows.map(({ tip }) => distance2(tip, [1, 1]))).toEqual([5, 5].map((r) => expect.closeTo(r, 9)));
  expect(rimAnnotation([1, 1], 5, [12, 9], { gap: 2, width: 3 }, false).arrows).toHaveLength(1);
});

test('the arc of an angle starts and ends on both legs, arrows along it', () => {
  const { strokes, arrows } = arcAnnotation([0, 0], 4, 0, Math.PI / 2, 1);
  const arc = strokes[0]!;
  expect(arc[0]).toEqual([4, 0]);
  expect(arc.at(-1)!.map((c) => Math.round(c * 1e9) / 1e9)).toEqual([0, 4]);
  for (const { tip, pointing } of arrows) expect(dot2(sub2(tip, [0, 0]), pointing)).toBeCloseTo(0, 9);
});

test('text that is longer than its line stands beside it, the line goes on under it', () => {
  const space = { gap: 2, width: 9, height: 3, low: [0, 0], high: [14, 4] } as const;
  const [at] = linearPlaces([0, 0], [4, 0], [1, 0], space);
  const { text, strokes } = linearAnnotation([0, 0], [4, 0], [1, 0], at!, space);
  expect(text[0] - 4.5).toBeGreaterThan(4);
  expect(Math.max(...strokes[0]!.map(([x]) => x))).toBeCloseTo(text[0] + 4.5, 9);
});

describe('the layout of all dimensions', () => {
  const b = new FigureBuilder(
    (
      (k) => (prefix: string) =>
        `${prefix}${++k}`
    )(0),
  );
  const corners = rectangle(b, [0, 0], [60, 30]);
  const [hole, slot] = [b.circle(b.place([15, 15]), 5), b.circle(b.place([40, 15]), 5)];
  const geometry = new Geometry(b.entities);
  const between = (a: string, c: string, direction: 'horizontal' | 'vertical'): SizedRelation => ({
    kind: 'distance',
    a,
    b: c,
    direction,
    sense: 1,
    value: '1',
  });
  const centre = (id: string) => (b.entities[id] as { centre: string }).centre;
  const relations: SizedRelation[] = [
    between(corners[0], corners[1], 'horizontal'),
    between(corners[1], corners[2], 'vertical'),
    between(corners[0], centre(hole), 'horizontal'),
    between(corners[0], centre(hole), 'vertical'),
    between(centre(hole), centre(slot), 'horizontal'),
    between(corners[0], centre(slot), 'horizontal'),
    { kind: 'diameter', circle: hole, value: '1' },
    { kind: 'diameter', circle: slot, value: '1' },
    { kind: 'radius', circle: slot, value: '1' },
  ];

  test.each([4, 12, 30])('no text lies on another or on the outline, with texts %i mm wide', (width) => {
    const laid = layoutDimensions(
      relations.map((relation) => ({ relation, width })),
      geometry,
      { gap: 5, height: 3 },
    );
    const boxes = laid.map((annotation) => textBox(annotation, width, 3));
    boxes.forEach((box, k) => {
      for (const other of boxes.slice(k + 1)) expect(boxesOverlap(box, other, -1e-9)).toBe(false);
      for (const line of Object.keys(b.entities).flatMap((id) => geometry.pieces(id)))
        for (const [x, y] of polyline(line))
          expect(x > box.low[0] && x < box.high[0] && y > box.low[1] && y < box.high[1]).toBe(false);
    });
  });

  test('a text that was placed by hand stays there, others make way', () => {
    const [free] = layoutDimensions([{ relation: relations[0]!, width: 8 }], geometry, { gap: 5, height: 3 });
    const placed: SizedRelation = { ...relations[5]!, at: [free!.text[0], free!.text[1]] };
    const [moved, kept] = layoutDimensions(
      [
        { relation: relations[0]!, width: 8 },
        { relation: placed, width: 8 },
      ],
      geometry,
      { gap: 5, height: 3 },
    );
    expect(kept!.text[0]).toBeCloseTo(free!.text[0], 6);
    expect(distance2(moved!.text, free!.text)).toBeGreaterThan(2);
  });
});

test('an angle to an axis that meets the line far away stands where the line begins, with the axis drawn through there', () => {
  const line = (from: Vec2, to: Vec2) =>
    new Geometry({
      p: { kind: 'point', x: from[0], y: from[1] },
      q: { kind: 'point', x: to[0], y: to[1] },
      l: { kind: 'line', a: 'p', b: 'q' },
    });
  const angle: SizedRelation = { kind: 'angle', a: 'x-axis', b: 'l', alongA: 1, alongB: 1, sense: 1, value: '20 deg' };
  const { places, annotate } = relationKind('angle').dimension!;
  const space = { gap: 2, width: 6, height: 2, low: [0, 0], high: [20, 50] } as never;
  const far = line([0, 39], [12, 39 + 12 * Math.tan(Math.PI / 9)]);
  for (const at of places(angle, far, space)) expect(distance2(at, [0, 39])).toBeLessThan(20);
  const drawn = annotate(angle, far, space, [6, 40]);
  expect(drawn.strokes.at(-1)![0]).toEqual([0, 39]);
  expect(drawn.strokes.at(-1)![1]![1]).toBeCloseTo(39, 12);
  expect(drawn.arrows.map(({ tip }) => distance2(tip, [0, 39]))).toEqual([
    expect.closeTo(distance2([6, 40], [0, 39]) - 1.4, 9),
    expect.closeTo(distance2([6, 40], [0, 39]) - 1.4, 9),
  ]);
  // one that begins on the axis stands in their corner, and needs nothing more
  const near = annotate(angle, line([5, 0], [15, 10 * Math.tan(Math.PI / 9)]), space, [11, 1]);
  expect(near.strokes).toHaveLength(1);
  expect(distance2(near.arrows[0]!.tip, [5, 0])).toBeLessThan(8);
});

test('an angle that is told as a negative one is drawn to that side, not the long way round', () => {
  const down = new Geometry({
    p: { kind: 'point', x: 0, y: 0 },
    q: { kind: 'point', x: 10 * Math.cos(0.6), y: -10 * Math.sin(0.6) },
    l: { kind: 'line', a: 'p', b: 'q' },
  });
  const relation: SizedRelation = { kind: 'angle', a: 'x-axis', b: 'l', alongA: 1, alongB: 1, sense: 1, value: '1' };
  const lengthOfArc = (amount?: number) => {
    const { places, annotate } = relationKind('angle').dimension!;
    const space = { gap: 1, width: 3, height: 2, low: [0, -6], high: [9, 0], amount } as const;
    const [arc] = annotate(relation, down, space, places(relation, down, space)[0]!).strokes;
    const radius = Math.hypot(...arc![0]!);
    return arc!.slice(1).reduce((sum, to, k) => sum + distance2(arc![k]!, to), 0) / radius;
  };
  expect(lengthOfArc(-0.6)).toBeCloseTo(0.6, 2);
  expect(lengthOfArc(2 * Math.PI - 0.6)).toBeCloseTo(2 * Math.PI - 0.6, 1);
  expect(lengthOfArc()).toBeCloseTo(2 * Math.PI - 0.6, 1);
});
