import fc from 'fast-check';
import { frameOn, IDENTITY, type Vec2 } from '../math/index.ts';
import type { Topology } from '../kernel-port/index.ts';
import { along, fullCircle, lengthOf, scaled, type Piece } from '../sketch/pieces/index.ts';
import { centreLines } from './centre-lines.ts';
import { notCovered } from './covered.ts';
import { cutLine } from './cut.ts';
import { cutMark } from './cut-mark.ts';
import { SIDE_EYES } from './eyes.ts';
import { flatPieces } from './flat.ts';
import { hatching } from './hatching.ts';
import { frameOf, segment } from './picture.ts';

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const place = fc.tuple(coordinate, coordinate) as fc.Arbitrary<Vec2>;

describe('hatching', () => {
  test('covers the area of what is cut and leaves openings free', () => {
    const rims = [...frameOf([0, 0], [40, 30]), fullCircle('', [20, 15], 8)];
    const lines = hatching(rims, Math.PI / 4, 0.5);
    const covered = lines.reduce((sum, line) => sum + lengthOf(line) * 0.5, 0);
    expect(covered / (40 * 30 - Math.PI * 64)).toBeCloseTo(1, 2);
    for (const { from, to } of lines) {
      const [mx, my] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      expect(Math.hypot(mx - 20, my - 15)).toBeGreaterThan(7.9);
      expect(to[1] - from[1]).toBeCloseTo(to[0] - from[0], 9);
    }
  });

  test('nothing is hatched without an outline', () => expect(hatching([], 0, 1)).toEqual([]));
});

describe('what is drawn over', () => {
  test('of a line the stretches stay on which no other lies', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(place, place, fc.array(fc.tuple(share, share), { maxLength: 5 }), (from, to, spans) => {
        fc.pre(Math.hypot(to[0] - from[0], to[1] - from[1]) > 1);
        const at = (t: number): Vec2 => [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1])];
        const over = spans.filter(([a, b]) => Math.abs(a - b) > 1e-3).map(([a, b]) => segment(at(a), at(b)));
        const left = notCovered([segment(from, to)], over);
        const length = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + lengthOf(piece), 0);
        const grid = Array.from({ length: 2000 }, (_, k) => (k + 0.5) / 2000);
        const free = grid.filter(
          (t) => !spans.some(([a, b]) => Math.abs(a - b) > 1e-3 && t > Math.min(a, b) && t < Math.max(a, b)),
        );
        expect(length(left) / lengthOf(segment(from, to))).toBeCloseTo(free.length / 2000, 2);
      }),
      { numRuns: 50 },
    );
  });

  test('a circle behind the same circle is left out, another is not', () => {
    const [a, b] = [fullCircle('', [3, 4], 5), fullCircle('', [3, 4], 5.01)];
    expect(notCovered([a], [fullCircle('', [3, 4], 5)])).toEqual([]);
    expect(notCovered([a], [b])).toEqual([a]);
  });
});

describe('curves of views as pieces', () => {
  test('run counter-clockwise whichever way they are told, and keep their ends', () => {
    const ends = { from: [5, 0, 0], to: [0, 5, 0] } as const;
    const [up] = flatPieces({ form: 'circle', centre: [0, 0, 0], axis: [0, 0, 1], radius: 5, ...ends });
    expect(up).toMatchObject({ form: 'arc', from: [5, 0], to: [0, 5] });
    expect(lengthOf(up!)).toBeCloseTo((5 * Math.PI) / 2, 9);
    const [down] = flatPieces({ form: 'circle', centre: [0, 0, 0], axis: [0, 0, -1], radius: 5, ...ends });
    expect(lengthOf(down!)).toBeCloseTo((15 * Math.PI) / 2, 9);
    const [oval] = flatPieces({ form: 'ellipse', centre: [1, 2, 0], major: [0, 4, 0], minor: [2, 0, 0] });
    [0, 0.3, 0.8].forEach((t) => {
      const [x, y] = along(oval!, t);
      expect(((x - 1) / 2) ** 2 + ((y - 2) / 4) ** 2).toBeCloseTo(1, 9);
    });
  });

  test('are drawn at a scale', () => {
    fc.assert(
      fc.property(place, fc.double({ min: 0.01, max: 10, noNaN: true }), place, (at, factor, [dx, dy]) => {
        const circle = scaled(fullCircle('', at, 5), factor, [dx, dy]);
        const [x, y] = along(circle, 0.37);
        expect(Math.hypot(x - at[0] * factor - dx, y - at[1] * factor - dy)).toBeCloseTo(5 * factor, 9);
      }),
    );
  });
});

