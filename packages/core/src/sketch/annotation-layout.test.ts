import type { Vec2 } from '../math/index.ts';
import { laidOutFreely, type Taken } from './annotation-layout.ts';

/** A text of 4 by 2 that can stand in one of some places. */
const text = (places: readonly Vec2[], more: Partial<Taken> = {}) => ({
  places: () => places,
  draw: ([x, y]: Vec2): Taken => ({ text: { low: [x - 2, y - 1], high: [x + 2, y + 1] }, lines: [], ...more }),
});
const placed = (...items: ReturnType<typeof text>[]) =>
  laidOutFreely(items, (drawn) => drawn, [], 1).map(({ text: { low, high } }) => [
    (low[0] + high[0]) / 2,
    (low[1] + high[1]) / 2,
  ]);
const extension = {
  thin: [
    [
      [10, -5],
      [10, 5],
    ],
  ],
} as const;

test('a text keeps off extension lines, whichever comes first, where there is another place', () => {
  const size = text([[0, 8]], extension);
  expect(placed(size, text([[9, 0], [20, 0]]))).toEqual([[0, 8], [20, 0]]); // prettier-ignore
  // what extends past a text stands elsewhere: here its lines are told by where it stands
  const moving = {
    places: () => [[0, 8], [0, 30]] as const, // prettier-ignore
    draw: ([x, y]: Vec2): Taken => ({
      text: { low: [x - 2, y - 1], high: [x + 2, y + 1] },
      lines: [],
      thin: [[[10, y - 13], [10, y - 3]]], // prettier-ignore
    }),
  };
  expect(placed(text([[9, 0]]), moving as never)[1]).toEqual([0, 30]);
});

test('lines may cross extension lines, and where there is no other place a text stands on one rather than on another text', () => {
  const across = text([[0, -8]], { lines: [[[5, 0], [15, 0]]] }); // prettier-ignore
  expect(placed(text([[0, 8]], extension), across)[1]).toEqual([0, -8]);
  expect(placed(text([[0, 8]], extension), text([[0, 8], [9, 0]]))[1]).toEqual([9, 0]); // prettier-ignore
});
