import {
  bezierAt,
  drawnView,
  frameOn,
  IDENTITY,
  type DrawnView,
  type Entities,
  type Frame,
  type ViewedBody,
  type SpaceCurve,
} from '@helb/core';
import { circle, profile, rectangle } from '@helb/core/samples';
import { all, box, kernel, withKernel } from './test-fixture.ts';

withKernel();

const TOP: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const FRONT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1], z: [0, -1, 0] };
/** Seen along a diagonal of a cube. */
const CORNER = frameOn([0, 0, 0], [-1 / Math.sqrt(3), -1 / Math.sqrt(3), 1 / Math.sqrt(3)]);

const viewed = (body: number, transform = IDENTITY): ViewedBody => ({
  topology: kernel.topology(body),
  mesh: kernel.mesh(body, { deflection: 0.05, angle: Math.PI / 18 }),
  transform,
  body,
});
const seen = (body: number, eye: Frame): DrawnView => drawnView([viewed(body)], eye);
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
  const before = viewed(back, [
    [1, 0, 0, 0],
    [0, 1, 0, -10],
    [0, 0, 1, 5],
  ]);
  const drawn = drawnView(
    [
      { ...viewed(back), body: 0 },
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

const axisX = { origin: [0, 0, 0], axis: [1, 0, 0], from: 0, to: 2 * Math.PI, step: 'r' } as const;
/** A closed line through corners, turned about x. */
function turned(...corners: readonly (readonly [number, number])[]): number {
  const entities = Object.fromEntries(
    corners.flatMap(([x, y], k) => [
      [`p${k}`, { kind: 'point', x, y }],
      [`l${k}`, { kind: 'line', a: `p${k}`, b: `p${(k + 1) % corners.length}` }],
    ]),
  ) as Entities;
  return all(kernel.revolve({ ...axisX, profile: profile(entities) }))[0]!;
}

test('a ball is a circle from everywhere', () => {
  const half: Entities = {
    a: { kind: 'point', x: -6, y: 0 },
    b: { kind: 'point', x: 6, y: 0 },
    m: { kind: 'point', x: 0, y: 0 },
    arc: { kind: 'arc', centre: 'm', a: 'b', b: 'a', radius: 6 },
    l: { kind: 'line', a: 'a', b: 'b' },
  };
  const ball = all(kernel.revolve({ ...axisX, profile: profile(half) }))[0]!;
  for (const eye of [FRONT, CORNER, frameOn([0, 0, 0], [0.6, 0, 0.8])]) {
    const outlines = seen(ball, eye).lines.filter(({ hidden }) => !hidden);
    expect(outlines).toHaveLength(1);
    expect(outlines[0]!.curve).toMatchObject({ form: 'circle' });
    expect((outlines[0]!.curve as Of<'circle'>).radius).toBeCloseTo(6, 9);
  }
});

test('a cone from its side is a triangle with the angle of its flanks, also where it leans', () => {
  const cone = turned([0, 0], [20, 0], [20, 5]);
  const outlines = (eye: Frame) =>
    seen(cone, eye).lines.flatMap(({ sort, hidden, curve }) =>
      sort === 'outline' && !hidden && curve.form === 'line' ? [curve] : [],
    );
  const angles = (eye: Frame) =>
    outlines(eye)
      .map(({ from, to }) => Math.atan2(Math.abs(to[1] - from[1]), Math.abs(to[0] - from[0])))
      .map((angle) => (angle * 180) / Math.PI);
  for (const angle of angles(FRONT)) expect(angle).toBeCloseTo((Math.atan2(5, 20) * 180) / Math.PI, 6);
  expect(angles(FRONT)).toHaveLength(2);
  // foreshortened by the cosine c of the lean, the lines touch the ellipse of the base: sin = r / (h c) over a tip away
  const lean = Math.PI / 6;
  const eye: Frame = { ...FRONT, x: [Math.cos(lean), -Math.sin(lean), 0], z: [-Math.sin(lean), -Math.cos(lean), 0] };
  const [c, s] = [Math.cos(lean), Math.sin(lean)];
  // tangents from the tip to the ellipse about 20 c with half axes 5 s and 5
  const slope = 5 / Math.sqrt((20 * c) ** 2 - (5 * s) ** 2);
  for (const angle of angles(eye)) expect(Math.tan((angle * Math.PI) / 180)).toBeCloseTo(slope, 6);
  expect(angles(eye)).toHaveLength(2);
});

test('the rim at the back of a rod is seen from one outline to the other', () => {
  const eye = frameOn([0, 0, 0], [0, -Math.sin(1), Math.cos(1)], [1, 0, 0]);
  const { lines } = seen(rod(), eye);
  const ends = lines
    .filter(({ sort }) => sort === 'outline')
    .flatMap(({ curve }) => (curve.form === 'line' ? [curve.from, curve.to] : []));
  expect(ends).toHaveLength(4);
  const arcs = lines.flatMap(({ curve }) => (curve.form === 'ellipse' && curve.from ? [curve.from, curve.to!] : []));
  // both the seen and the hidden half of the far rim end where the outlines do
  expect(arcs).toHaveLength(4);
  for (const at of arcs)
    expect(Math.min(...ends.map((end) => Math.hypot(end[0] - at[0], end[1] - at[1])))).toBeLessThan(1e-3);
});

test('a ring from its end is two circles', () => {
  const section: Entities = {
    m: { kind: 'point', x: 0, y: 10 },
    o: { kind: 'circle', centre: 'm', radius: 3 },
  };
  const ring = all(kernel.revolve({ ...axisX, profile: profile(section) }))[0]!;
  const radii = curves(seen(ring, frameOn([0, 0, 0], [1, 0, 0])), 'circle', false).map(({ radius }) => radius);
  expect(radii.some((radius) => Math.abs(radius - 13) < 1e-9)).toBe(true);
  expect(radii.some((radius) => Math.abs(radius - 7) < 1e-9)).toBe(true);
});

test('a long thread is followed all along: no edge of it leaves its mesh', () => {
  const section = profile(rectangle(5, 0, 1, 1), FRONT);
  const way = { origin: [0, 0, 0], axis: [0, 0, 1], pitch: 3, turns: 8, left: false, taper: 0 } as const;
  const thread = all(kernel.helix({ profile: section, ...way, step: 't' }))[0]!;
  const { edges } = kernel.topology(thread);
  const long = edges.filter(({ curve }) => curve.form === 'free').toSorted((a, b) => b.length - a.length)[0]!;
  if (long.curve.form !== 'free') throw new Error();
  expect(long.length).toBeGreaterThan(100);
  for (const span of long.curve.spans)
    for (const t of [0, 0.25, 0.5, 0.75, 1]) {
      const radius = Math.hypot(bezierAt(span, t)[0], bezierAt(span, t)[1]);
      expect(radius).toBeGreaterThan(4.99);
      expect(radius).toBeLessThan(6.01);
    }
});
