import { drawnView, frameOn, STILL, type DrawnView, type Frame, type Looked, type SpaceCurve } from '@helb/core';
import { circle, profile } from '@helb/core/samples';
import { all, box, kernel, one, withKernel } from './test-bench.ts';

withKernel();

const TOP: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const FRONT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1], z: [0, -1, 0] };
/** Seen along a diagonal of a cube. */
const CORNER = frameOn([0, 0, 0], [-1 / Math.sqrt(3), -1 / Math.sqrt(3), 1 / Math.sqrt(3)]);

const looked = (body: number, movement = STILL): Looked => ({
  topology: kernel.topology(body),
  mesh: kernel.mesh(body, { deflection: 0.05, angle: Math.PI / 18 }),
  movement,
  body,
});
const seen = (body: number, eye: Frame): DrawnView => drawnView([looked(body)], eye);
type Of<F extends SpaceCurve['form']> = Extract<SpaceCurve, { form: F }>;
const curves = <F extends SpaceCurve['form']>({ lines }: DrawnView, form: F, hidden: boolean): Of<F>[] =>
  lines.filter((line) => line.hidden === hidden).flatMap(({ curve }) => (curve.form === form ? [curve as Of<F>] : []));
const rod = () => all(kernel.extrude({ profile: profile(circle(0, 0, 5)), from: 0, to: 30, step: 's' }))[0]!;

test('a cube corner-on is a hexagon with angles of 120 degrees', () => {
  const view = seen(box(10, 10, 10), CORNER);
  const lines = curves(view, 'line', false);
  expect(lines.length).toBe(9);
  expect(curves(view, 'line', true).length).toBe(3);
  const side = 10 * Math.sqrt(2 / 3);
  for (const { from, to } of lines) {
    expect(Math.hypot(to[0] - from[0], to[1] - from[1])).toBeCloseTo(side, 9);
    // the directions are 60 degrees apart, one of them upright
    const angle = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI + 30;
    expect(Math.abs(angle / 60 - Math.round(angle / 60))).toBeLessThan(1e-9);
  }
  // three meet at the near corner, and two or three at each of the six round it
  const near = lines
    .flatMap(({ from, to }) => [from, to])
    .filter(([x, y]) => Math.hypot(x, y - 10 * CORNER.y[2]) < 1e-9);
  expect(near.length).toBe(3);
});

test('a rod is a circle from its end and a rectangle from its side', () => {
  const body = rod();
  const end = seen(body, TOP);
  expect(curves(end, 'circle', false).every(({ radius }) => Math.abs(radius - 5) < 1e-9)).toBe(true);
  expect(end.lines.filter(({ hidden, curve }) => !hidden && curve.form !== 'circle')).toEqual([]);
  const side = seen(body, FRONT);
  const outline = side.lines.filter(({ hidden }) => !hidden);
  expect(outline.every(({ curve }) => curve.form === 'line')).toBe(true);
  // where a seam lies on the outline, it is told as an edge
  expect(outline.length).toBe(4);
  const places = outline.flatMap(({ curve }) => (curve.form === 'line' ? [curve.from, curve.to] : []));
  expect([...new Set(places.map(([x, y]) => `${Math.round(x * 1e6)} ${Math.round(y * 1e6)}`))].sort()).toEqual(
    ['-5000000 0', '-5000000 30000000', '5000000 0', '5000000 30000000'].sort(),
  );
});

test('a tilted circle is an ellipse with the axes of its tilt', () => {
  const tilt = Math.PI / 3;
  const view = seen(rod(), frameOn([0, 0, 0], [0, -Math.sin(tilt), Math.cos(tilt)]));
  const ellipses = curves(view, 'ellipse', false);
  expect(ellipses.length).toBeGreaterThan(0);
  for (const { major, minor } of ellipses) {
    expect(Math.hypot(...major)).toBeCloseTo(5, 9);
    expect(Math.hypot(...minor)).toBeCloseTo(5 * Math.cos(tilt), 9);
  }
});

test('what lies behind is hidden, of one body and of several', () => {
  const back = box(4, 4, 20, 'b');
  const before = looked(back, [
    [1, 0, 0, 0],
    [0, 1, 0, -10],
    [0, 0, 1, 5],
  ]);
  const drawn = drawnView(
    [
      { ...looked(back), body: 0 },
      { ...before, body: 1 },
    ],
    FRONT,
  );
  const length = (body: number, hidden: boolean) =>
    drawn.lines
      .filter((line) => line.body === body && line.hidden === hidden)
      .reduce((sum, { curve }) => sum + (curve.form === 'line' ? Math.abs(curve.to[1] - curve.from[1]) : 0), 0);
  // upright: two sides of each, once in front and once behind
  expect(length(0, false)).toBeCloseTo(2 * 5, 4);
  expect(length(1, false)).toBeCloseTo(2 * 20, 4);
});
