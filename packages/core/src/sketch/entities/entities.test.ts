import fc from 'fast-check';
import { distance2, type Vec2 } from '../../math/index.ts';
import {
  chordKnots,
  entityKind,
  entitySchema,
  filled,
  findRegions,
  Geometry,
  splineSpans,
  type Entities,
} from '../index.ts';
import { along, derivatives, lengthOf } from '../pieces/index.ts';
import { point } from '../test-scene.ts';

const number = fc.double({ min: -50, max: 50, noNaN: true });
const place = fc.tuple(number, number) as fc.Arbitrary<Vec2>;

const throughPoints = fc
  .array(place, { minLength: 2, maxLength: 9 })
  .filter((places) => places.every((p, k) => k === 0 || distance2(p, places[k - 1]!) > 1));

describe('spline', () => {
  test('goes through its points, with one direction and one curvature over each of them (property)', () => {
    fc.assert(
      fc.property(throughPoints, place, place, (through, start, end) => {
        const knots = chordKnots(through);
        const spans = splineSpans('s', knots, [start, ...through, end]);
        expect(spans.length).toBe(through.length - 1);
        spans[0]!.inner[0].forEach((c, k) => expect(c).toBeCloseTo(start[k]!, 9));
        spans.at(-1)!.inner[1].forEach((c, k) => expect(c).toBeCloseTo(end[k]!, 9));
        for (let k = 1; k < spans.length; k++) {
          const [h0, h1] = [knots[k]! - knots[k - 1]!, knots[k + 1]! - knots[k]!];
          const [before, after] = [derivatives(spans[k - 1]!, 1), derivatives(spans[k]!, 0)];
          // by the parameter of the whole spline; second derivatives grow with the square of short spans
          const scale = 1 + distance2(before[0], [0, 0]) / h0 + distance2(before[1], [0, 0]) / h0 ** 2;
          for (const c of [0, 1] as const) {
            expect(Math.abs(before[0][c] / h0 - after[0][c] / h1) / scale).toBeLessThan(1e-6);
            expect(Math.abs(before[1][c] / h0 ** 2 - after[1][c] / h1 ** 2) / scale).toBeLessThan(1e-6);
          }
        }
      }),
    );
  });

  test('four points of a parabola at even steps, with its tangents, give the parabola', () => {
    const parabola = (x: number): Vec2 => [x, x * x];
    const through = [0, 1, 2, 3].map(parabola);
    // a third of a step along the tangents
    const spans = splineSpans('s', [0, 1, 2, 3], [[1 / 3, 0], ...through, [3 - 1 / 3, 9 - 2]]);
    for (const span of spans)
      for (const t of [0, 0.3, 0.7]) {
        const [x, y] = along(span, t);
        expect(y).toBeCloseTo(x * x, 10);
      }
  });
});

describe('text', () => {
  const lettering = (text: string): Entities => ({
    a: point(0, 0),
    t: point(0, 6.6),
    w: { kind: 'text', at: 'a', top: 't', text },
  });

  test('a letter with a hole is one area with one opening; its capitals are as high as asked', () => {
    const geometry = new Geometry(lettering('O'));
    const { regions, openEnds } = findRegions(geometry);
    expect(openEnds).toEqual([]);
    expect(filled({ regions, openEnds }).map(({ holes }) => holes.length)).toEqual([1]);
    const { high, low } = new Geometry(lettering('H')).box()!;
    expect(low[1]).toBeCloseTo(0, 9);
    expect(high[1]).toBeCloseTo(6.6, 9);
  });

  test.each(['Helb 24', 'Äpfel', 'B8%'])('the outlines of "%s" are closed', (text) => {
    const { openEnds, regions } = findRegions(new Geometry(lettering(text)));
    expect(openEnds).toEqual([]);
    expect(regions.length).toBeGreaterThanOrEqual(text.replaceAll(' ', '').length);
  });

  test('letters that the font does not have are refused', () => {
    expect(entitySchema.safeParse({ kind: 'text', at: 'a', top: 't', text: '漢' }).success).toBe(false);
  });
});

test('a quarter of an ellipse is drawn from point to point, and is an ellipse to relations', () => {
  const entities: Entities = {
    m: point(0, 0),
    a: point(10, 0),
    b: point(0, 4),
    e: { kind: 'ellipse-arc', centre: 'm', tip: 'a', a: 'a', b: 'b', minor: 4 },
  };
  const [piece] = new Geometry(entities).pieces('e');
  expect(along(piece!, 0.5)[0]).toBeCloseTo(10 * Math.SQRT1_2, 9);
  expect(along(piece!, 0.5)[1]).toBeCloseTo(4 * Math.SQRT1_2, 9);
  expect(lengthOf(piece!)).toBeGreaterThan(Math.hypot(10, 4));
  expect(entityKind('ellipse-arc').role).toBe('ellipse');
});
