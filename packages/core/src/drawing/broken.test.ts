import fc from 'fast-check';
import type { Vec2 } from '../math/index.ts';
import { arcBetween, boxAround, boxOf, fullCircle, lengthOf, type Piece } from '../sketch/pieces/index.ts';
import { breakLines, breaksOf, brokenPieces } from './broken.ts';
import { between } from './clip.ts';
import { extentOf } from './extent.ts';
import { BESIDE_EYES, SIDE_EYES } from './eyes.ts';
import { frameOf, segment } from './picture.ts';
import type { ShownView } from './placed-view.ts';
import { BREAK_GAP, closedBox, onPaper, onThing, type Placing, type Interval } from './placing.ts';
import type { View } from './schema.ts';

const total = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + lengthOf(piece), 0);

describe('how a view lies on paper', () => {
  const stretches = fc
    .array(fc.tuple(fc.double({ min: 1, max: 50, noNaN: true }), fc.double({ min: 20, max: 90, noNaN: true })), {
      maxLength: 4,
    })
    .map((all) => {
      let at = -100;
      return all.map(([kept, out]): Interval => {
        const from = at + kept;
        at = from + out;
        return [from, at];
      });
    });
  const anyPlacing = fc.record({
    factor: fc.constantFrom(0.2, 0.5, 1, 2, 5),
    at: fc.tuple(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true })),
    breaks: fc.record({ x: stretches, y: stretches }),
  });
  const place = fc.tuple(
    fc.double({ min: -200, max: 400, noNaN: true }),
    fc.double({ min: -200, max: 400, noNaN: true }),
  );

  test('there and back is where one was; what lies farther along on the thing does so on paper', () => {
    fc.assert(
      fc.property(anyPlacing, place, place, (placing, a, b) => {
        const [p, q] = [onPaper(placing, a), onPaper(placing, b)];
        onThing(placing, p).forEach((c, k) => expect(c).toBeCloseTo(a[k]!, 6));
        for (const k of [0, 1] as const) expect((p[k] - q[k]) * (a[k] - b[k])).toBeGreaterThanOrEqual(-1e-9);
      }),
    );
  });

  test('of what is left out the gap is left, whatever the scale', () => {
    const placing: Placing = { factor: 0.5, at: [10, 0], breaks: { x: [[20, 120]], y: [] } };
    expect(onPaper(placing, [0, 8])).toEqual([10, 4]);
    expect(onPaper(placing, [20, 0])).toEqual([20, 0]);
    expect(onPaper(placing, [120, 0])).toEqual([20 + BREAK_GAP, 0]);
    expect(onPaper(placing, [140, 0])).toEqual([30 + BREAK_GAP, 0]);
    // smaller than the gap nothing is won by it
    expect(onPaper({ ...placing, factor: 0.02, at: [0, 0] }, [140, 0])[0]).toBeCloseTo(2.8, 9);
    expect(closedBox({ low: [0, 0], high: [140, 8] }, placing.breaks)).toEqual({ low: [0, 0], high: [40, 8] });
  });
});

