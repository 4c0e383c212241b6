import { distance2, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';

// Lines that are drawn from or to rims are guessed to touch them.

const two = () => {
  const hand = desk();
  hand.draw('circle', [0, 0], [22, 0]);
  hand.draw('circle', [80, 10], [98, 10]);
  return hand;
};
const lines = ({ editor }: ReturnType<typeof desk>) =>
  Object.entries(editor.sketch.entities).flatMap(([id, { kind }]) =>
    kind === 'line' ? [editor.geometry.line(id)] : [],
  );

test('a belt: two lines from rim to rim, each roughly clicked, and a closed area between them', () => {
  const hand = two();
  const { editor } = hand;
  for (const [from, to] of [
    [
      [2, 21.9],
      [78, 27.9],
    ],
    [
      [1, -22],
      [82, -7.9],
    ],
  ] as [Vec2, Vec2][]) {
    editor.take('chain');
    hand.click(from);
    editor.pointer('move', { at: to, reach: 1, free: false, add: false });
    expect(editor.tool.preview.tags.filter(({ mark }) => mark === 'T')).toHaveLength(2);
    // the length that is told is that of the line that will be
    expect(editor.tool.sizes![0]!.now).toBeCloseTo(Math.sqrt(80 ** 2 + 10 ** 2 - 4 ** 2), 9);
    hand.click(to);
    editor.take('select');
  }
  expect(hand.kinds()).toEqual([
    'coincident',
    'coincident',
    'coincident',
    'coincident',
    'coincident',
    'tangent',
    'tangent',
    'tangent',
    'tangent',
  ]);
  // the centres are 80.62 apart, the radii differ by 4
  const long = Math.sqrt(80 ** 2 + 10 ** 2 - 4 ** 2);
  for (const { a, b } of lines(hand)) expect(distance2(a, b)).toBeCloseTo(long, 9);
  // two circles and what the lines enclose between them
  expect(editor.solved.regions.regions.length).toBeGreaterThanOrEqual(3);
  // the centre of the second, and both radii
  expect(hand.state()).toEqual(['loose', 4]);
});

test('from a corner to a rim, or from a rim to a corner; with the key held it goes where it was clicked', () => {
  const hand = desk();
  hand.draw('circle', [0, 0], [30, 0]);
  hand.draw('chain', [-50, 0], [-17, 24]);
  const [{ a, b }] = lines(hand) as [{ a: Vec2; b: Vec2 }];
  expect([a, distance2(a, b)]).toEqual([[-50, 0], expect.closeTo(40, 9)]);
  expect(hand.kinds().filter((kind) => kind === 'tangent')).toHaveLength(1);

  const free = desk();
  free.draw('circle', [0, 0], [30, 0]);
  free.editor.take('chain');
  free.click([-50, 0], { free: true });
  free.click([-17, 24], { free: true });
  expect(free.kinds()).toEqual(['coincident']);
});

test('where a rim and an axis cross, a line ends on both: across a circle without a tie more', () => {
  const hand = desk();
  hand.draw('circle', [0, 0], [30, 0]);
  hand.draw('chain', [-29.6, 0.4], [29.5, -0.3]);
  const [{ a, b }] = lines(hand) as [{ a: Vec2; b: Vec2 }];
  expect([distance2(a, [-30, 0]), distance2(b, [30, 0])]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
  expect(hand.kinds()).toEqual(Array(5).fill('coincident'));
  // only the radius is free, and there are two half discs
  expect(hand.state()).toEqual(['loose', 1]);
  expect(hand.editor.solved.regions.regions).toHaveLength(2);
});

test('where it would touch far away it ends on the rim', () => {
  const hand = desk();
  hand.draw('circle', [0, 0], [30, 0]);
  hand.draw('chain', [-50, 10], [-29, 7]);
  expect(hand.kinds().filter((kind) => kind === 'tangent')).toEqual([]);
});
