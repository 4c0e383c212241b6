import fc from 'fast-check';
import type { Box } from '../sketch/pieces/index.ts';
import { BESIDE_EYES, CORNER_EYE, SIDE_EYES } from './eyes.ts';
import { laidOut, type LaidView } from './layout.ts';
import { paperSize, withinFrame } from './papers.ts';
import { SCALE_NAMES, scaleFactor } from './scales.ts';
import { BESIDE, type View } from './schema.ts';

const AREA: Box = { low: [20, 46], high: [287, 200] };
const common = {} as const;

/** A block a x b x c from its middle, seen from an eye. */
const boxSeen = (eye: LaidView['eye'], half: readonly number[]): Box => {
  const reach = (axis: readonly number[]) => axis.reduce((sum, c, k) => sum + Math.abs(c) * half[k]!, 0);
  const [w, h] = [reach(eye.x), reach(eye.y)];
  return { low: [-w, -h], high: [w, h] };
};
const block = (half: readonly number[], beside: readonly (typeof BESIDE)[number][]): LaidView[] => {
  const front = SIDE_EYES.front;
  const laid = (id: string, view: View, eye: LaidView['eye']): LaidView => ({ id, view, eye, box: boxSeen(eye, half) });
  return [
    laid('front', { kind: 'base', from: 'front', ...common }, front),
    ...beside.map((side) => laid(side, { kind: 'projected', of: 'front', beside: side }, BESIDE_EYES[side](front))),
    laid('corner', { kind: 'corner' }, CORNER_EYE),
  ];
};
const onPaper = (view: LaidView, at: readonly [number, number], factor: number): Box => ({
  low: [at[0] + factor * view.box.low[0], at[1] + factor * view.box.low[1]],
  high: [at[0] + factor * view.box.high[0], at[1] + factor * view.box.high[1]],
});
const size = fc.double({ min: 1, max: 400, noNaN: true });
const some = fc.subarray([...BESIDE], { minLength: 1 });
const projection = fc.constantFrom('first' as const, 'third' as const);

