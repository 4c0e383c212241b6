import fc from 'fast-check';
import { ORIGIN, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import type { ToolName } from './tools.ts';

type Desk = ReturnType<typeof desk>;

const move = ({ editor }: Desk, at: Vec2) => editor.pointer('move', { at, reach: 1, free: false, add: false });

function type({ editor }: Desk, ...texts: string[]) {
  editor.key('Tab');
  texts.forEach((text, k) => {
    if (k > 0) editor.typing.step(1);
    editor.typing.type(text);
  });
  return editor.typing.take();
}

const centreOf = ({ editor }: Desk): Vec2 => {
  const circle = Object.values(editor.geometry.entities).findLast((entity) => entity.kind === 'circle')!;
  return editor.geometry.point(circle.centre);
};
const corner = (d: Desk) =>
  Object.keys(d.editor.geometry.entities).find((id) => d.editor.geometry.roleOf(id) === 'point')!;

/** A rectangle whose first corner lies at 80 / 140, the circle in hand. */
function beside() {
  const d = desk();
  d.draw('rectangle', [80, 140], [150, 0.5]);
  d.editor.take('circle');
  return d;
}

test('a circle is drawn so far from a corner that was touched, on the side of the pointer, and kept there', () => {
  const d = beside();
  move(d, [80, 140]);
  move(d, [101, 133]);
  expect(type(d, '24', '14').ok).toBe(true);
  move(d, [110, 133]);
  type(d, '8');
  expect(centreOf(d)).toEqual([104, 126]);
  expect(Object.values(d.editor.relations)).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ kind: 'distance', a: corner(d), direction: 'horizontal', sense: 1, value: '24' }),
      expect.objectContaining({ kind: 'distance', a: corner(d), direction: 'vertical', sense: -1, value: '14' }),
      expect.objectContaining({ kind: 'diameter', value: '8' }),
    ]),
  );
});

test('what was touched is marked, and forgotten when a tool is taken in hand anew', () => {
  const d = beside();
  move(d, [80, 140]);
  move(d, [101, 133]);
  const marked = () => d.editor.snapshot.tool.preview.tags.filter(({ mark }) => mark === '0').map(({ at }) => at);
  expect(marked()).toEqual([[80, 140]]);
  d.editor.key('2');
  expect(marked()).toEqual([[80, 140]]);
  d.editor.take('circle');
  move(d, [101, 133]);
  expect(marked()).toEqual([]);
});

test('what is left to the pointer is guessed as ever: level with the centre that was touched, so far to its right', () => {
  const d = beside();
  d.draw('circle', [104, 126], [108, 126]);
  d.editor.take('circle');
  move(d, [104, 126]);
  move(d, [120, 126.3]);
  type(d, '28');
  type(d, '8');
  expect(centreOf(d)).toEqual([132, 126]);
  expect(d.kinds().filter((kind) => kind === 'horizontal').length).toBe(3);
});

test.each(['circle', 'polygon'] as const)('before a %s is begun letters are verbs: = goes before a name', (tool) => {
  const d = beside();
  d.editor.take(tool);
  move(d, [80, 140]);
  move(d, [101, 133]);
  expect([d.editor.key('w'), d.editor.typing.entry]).toEqual([false, undefined]);
  expect(d.editor.key('=')).toBe(true);
  expect(d.editor.typing.entry!.texts).toEqual(['', '']);
});

test('straight below what was touched the first number is how far below', () => {
  const d = beside();
  d.draw('circle', [104, 126], [108, 126]);
  d.editor.take('circle');
  move(d, [104, 126]);
  move(d, [104.2, 110]);
  d.editor.key('2');
  d.editor.typing.type('24');
  d.editor.typing.take();
  type(d, '8');
  expect(centreOf(d)).toEqual([104, 102]);
  expect(d.kinds()).toContain('vertical');
});

test('straight below what was touched it stays so, though a curve lies nearer', () => {
  const d = beside();
  d.draw('chain', [70, 93], [95, 118]);
  d.editor.escape();
  d.editor.take('circle');
  move(d, [80, 140]);
  move(d, [80.2, 103.4]);
  d.editor.key('2');
  d.editor.typing.type('38');
  d.editor.typing.take();
  type(d, '8');
  expect(centreOf(d)).toEqual([80, 102]);
});

