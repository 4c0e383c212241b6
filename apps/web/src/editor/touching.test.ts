import { distance2, type SizedRelation, type Vec2 } from '@helb/core';
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

test('a chain whose last piece was undone goes on from where that began', () => {
  const hand = desk();
  hand.editor.take('chain');
  for (const at of [[5, 5], [40, 5], [40, 30]] as const) hand.click([...at]); // prettier-ignore
  hand.undo();
  hand.click([60, 25]);
  const lines = () =>
    Object.values(hand.editor.geometry.entities).flatMap((entity) =>
      entity.kind === 'line' ? [[hand.editor.geometry.point(entity.a), hand.editor.geometry.point(entity.b)]] : [],
    );
  expect(lines()).toEqual([
    [[5, 5], [40, 5]],
    [[40, 5], [60, 25]],
  ]); // prettier-ignore
  hand.undo();
  hand.undo();
  hand.click([5, 40]);
  expect(lines()).toEqual([[[5, 5], [5, 40]]]); // prettier-ignore
  // and closes at where it begins now
  hand.click([20, 40]);
  hand.click([5, 5]);
  expect(hand.editor.solved.regions.regions).toHaveLength(1);
});

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

test('from rim to rim it touches both, also where it was clicked near an axis', () => {
  const hand = two();
  // from where the y axis crosses the first; the line that touches both begins beside it
  hand.draw('chain', [0.3, 22.1], [78, 27.9]);
  const [{ a, b }] = lines(hand) as [{ a: Vec2; b: Vec2 }];
  expect(distance2(a, b)).toBeCloseTo(Math.sqrt(80 ** 2 + 10 ** 2 - 4 ** 2), 9);
  expect(hand.kinds().filter((kind) => kind === 'tangent')).toHaveLength(2);
  expect(hand.kinds().filter((kind) => kind === 'coincident')).toHaveLength(3);
  // across both, from axis to axis, none touches: they end where they were clicked
  const across = desk();
  across.draw('circle', [0, 0], [20, 0]);
  across.draw('circle', [70, 0], [90, 0]);
  across.draw('chain', [-20, 0.3], [90, -0.3]);
  expect(across.kinds()).not.toContain('tangent');
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

test('a line beside another stays so when it is cut off or prolonged: nothing comes loose, the distance still leads', () => {
  const hand = desk();
  const { editor } = hand;
  hand.draw('circle', [0, 0], [4.5, 0]);
  hand.draw('chain', [0, 0], [0, 14]);
  editor.take('offset');
  hand.click([0, 9]);
  hand.click([1.5, 9]);
  expect(editor.answer('1.5').ok).toBe(true);
  const [copy] = Object.entries(editor.geometry.entities).findLast(([, { kind }]) => kind === 'line')!;
  const { freedoms } = editor.solved.solution;
  const ends = () => {
    const { solution } = editor.solved;
    expect([solution.freedoms, solution.redundant]).toEqual([freedoms, []]);
    const { a, b } = editor.geometry.line(copy);
    return [a, b].toSorted((p, q) => p[1] - q[1]);
  };
  const foot = Math.sqrt(4.5 ** 2 - 1.5 ** 2);
  editor.take('trim');
  hand.click([1.5, 2]);
  expect(ends()).toEqual([[1.5, foot], [1.5, 14]].map((at) => at.map((c) => expect.closeTo(c, 9)))); // prettier-ignore
  editor.take('extend');
  hand.click([1.5, foot + 1]);
  expect(ends()[0]).toEqual([1.5, -foot].map((c) => expect.closeTo(c, 9)));
  const [size, relation] = Object.entries(editor.relations).find(([, { kind }]) => kind === 'offset')!;
  editor.ask(relation as SizedRelation, size);
  expect(editor.answer('2').ok).toBe(true);
  expect(ends()[0]![0]).toBeCloseTo(2, 9);
});