/** A plate with a bore of 6 mm along z in (10, 5), from z = 0 to 8; and a rounded corner, which is no bore. */
const BORED: Topology = {
  name: 'b',
  faces: [
    {
      name: 'bore',
      surface: { form: 'cylinder', origin: [10, 5, 2], axis: [0, 0, 1], radius: 3, hollow: true },
      area: 1,
      centre: [10, 5, 4],
    },
    {
      name: 'corner',
      surface: { form: 'cylinder', origin: [1, 1, 0], axis: [0, 0, 1], radius: 1, hollow: false },
      area: 1,
      centre: [0, 0, 4],
    },
  ],
  edges: [0, 8].flatMap((z) => [
    {
      name: `rim ${z}`,
      faces: ['bore', 'top'],
      curve: { form: 'circle', centre: [10, 5, z], axis: [0, 0, 1], radius: 3 } as const,
      length: 1,
      middle: [0, 0, 0] as const,
    },
    {
      name: `round ${z}`,
      faces: ['corner', 'top'],
      curve: { form: 'circle', centre: [1, 1, z], axis: [0, 0, 1], radius: 1, from: [0, 1, z], to: [1, 0, z] } as const,
      length: 1,
      middle: [0, 0, 0] as const,
    },
  ]),
  vertices: [],
};

describe('centre lines', () => {
  const bodies = [{ topology: BORED, transform: IDENTITY }];
  const whole = { factor: 1, cut: undefined };

  test('a bore is a cross from its end and its axis from the side; a rounded corner has none', () => {
    const cross = centreLines(bodies, SIDE_EYES.top, whole);
    expect(cross.map(({ from, to }) => [from, to])).toEqual([
      [
        [10 - 4.5, 5],
        [10 + 4.5, 5],
      ],
      [
        [10, 5 - 4.5],
        [10, 5 + 4.5],
      ],
    ]);
    const [axis, ...more] = centreLines(bodies, SIDE_EYES.front, whole);
    expect(more).toEqual([]);
    expect([axis!.from, axis!.to].toSorted((a, b) => a[1] - b[1])).toEqual([
      [10, -1.5],
      [10, 9.5],
    ]);
  });

  test('reach as far on paper at any scale; of sections only axes in the cut are drawn', () => {
    const [half] = centreLines(bodies, SIDE_EYES.top, { factor: 0.1, cut: undefined });
    expect(half!.from[0]).toBeCloseTo(10 - 3 - 8, 9);
    const cutAt = (y: number) => frameOn([0, y, 0], [0, -1, 0]);
    expect(centreLines(bodies, SIDE_EYES.front, { factor: 1, cut: [cutAt(5)] })).toHaveLength(1);
    expect(centreLines(bodies, SIDE_EYES.front, { factor: 1, cut: [cutAt(7)] })).toEqual([]);
  });
});

test('where it is cut: a line across the view, its arrows from the side that is left out', () => {
  const plane = frameOn([0, 5, 0], [0, -1, 0]);
  const box = { low: [0, 0], high: [40, 20] } as const;
  const cut = cutLine({ plane, steps: [] });
  if (!cut.ok) throw new Error(cut.issue.code);
  const { strokes, letters } = cutMark(cut.value, SIDE_EYES.top, { factor: 2, at: [0, 0], box });
  const [line] = strokes.find((stroke) => stroke.line === 'centre')!.pieces;
  expect([line!.from[1], line!.to[1]]).toEqual([10, 10]);
  expect(Math.min(line!.from[0], line!.to[0])).toBeLessThan(0);
  expect(Math.max(line!.from[0], line!.to[0])).toBeGreaterThan(40);
  const arrows = strokes.find((stroke) => stroke.line === 'thin')!.pieces;
  expect(arrows[0]!.from[1]).toBeLessThan(arrows[0]!.to[1]);
  expect(letters).toHaveLength(2);
});