test('nothing touched, numbers count from the origin, and nothing keeps it on the axis', () => {
  const d = desk();
  d.editor.take('circle');
  move(d, [-12, 7]);
  expect(type(d, '30', '0').ok).toBe(true);
  move(d, [-20, 20]);
  type(d, '8');
  expect(centreOf(d)).toEqual([-30, 0]);
  expect(Object.values(d.editor.relations)).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ kind: 'distance', a: ORIGIN, direction: 'horizontal', sense: -1, value: '30' }),
      expect.objectContaining({ kind: 'coincident', b: 'x-axis' }),
    ]),
  );
  expect(d.editor.solved.solution.clash).toEqual([]);
});

test('a chain begins where it was typed to, and a name that is made there is there for its first line', () => {
  const d = desk();
  d.editor.take('chain');
  move(d, [9, 9]);
  expect(type(d, 'edge = 12', 'edge / 2').ok).toBe(true);
  move(d, [40, 9]);
  expect(type(d, 'edge * 3', '0').ok).toBe(true);
  const [line] = Object.keys(d.editor.geometry.entities).filter((id) => d.editor.geometry.roleOf(id) === 'line');
  expect(d.editor.geometry.line(line!)).toEqual({ a: [12, 6], b: [48, 6] });
  expect(Object.values(d.project().values)).toMatchObject([{ name: 'edge' }]);
});

test('of any figure, from any side, the first place is where it was typed to be', () => {
  const tools: ToolName[] = [
    'circle',
    'rectangle',
    'centred rectangle',
    'slot',
    'polygon',
    'ellipse',
    'point',
    'chain',
  ];
  const amount = fc.integer({ min: 1, max: 400 }).map((n) => n / 4);
  fc.assert(
    fc.property(
      fc.constantFrom(...tools),
      amount,
      amount,
      fc.boolean(),
      fc.boolean(),
      (tool, level, upright, left, below) => {
        const d = desk();
        d.editor.take(tool);
        const at: Vec2 = [left ? -50.3 : 50.3, below ? -41.7 : 41.7];
        move(d, at);
        type(d, String(level), String(upright));
        if (tool !== 'point')
          for (const by of [
            [31, 17],
            [12, 43],
          ] as const)
            d.click([at[0] + by[0], at[1] + by[1]]);
        const aimed: Vec2 = [left ? -level : level, below ? -upright : upright];
        const points = Object.values(d.editor.geometry.entities).filter((entity) => entity.kind === 'point');
        const near = Math.min(...points.map(({ x, y }) => Math.hypot(x - aimed[0], y - aimed[1])));
        expect(near).toBeLessThan(1e-9);
      },
    ),
    { numRuns: 60 },
  );
});

test.each<[texts: string[], pointer: Vec2, place: Vec2, values: string[]]>([
  [
    ['4', '1.4'],
    [-0.1, -0.2],
    [4, 1.4],
    ['4', '1.4'],
  ],
  [
    ['-6.5', '0'],
    [0.1, 0.2],
    [-6.5, 0],
    ['6.5', ''],
  ],
  [
    ['-6.5', '3'],
    [50, -40],
    [-6.5, -3],
    ['6.5', '3'],
  ],
  [
    ['-(2 + 3)', '7'],
    [50, 40],
    [-5, 7],
    ['-(-(2 + 3))', '7'],
  ],
])('%j typed with the pointer at %j is the place %j', (texts, pointer, place, values) => {
  const d = desk();
  d.editor.take('circle');
  move(d, pointer);
  for (const key of texts[0]![0]!) expect(d.editor.key(key)).toBe(true);
  expect(type(d, ...texts).ok).toBe(true);
  d.click([80, 90]);
  expect(centreOf(d)).toEqual([expect.closeTo(place[0], 9), expect.closeTo(place[1], 9)]);
  const told = Object.values(d.editor.relations).map((relation) =>
    relation.kind === 'distance' ? relation.value : '',
  );
  expect(told.filter(Boolean)).toEqual(values.filter(Boolean));
});