describe('pieces closed up', () => {
  const placing: Placing = { factor: 1, at: [0, 0], breaks: { x: [[20, 120]], y: [] } };

  test('lines are as long as what is kept; what lies in between is gone; arcs stay arcs', () => {
    const pieces = [
      segment([0, 0], [140, 0]),
      segment([60, 0], [60, 9]),
      segment([0, 0], [0, 9]),
      fullCircle('', [130, 5], 4),
    ];
    const kept = brokenPieces(pieces, placing);
    expect(kept.map(({ form }) => form)).toEqual(['segment', 'segment', 'segment', 'arc']);
    expect(total(kept)).toBeCloseTo(20 + 20 + 9 + 8 * Math.PI, 6);
    expect(extentOf(kept.map(boxOf)).high[0]).toBeCloseTo(43, 9);
    const [circle] = kept.filter(({ form }) => form === 'arc');
    expect(boxOf(circle!)).toEqual({ low: [29, 1], high: [37, 9] });
  });

  test('between two values there is just what lies between them', () => {
    const inside = ({ low, high }: { low: Vec2; high: Vec2 }) => low[1] > 1.999 && high[1] < 6.001;
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: -10, max: 20, noNaN: true }),
        (r, y) => {
          const arc = arcBetween('', [0, y], r, [r, y], [-r, y]);
          const within = between([arc], 1, 2, 6);
          expect(within.map(boxOf).every(inside)).toBe(true);
          const whole = [between([arc], 1, -Infinity, 2), within, between([arc], 1, 6, Infinity)].flat();
          expect(total(whole)).toBeCloseTo(total([arc]), 6);
        },
      ),
    );
  });

  test('a thin line with a zigzag stands on either side of the gap, beyond the view', () => {
    const lines = breakLines(placing, { low: [0, 0], high: [43, 9] });
    expect(lines).toHaveLength(10);
    const { low, high } = extentOf(lines.map(boxOf));
    expect([low, high]).toEqual([
      [19, -2],
      [24, 11],
    ]);
    expect(breakLines({ factor: 1, at: [0, 0] }, { low: [0, 0], high: [9, 9] })).toEqual([]);
  });
});

describe('what is left out', () => {
  /** A view of lines. */
  const shown = (id: string, view: View, eye: ShownView['seen']['eye'], pieces: readonly Piece[]): ShownView => ({
    seen: { id, view, eye, drawn: { lines: [], pieces: [], cutFaces: [] }, bodies: [] },
    layers: [{ line: 'visible', pieces }],
    box: boxAround(pieces.flatMap(({ from, to }) => [from, to])),
  });
  const bar = (length: number, ...ups: number[]) => [
    ...frameOf([0, 0], [length, 10]),
    ...ups.map((x) => segment([x, 0], [x, 10])),
  ];
  const front = (pieces: readonly Piece[], broken = false) =>
    shown('f', { kind: 'base', from: 'front', broken }, SIDE_EYES.front, pieces);

  test('the long stretches over which nothing changes, with some kept on either side', () => {
    const of = (...ups: number[]) => breaksOf([front(bar(300, ...ups), true)]).get('f')?.x;
    expect(of()).toEqual([[15, 285]]);
    expect(of(100)).toEqual([
      [15, 85],
      [115, 285],
    ]);
    // a hole takes its width; the shorter side is not worth it
    expect(breaksOf([front([...bar(300), fullCircle('', [60, 5], 3)], true)]).get('f')!.x).toEqual([[78, 285]]);
    // a stretch that is not long against the view is kept
    expect(of(50, 100, 150, 200, 250)).toBeUndefined();
    expect(breaksOf([front(bar(300))]).size).toBe(0);
    // no middle is left out of what is not long
    expect(breaksOf([front(bar(16), true)]).get('f')!.x).toEqual([[4.8, 11.2]]);
    expect(breaksOf([front(bar(14), true)]).size).toBe(0);
  });

  test('nothing is left out where a line slants', () => {
    expect(breaksOf([front([...bar(300), segment([0, 0], [300, 1])], true)]).size).toBe(0);
  });

  test('a view that is folded out along the axis leaves out the same, and what changes there counts too', () => {
    const below: View = { kind: 'projected', of: 'f', beside: 'below' };
    const top = (pieces: readonly Piece[], more: object = {}) =>
      shown('t', { ...below, ...more }, BESIDE_EYES.below(SIDE_EYES.front), pieces);
    const both = breaksOf([front(bar(300), true), top(bar(300, 200))]);
    expect(both.get('f')).toEqual(both.get('t'));
    expect(both.get('t')!.x).toEqual([
      [15, 185],
      [215, 285],
    ]);
    // whichever of them asks for it
    expect(breaksOf([front(bar(300)), top(bar(300, 200), { broken: true })])).toEqual(both);
    // a view from the side shares the other axis
    const side = shown(
      'r',
      { kind: 'projected', of: 'f', beside: 'right' },
      BESIDE_EYES.right(SIDE_EYES.front),
      bar(20),
    );
    expect(breaksOf([front(bar(300), true), side]).has('r')).toBe(false);
  });
});
