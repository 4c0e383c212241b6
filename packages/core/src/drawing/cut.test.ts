import fc from 'fast-check';
import { frameOn, type Frame, type Vec2 } from '../math/index.ts';
import { areaShare, fullCircle, lengthOf } from '../sketch/pieces/index.ts';
import { balloons } from './balloons.ts';
import { clipped, runsWithin } from './clip.ts';
import { cutMark } from './cut-mark.ts';
import { cutAway, cutLine, cutPlanes, type Cut, type CutLine } from './cut.ts';
import { SIDE_EYES } from './eyes.ts';
import { besideList, LIST_WIDTH, listHeight, partsList } from './parts-list.ts';
import { segment } from './picture.ts';
import { scaleFactor, SCALE_NAMES, scaleName } from './scales.ts';

const front = (y: number): Frame => frameOn([0, y, 0], [0, -1, 0]);
const right = (x: number, way: 1 | -1 = 1): Frame => frameOn([x, 0, 0], [way, 0, 0]);
function line(cut: Cut): CutLine {
  const told = cutLine(cut);
  if (!told.ok) throw new Error(told.issue.code);
  return told.value;
}
const areas = (cut: CutLine, reach: number) =>
  cutAway(cut, reach).regions.map(({ outer }) => outer.reduce((sum, piece) => sum + areaShare(piece), 0));

describe('where something is cut open', () => {
  test('at a plane: all that is in front of it goes', () => {
    const cut = line({ plane: front(2), steps: [] });
    expect(cut.stretches).toEqual([{ from: -Infinity, to: Infinity, height: 0 }]);
    expect(areas(cut, 10)[0]).toBeCloseTo(20 * 10, 9);
    expect(cutPlanes(cut)[0]!.z).toEqual([0, -1, 0]);
  });

  test('by half: from another plane on it is left whole', () => {
    const cut = line({ plane: front(0), steps: [{ at: right(3), plane: undefined }] });
    expect(areas(cut, 10)).toHaveLength(1);
    expect(areas(cut, 10)[0]).toBeCloseTo(13 * 10, 9);
  });

  test('at several planes side by side, told in any order: as much goes as lies in front of each', () => {
    const steps = [
      { at: right(6), plane: front(4) },
      { at: right(-2), plane: front(-5) },
    ];
    const cut = line({ plane: front(0), steps });
    // the front of a front plane is at smaller y: one at y = -5 stands 5 nearer
    expect(cut.stretches.map(({ height }) => height)).toEqual([0, 5, -4]);
    expect(areas(cut, 10)[0]).toBeCloseTo(8 * 10 + 8 * 5 + 4 * 14, 9);
    expect(cutPlanes(cut).map(({ origin }) => origin[1])).toEqual([0, -5, 4]);
  });

  test('left whole in between, it goes in two pieces', () => {
    const steps = [
      { at: right(-2), plane: undefined },
      { at: right(2), plane: front(0) },
    ];
    const cut = line({ plane: front(0), steps });
    expect(areas(cut, 10)).toHaveLength(2);
    for (const area of areas(cut, 10)) expect(area).toBeCloseTo(80, 9);
  });

  test('planes that lean to each other are refused', () => {
    const code = (cut: Cut) => {
      const told = cutLine(cut);
      return told.ok ? undefined : told.issue.code;
    };
    const leaning = frameOn([0, 0, 0], [0.6, 0.8, 0]);
    expect(code({ plane: front(0), steps: [{ at: leaning, plane: undefined }] })).toBe('cut.across');
    expect(code({ plane: front(0), steps: [{ at: front(3), plane: undefined }] })).toBe('cut.across');
    expect(code({ plane: front(0), steps: [{ at: right(0), plane: leaning }] })).toBe('cut.beside');
  });

  test('its line has bends where it goes on, and an arrow at either end', () => {
    const cut = line({ plane: front(5), steps: [{ at: right(20), plane: front(15) }] });
    const box = { low: [0, 0], high: [40, 20] } as const;
    const { strokes, letters } = cutMark(cut, SIDE_EYES.top, { factor: 1, at: [0, 0], box });
    const chain = strokes.find((stroke) => stroke.line === 'centre')!.pieces;
    expect(chain).toHaveLength(3);
    expect(chain.map(({ from }) => from[1])).toEqual([5, 5, 15]);
    expect(chain[1]!.from[0]).toBeCloseTo(20, 9);
    expect(letters).toHaveLength(2);
    // wide at both ends and at both bends, either way
    expect(strokes.find((stroke) => stroke.line === 'visible')!.pieces).toHaveLength(6);
  });
});