test('views lie apart from each other, within the area, in its middle; the next larger scale would not fit', () => {
  fc.assert(
    fc.property(fc.tuple(size, size, size), some, projection, (half, beside, way) => {
      const views = block(half, beside);
      const { scale, places } = laidOut({ projection: way }, views, AREA);
      const boxes = views.map((view) => onPaper(view, places.get(view.id)!, scaleFactor(scale)));
      for (const [k, a] of boxes.entries())
        for (const b of boxes.slice(k + 1)) {
          const apart = Math.max(
            b.low[0] - a.high[0],
            a.low[0] - b.high[0],
            b.low[1] - a.high[1],
            a.low[1] - b.high[1],
          );
          expect(apart).toBeGreaterThan(21.9);
        }
      const low = [0, 1].map((k) => Math.min(...boxes.map((box) => box.low[k]!)));
      const high = [0, 1].map((k) => Math.max(...boxes.map((box) => box.high[k]!)));
      for (const k of [0, 1] as const) {
        expect((low[k]! + high[k]!) / 2).toBeCloseTo((AREA.low[k] + AREA.high[k]) / 2, 6);
        expect(low[k]).toBeGreaterThan(AREA.low[k]);
      }
      const larger = SCALE_NAMES[SCALE_NAMES.indexOf(scale) - 1];
      if (larger === undefined) return;
      const big = laidOut({ projection: way, scale: larger }, views, AREA);
      const wide = views.map((view) => onPaper(view, big.places.get(view.id)!, scaleFactor(larger)));
      const over = [0, 1].some(
        (k) =>
          Math.max(...wide.map((box) => box.high[k]!)) - Math.min(...wide.map((box) => box.low[k]!)) >
          AREA.high[k]! - AREA.low[k]! - 16,
      );
      expect(over).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('what is folded out lies in line with its view, in first angle on the other side than in third', () => {
  fc.assert(
    fc.property(fc.tuple(size, size, size), (half) => {
      const views = block(half, BESIDE);
      const third = laidOut({ projection: 'third' }, views, AREA).places;
      const first = laidOut({ projection: 'first' }, views, AREA).places;
      const from = (places: typeof third, id: string) =>
        [0, 1].map((k) => places.get(id)![k]! - places.get('front')![k]!);
      expect(Math.sign(from(third, 'right')[0]!)).toBe(1);
      expect(Math.sign(from(first, 'right')[0]!)).toBe(-1);
      expect(Math.sign(from(third, 'above')[1]!)).toBe(1);
      expect(Math.sign(from(first, 'above')[1]!)).toBe(-1);
      for (const side of ['right', 'left'] as const) expect(from(first, side)[1]).toBeCloseTo(0, 9);
      for (const side of ['above', 'below'] as const) expect(from(third, side)[0]).toBeCloseTo(0, 9);
    }),
    { numRuns: 20 },
  );
});

test('a view is dragged; what is folded out of it stays in line and goes along', () => {
  const views = block([30, 20, 10], ['right', 'above']);
  const dragged = views.map((view) => ({ ...view, view: { ...view.view, shift: [7, 5] as [number, number] } }));
  const scale = '1:1';
  const [before, after] = [views, dragged].map((all) => laidOut({ projection: 'first', scale }, all, AREA).places);
  const by = (id: string) => [0, 1].map((k) => after!.get(id)![k]! - before!.get(id)![k]!);
  expect(by('front')).toEqual([7, 5]);
  expect(by('right')).toEqual([14, 5]);
  expect(by('above')).toEqual([7, 10]);
  expect(by('corner')[0]).toBeGreaterThanOrEqual(7);
});

test('eyes are right-handed, and those beside the front are the other sides', () => {
  for (const eye of [...Object.values(SIDE_EYES), CORNER_EYE]) {
    const [x, y, z] = [eye.x, eye.y, eye.z];
    const cross = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]];
    cross.forEach((c, k) => expect(c).toBeCloseTo(z[k]!, 12));
  }
  const { front } = SIDE_EYES;
  const same = (a: LaidView['eye'], b: LaidView['eye']) =>
    (['x', 'y', 'z'] as const).forEach((axis) => a[axis].forEach((c, k) => expect(c).toBeCloseTo(b[axis][k]!, 12)));
  same(BESIDE_EYES.right(front), SIDE_EYES.right);
  same(BESIDE_EYES.left(front), SIDE_EYES.left);
  same(BESIDE_EYES.above(front), SIDE_EYES.top);
  same(BESIDE_EYES.below(front), SIDE_EYES.under);
  same(BESIDE_EYES.right(BESIDE_EYES.right(front)), SIDE_EYES.back);
});

test('papers and what lies within their frames', () => {
  expect(paperSize('A3', false)).toEqual([420, 297]);
  expect(paperSize('A3', true)).toEqual([297, 420]);
  paperSize('ANSI B', false).forEach((length, k) => expect(length).toBeCloseTo([17, 11][k]! * 25.4, 9));
  expect(withinFrame([210, 297])).toEqual({ low: [20, 10], high: [200, 287] });
});

test('names and signs round views keep their room at the rim of the paper, at any scale that fits', () => {
  fc.assert(
    fc.property(size, size, size, fc.double({ min: 0, max: 15, noNaN: true }), (a, b, c, around) => {
      const views = block([a, b, c], ['above']).map((view) => ({ ...view, around }));
      const { scale, places } = laidOut({ projection: 'first' }, views, AREA);
      fc.pre(scale !== SCALE_NAMES.at(-1));
      for (const view of views) {
        const { low, high } = onPaper(view, places.get(view.id)!, scaleFactor(scale));
        for (const k of [0, 1] as const) {
          expect(low[k] - around).toBeGreaterThan(AREA.low[k] - 1e-6);
          expect(high[k] + around).toBeLessThan(AREA.high[k] + 1e-6);
        }
      }
    }),
  );
});

test('where one view more would make the paper longer than it is, it goes below', () => {
  const box: Box = { low: [-50, -10], high: [50, 10] };
  const one = (id: string): LaidView => ({ id, view: { kind: 'corner' }, eye: CORNER_EYE, box });
  const { places, scale } = laidOut({ projection: 'first' }, [one('a'), one('b'), one('c')], AREA);
  // three in a row are 344 mm long at full size, and 164 mm high one over the other at twice that
  expect(scale).toBe('1:1');
  expect(new Set([...places.values()].map(([x]) => x)).size).toBeLessThan(3);
});