test('of lines there is left in a circle just what lies in it', () => {
  const c = fc.double({ min: -9, max: 9, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(c, c, c, c), ([a, b, x, y]) => {
      fc.pre(Math.hypot(a - x, b - y) > 0.01);
      const piece = segment([a, b], [x, y]);
      const left = clipped([piece], { centre: [0, 0], radius: 4 }).reduce((sum, one) => sum + lengthOf(one), 0);
      const steps = 4000;
      const inside = Array.from({ length: steps }, (_, k) => (k + 0.5) / steps).filter(
        (t) => Math.hypot(a + t * (x - a), b + t * (y - b)) < 4,
      );
      expect(Math.abs(left - (lengthOf(piece) * inside.length) / steps)).toBeLessThan(0.03);
    }),
  );
  // two circles through each other: the arc of the one within the other, by its chord
  const [arc, ...more] = clipped([fullCircle('', [4, 0], 4)], { centre: [0, 0], radius: 4 });
  expect(more.length).toBeLessThanOrEqual(1);
  const length = [arc!, ...more].reduce((sum, one) => sum + lengthOf(one), 0);
  expect(length).toBeCloseTo((4 * 2 * Math.PI) / 3, 6);
});

test('a line that leaves a circle and comes back is followed there in runs', () => {
  const circle = { centre: [0, 0], radius: 5 } as const;
  const path: Vec2[] = [
    [-3, 0],
    [0, 0],
    [0, 9],
    [4, 9],
    [4, -9],
  ];
  const runs = runsWithin(path, circle);
  expect(runs.map((run) => run.map((at) => at.map((c) => Math.round(c * 1e6) / 1e6 + 0)))).toEqual([
    [
      [-3, 0],
      [0, 0],
      [0, 5],
    ],
    [
      [4, 3],
      [4, -3],
    ],
  ]);
  expect(runsWithin([[1, 2]], circle)).toEqual([[[1, 2]]]);
  expect(runsWithin([[6, 0]], circle)).toEqual([]);
});

describe('the list of parts', () => {
  const parts = Array.from({ length: 12 }, (_, k) => ({
    part: `p${k}`,
    name: `Part ${k}`,
    count: k + 1,
    material: 'Beech',
  }));

  test('grows upwards from its heads, with as many rows as parts', () => {
    const { letters } = partsList(parts, [200, 50]);
    const height = (text: string) => letters.find((one) => one.text === text)!.at[1];
    expect(height('Part 11')).toBeGreaterThan(height('Part 0'));
    expect(height('Part 0')).toBeGreaterThan(height('No.'));
    expect(letters.filter(({ text }) => text === 'Beech')).toHaveLength(12);
  });

  test('what is left of the paper does not lie under it, whatever its shape', () => {
    const side = fc.double({ min: 150, max: 800, noNaN: true });
    fc.assert(
      fc.property(side, side, fc.integer({ min: 0, max: 20 }), (w, h, rows) => {
        const { low, high } = besideList({ low: [20, 40], high: [20 + w, 40 + h] }, rows);
        const isOver = rows === 0 || low[1] >= 40 + listHeight(rows) - 1e-9;
        expect(isOver || high[0] <= 20 + w - LIST_WIDTH + 1e-9).toBe(true);
        expect(high[0] - low[0]).toBeGreaterThan(0);
        expect(high[1] - low[1]).toBeGreaterThan(0);
      }),
    );
  });

  test('numbers stand round the view, none on another, each with a leader to a line of its part', () => {
    const place = fc.tuple(fc.double({ min: 0, max: 90, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }));
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 16 }), (places) => {
        const box = { low: [0, 0], high: [90, 60] } as const;
        const numbered = places.map(([x, y], k) => ({ number: k + 1, seen: [segment([x, y], [x + 1, y])] }));
        const made = balloons(numbered, box, { height: 2.5, avoid: [], before: [] });
        const [letters, strokes] = [made.flatMap((one) => one.letters), made.flatMap((one) => one.strokes)];
        const taken = made.map((one) => one.taken);
        expect(letters.map(({ text }) => text)).toEqual(places.map((_, k) => `${k + 1}`));
        for (const [k, { text }] of taken.entries()) {
          const apart = (at: Vec2) => at[0] < 0 || at[0] > 90 || at[1] < 0 || at[1] > 60;
          expect([text.low, text.high].some(apart)).toBe(true);
          for (const other of taken.slice(k + 1)) {
            const gap = [0, 1].map(
              (i) => Math.max(text.low[i]!, other.text.low[i]!) - Math.min(text.high[i]!, other.text.high[i]!),
            );
            expect(Math.max(...gap)).toBeGreaterThanOrEqual(0);
          }
          const [x, y] = places[k]!;
          const ends = strokes[k]!.pieces.flatMap(({ from, to }) => [from, to]);
          expect(Math.min(...ends.map((end) => Math.hypot(end[0] - x - 0.5, end[1] - y)))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 40 },
    );
  });
});

test('factors are called by their scales, also those that are no usual ones', () => {
  for (const name of SCALE_NAMES) expect(scaleName(scaleFactor(name))).toBe(name);
  expect([scaleName(4), scaleName(0.4)]).toEqual(['4:1', '1:2.5']);
});
