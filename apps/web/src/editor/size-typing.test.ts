import fc from 'fast-check';
import { isSized, relationKind, type Vec2 } from '@helb/core';
import { desk, move, type } from '../../test/drawing-desk.ts';
import type { FigureName } from './figure-recipes.ts';
import type { ToolName } from './tools.ts';

type Desk = ReturnType<typeof desk>;

/** What the dimensions say and measure: "distance 40 → 40". */
const told = ({ editor }: Desk): string[] =>
  Object.values(editor.relations).flatMap((relation) => {
    if (!isSized(relation)) return [];
    const measure = relationKind(relation.kind).dimension!.measure(relation, editor.geometry);
    const shown = relation.kind === 'angle' ? (measure * 180) / Math.PI : measure;
    return [`${relation.kind} ${relation.value} → ${+shown.toFixed(6)}`];
  });

/** Clicks, then numbers for what comes next; what holds, and how many freedoms are left. */
const TYPED: readonly [ToolName & (FigureName | 'chain'), Vec2[], Vec2, string[], string[], number][] = [
  ['chain', [[5, 6]], [30, 17], ['40', '30'], ['distance 40 → 40', 'angle 30 → 30'], 2],
  ['chain', [[5, 6]], [30, 17], ['40'], ['distance 40 → 40'], 3],
  ['chain', [[5, 6]], [30, 17], ['', '200'], ['angle 200 → 200'], 3],
  ['rectangle', [[5, 6]], [-30, 17], ['40', '12.5'], ['distance 40 → 40', 'distance 12.5 → 12.5'], 2],
  ['rectangle', [[5, 6]], [-30, 17], ['', '12'], ['distance 12 → 12'], 3],
  ['centred rectangle', [[5, 6]], [31, 17], ['40', '2 * 9'], ['distance 40 → 40', 'distance 2 * 9 → 18'], 2],
  ['turned rectangle', [[5, 6]], [31, 17], ['40', '-20'], ['distance 40 → 40', 'angle -20 → 340'], 3],
  ['turned rectangle', [[5, 6], [31, 17]], [10, 40], ['14'], ['distance 14 → 14'], 4],
  ['circle', [[15, 16]], [31, 17], ['24'], ['diameter 24 → 24'], 2],
  ['circle by points', [[15, 16], [31, 18]], [22, 60], ['50'], ['diameter 50 → 50'], 2],
  ['arc', [[15, 16], [31, 18]], [22, 60], ['25'], ['radius 25 → 25'], 4],
  ['arc', [[15, 16]], [31, 18], ['20'], ['distance 20 → 20'], 4],
  ['centred arc', [[15, 16]], [31, 18], ['20'], ['radius 20 → 20'], 4],
  ['ellipse', [[15, 16]], [31, 18], ['84'], ['axis 84 → 84'], 4],
  ['ellipse', [[15, 16], [31, 18]], [22, 30], ['34'], ['axis 34 → 34'], 4],
  ['elliptical arc', [[15, 16]], [61, 18], ['84'], ['axis 84 → 84'], 6],
  ['slot', [[15, 16]], [31, 18], ['30', '45'], ['distance 30 → 30', 'angle 45 → 45'], 3],
  ['slot', [[15, 16], [31, 18]], [22, 30], ['8'], ['diameter 8 → 8'], 4],
  ['centred slot', [[15, 16]], [31, 18], ['30'], ['distance 30 → 30'], 4],
  ['arc slot', [[15, 16]], [31, 18], ['30'], ['radius 30 → 30'], 5],
  ['arc slot', [[0, 0], [31, 0], [3, 31]], [22, 30], ['8'], ['diameter 8 → 8'], 2],
  ['polygon', [[15, 16]], [31, 18], ['24', '5'], ['diameter 24 → 24'], 3],
  ['polygon round a circle', [[15, 16]], [31, 18], ['24', '8'], ['diameter 24 → 24'], 3],
  ['text', [[15, 16]], [16, 30], ['7'], ['distance 7 → 7'], 3],
]; // prettier-ignore

/** Clicks that end a figure of this kind. */
const MORE: Partial<Record<ToolName, Vec2[]>> = {
  'elliptical arc': [
    [20, 40],
    [-20, 31],
  ],
  'arc slot': [
    [-3.7, 44.9],
    [10.3, 60.1],
  ],
};
/** And any other: well away from all that could be guessed. */
const AWAY: Vec2[] = [
  [23.3, 71.7],
  [-61.3, 44.9],
  [-33.1, -57.7],
];

test.each(TYPED)('%s after %j, pointer at %j: %j is held', (tool, clicks, at, texts, dimensions, freedoms) => {
  const on = desk();
  on.editor.take(tool);
  for (const place of clicks) on.click(place);
  move(on, at);
  expect(type(on, ...texts)).toEqual({ ok: true, value: undefined });
  for (const place of MORE[tool] ?? AWAY) if (on.labels.length === 0) on.click(place);
  on.editor.take('select');
  expect(told(on)).toEqual(dimensions);
  // the arc of an arc slot and its ends lie on the origin there, which takes two freedoms
  const built = on.editor.solved.solution;
  expect([built.state, built.freedoms]).toEqual(['loose', freedoms]);
});

test('what is typed shows while it is typed, and the pointer decides the rest', () => {
  const on = desk();
  on.editor.take('chain');
  on.click([5, 6]);
  move(on, [35, 6.2]);
  expect(on.editor.snapshot.tool.sizes.map(({ prompt, now }) => `${prompt} ${+now.toFixed(3)}`)).toEqual([
    'length 30',
    'angle 0',
  ]);
  expect(on.editor.key('4')).toBe(true);
  on.editor.typing.type('4');
  on.editor.typing.type('40');
  move(on, [5.3, 60]);
  const [piece] = on.editor.snapshot.tool.preview.pieces;
  expect(piece).toMatchObject({ from: [5, 6], to: [5, 46] });
  on.editor.typing.take();
  // the level guess stays a relation, the length is a dimension
  expect(on.kinds()).toEqual(['distance', 'vertical']);
});

test('a chain goes on behind each number, and a right angle that is typed is no dimension', () => {
  const on = desk();
  on.editor.take('chain');
  on.click([0, 0]);
  move(on, [30, 11]);
  type(on, '60', '0');
  move(on, [70, 11]);
  type(on, '25', '90 deg');
  move(on, [20, 31]);
  type(on, '60', '180°');
  on.click([0, 0]);
  expect(on.editor.solved.regions.regions.map(({ area }) => +area.toFixed(6))).toEqual([1500]);
  expect(on.kinds().filter((kind) => kind === 'angle')).toEqual([]);
  expect(on.state()[0]).toBe('settled');
});

test('fractions, units, names and new names are numbers as everywhere', () => {
  const on = desk();
  on.editor.take('rectangle');
  on.click([5, 6]);
  move(on, [40, 50]);
  type(on, '2-1/8"', 'height = 30');
  expect(told(on)).toEqual(['distance 2-1/8" → 53.975', 'distance height → 30']);
  on.editor.take('circle');
  on.click([80, 90]);
  move(on, [100, 90]);
  type(on, 'height / 2');
  expect(told(on).at(-1)).toBe('diameter height / 2 → 15');
  expect(Object.values(on.project().values).map(({ name, expression }) => `${name} = ${expression}`)).toEqual([
    'height = 30 mm',
  ]);
});

test('what can not be is refused with its reason, and stays to be mended; Esc leaves the number, then the figure', () => {
  const on = desk();
  on.editor.take('arc');
  on.click([0, 0]);
  on.click([40, 0]);
  move(on, [20, 9]);
  expect(type(on, '12')).toMatchObject({ ok: false, issue: { code: 'size.short' } });
  expect(on.editor.snapshot.entry).toMatchObject({ texts: ['12'], wrong: { code: 'size.short' } });
  on.editor.typing.type('nothing');
  expect(on.editor.typing.take()).toMatchObject({ ok: false, issue: { code: 'value.unknown' } });
  on.editor.typing.type('-3');
  expect(on.editor.typing.take()).toMatchObject({ ok: false, issue: { code: 'size.bounds' } });
  expect(on.labels).toEqual([]);
  expect(on.editor.escape()).toBe(true);
  expect(on.editor.typing.entry).toBeUndefined();
  expect(on.editor.snapshot.tool.sizes).toHaveLength(1);
  expect(on.editor.escape()).toBe(true);
  expect(on.editor.snapshot.tool.isBusy).toBe(false);

  on.editor.take('polygon');
  on.click([0, 0]);
  move(on, [20, 9]);
  expect(type(on, '24', '2')).toMatchObject({ ok: false, issue: { code: 'size.count' } });
  expect(on.editor.typing.entry).toMatchObject({ focus: 1 });
});

test('a chain that is typed back to where it began closes there', () => {
  const on = desk();
  on.editor.take('chain');
  on.click([3, 4]);
  for (const [length, angle] of [
    ['60', '0'],
    ['25', '90'],
    ['60', '180'],
    ['25', '270'],
  ] as const) {
    move(on, [30, 11]);
    type(on, length, angle);
  }
  expect(on.editor.solved.regions.regions.map(({ area }) => +area.toFixed(6))).toEqual([1500]);
  expect(Object.values(on.editor.sketch.entities).filter(({ kind }) => kind === 'point')).toHaveLength(4);
  expect(on.editor.solved.solution.clash).toEqual([]);
  // it has ended
  expect(on.editor.snapshot.tool.isBusy).toBe(false);
});

test('a name that one click makes is there for the next, and can not be made twice', () => {
  const on = desk();
  on.editor.take('turned rectangle');
  on.click([5, 6]);
  move(on, [45, 20]);
  expect(type(on, 'w = 40', '30')).toEqual({ ok: true, value: undefined });
  move(on, [10, 60]);
  expect(type(on, 'w = 12')).toMatchObject({ ok: false, issue: { code: 'value.taken' } });
  on.editor.typing.type('w / 2');
  expect(on.editor.typing.take()).toEqual({ ok: true, value: undefined });
  expect(told(on)).toEqual(['distance w → 40', 'angle 30 → 30', 'distance w / 2 → 20']);
  expect(Object.values(on.project().values)).toHaveLength(1);
});

test('numbers that make no figure are refused, and nothing is gone', () => {
  const on = desk();
  on.editor.take('arc slot');
  on.click([0, 0]);
  on.click([31, 0]);
  on.click([3, 31]);
  move(on, [22, 30]);
  expect(type(on, '80')).toMatchObject({ ok: false, issue: { code: 'size.none' } });
  on.editor.typing.type('8');
  expect(on.editor.typing.take().ok).toBe(true);

  // a count drives nothing later: a name would only look as if it did
  on.editor.take('polygon');
  on.click([90, 90]);
  move(on, [120, 99]);
  expect(type(on, '24', 'n = 5')).toMatchObject({ ok: false, issue: { code: 'size.count' } });
  on.editor.typing.type('5');
  expect(on.editor.typing.take().ok).toBe(true);
  expect(Object.values(on.project().values)).toEqual([]);
});

test('digits mean nothing where nothing is on its way', () => {
  const on = desk();
  expect(on.editor.key('4')).toBe(false);
  on.editor.take('rectangle');
  expect(on.editor.key('4')).toBe(false);
});

test('an offset and a move take numbers while they are on their way', () => {
  const on = desk();
  on.draw('rectangle', [5, 6], [45, 36]);
  on.editor.take('offset');
  on.click([25, 6]);
  move(on, [25, -1]);
  expect(on.editor.snapshot.tool.sizes).toMatchObject([{ prompt: 'distance', now: 7 }]);
  type(on, 'gap = 4');
  expect(told(on)).toEqual(['offset gap → 4']);
  const box = on.editor.geometry.box()!;
  expect([box.low, box.high]).toEqual([
    [1, 2],
    [49, 40],
  ]);

  const drawn = Object.keys(on.editor.sketch.entities);
  on.editor.select(drawn, false);
  on.editor.take('copy');
  on.click([0, 0]);
  move(on, [70, 3]);
  type(on, '100', '30');
  const far = on.editor.geometry.box()!.high;
  expect(far[0]).toBeCloseTo(49 + 100 * Math.cos(Math.PI / 6), 6);
  expect(far[1]).toBeCloseTo(40 + 50, 6);
});

test('wherever the pointer is, a line has the typed length and direction', () => {
  const reach = fc.double({ min: -80, max: 80, noNaN: true });
  fc.assert(
    fc.property(reach, reach, fc.integer({ min: 1, max: 900 }), fc.integer({ min: -400, max: 400 }), (x, y, l, a) => {
      fc.pre(Math.hypot(x - 3, y - 4) > 3);
      const on = desk();
      on.editor.take('chain');
      on.click([3, 4]);
      move(on, [x, y]);
      type(on, `${l / 10}`, `${a}`);
      const line = Object.entries(on.editor.sketch.entities).find(([, { kind }]) => kind === 'line')!;
      const { a: from, b: to } = on.editor.geometry.line(line[0]);
      expect(to[0] - from[0]).toBeCloseTo((l / 10) * Math.cos((a * Math.PI) / 180), 6);
      expect(to[1] - from[1]).toBeCloseTo((l / 10) * Math.sin((a * Math.PI) / 180), 6);
    }),
    { numRuns: 60 },
  );
});

test('a length along an axis keeps to the axis', () => {
  const on = desk();
  on.editor.take('chain');
  on.click([0, 0]);
  move(on, [14, 0.2]);
  type(on, '28');
  expect(on.editor.solved.solution.freedoms).toBe(0);
});

test('a direction alone goes as far as the curve under the pointer, and ends on it', () => {
  const on = desk();
  on.draw('circle', [0, 0], [48, 0]);
  on.editor.escape();
  on.editor.take('chain');
  on.click([0, 39]);
  move(on, [14, 45.9]);
  type(on, '', '20 deg');
  const [x, y] = Object.values(on.editor.sketch.entities)
    .flatMap((entity) => (entity.kind === 'point' ? [[entity.x, entity.y] as const] : []))
    .at(-1)!;
  expect(Math.hypot(x, y)).toBeCloseTo(48, 9);
  expect(Math.atan2(y - 39, x)).toBeCloseTo(Math.PI / 9, 9);
  expect(on.kinds().filter((kind) => kind === 'coincident').length).toBeGreaterThanOrEqual(2);
});

test('a rectangle goes to the side of the pointer, though that is guessed to lie on the line where it begins', () => {
  const on = desk();
  on.draw('chain', [20, -50], [20, 60]);
  on.editor.escape();
  on.editor.take('rectangle');
  on.click([20, 10]);
  // within reach of the line, left of it
  move(on, [19.3, 14]);
  type(on, '2', '2.5');
  const xs = Object.values(on.editor.sketch.entities).flatMap((entity) => (entity.kind === 'point' ? [entity.x] : []));
  expect(Math.min(...xs)).toBeCloseTo(18, 9);
  expect(Math.max(...xs)).toBeCloseTo(20, 9);
});

test('a number that puts a corner where it would be guessed takes no guess that says the same again', () => {
  const on = desk();
  on.draw('rectangle', [5, 10], [45, 30]);
  on.editor.escape();
  on.editor.take('rectangle');
  on.click([5, -16]);
  // straight below the corner of the first, which begins in line with it
  move(on, [45.2, -25]);
  type(on, '40', '');
  // the first has 4 freedoms; the second stands below it, as wide as told, and is as deep as it is drawn
  expect(on.kinds().filter((kind) => kind === 'vertical').length).toBe(2 + 2 + 1);
  expect([on.state(), on.refusals]).toEqual([['loose', 4 + 2], []]);
});

test.each([
  ['on a line', [30, 16], 190],
  ['on its end', [60, 16], 190],
  ['on its end, which is as far', [60, 16], 55],
] as const)('one number typed, the other side of a rectangle is where the pointer is: %s', (_, at, width) => {
  const on = desk();
  on.draw('chain', [10, 16], [60, 16]);
  on.editor.escape();
  on.editor.take('rectangle');
  on.click([5, -16]);
  move(on, at);
  type(on, String(width), '');
  const ys = Object.values(on.editor.sketch.entities).flatMap((entity) => (entity.kind === 'point' ? [entity.y] : []));
  expect(ys.filter((y) => Math.abs(y - 16) < 1e-9).length).toBeGreaterThanOrEqual(width === 55 ? 3 : 4);
  // of the line 3 freedoms are left; the rectangle has its place, less what it takes over by its corner
  const taken = width === 55 ? 1 : 0;
  expect([on.state(), on.refusals]).toEqual([['loose', 3 + 2 - taken], []]);
});

test.each([
  ['ellipse', 2],
  ['circle', 0],
] as const)('the first size of an %s typed along an axis leaves it there, if it can be turned', (tool, coincident) => {
  const on = desk();
  on.editor.take(tool);
  on.click([0, 0]);
  move(on, [30, 0.3]);
  type(on, '132');
  if (tool === 'ellipse') {
    move(on, [0, 12]);
    type(on, '66');
  }
  // on the origin, and on the x axis
  expect(on.kinds().filter((kind) => kind === 'coincident').length).toBe(Math.max(1, coincident));
  expect(on.state()).toEqual(['settled', 0]);
});

test('a small figure points where the pointer is, though a line beside it is within reach', () => {
  const on = desk();
  on.draw('chain', [0, 1.1], [29, 1.1]);
  on.editor.escape();
  on.editor.take('polygon');
  on.click([30.5, 0.3]);
  move(on, [29, 0.3]);
  type(on, '2.4', '3');
  const corner = [30.5 - 1.2 * Math.cos(Math.atan2(0.3, 1.5)), 1.2 * Math.sin(Math.atan2(0.3, 1.5))];
  const off = Object.values(on.editor.sketch.entities).map((one) =>
    one.kind === 'point' ? Math.hypot(one.x - corner[0]!, one.y - corner[1]!) : Infinity,
  );
  expect(Math.min(...off)).toBeLessThan(1e-6);
});

test('a length typed while the pointer is on a point straight below leaves the line upright', () => {
  const on = desk();
  on.editor.take('chain');
  on.click([0, 28]);
  move(on, [0, 0]);
  type(on, '56');
  const { relations } = on.editor.sketch;
  expect(Object.values(relations).map(({ kind }) => kind)).toContain('vertical');
  const [line] = Object.entries(on.editor.sketch.entities).find(([, { kind }]) => kind === 'line')!;
  expect(on.editor.geometry.line(line).b[1]).toBeCloseTo(-28, 9);
});

test.each([
  [[6.3, 6.2], 'horizontal'],
  [[5.2, 7], 'vertical'],
  [[6, 6.8], undefined],
] as const)(
  'a length typed while the pointer at %j has hardly left is level or upright where it points so',
  (at, kind) => {
    const on = desk();
    on.editor.take('chain');
    on.click([5, 6]);
    move(on, at);
    type(on, '30');
    expect(on.kinds().filter((held) => held !== 'distance')).toEqual(kind ? [kind] : []);
  },
);

test('a lone letter before a click was the key of another tool: the half-made figure goes, that tool begins', () => {
  const d = desk();
  d.editor.take('centred rectangle');
  d.click([15, 16]);
  move(d, [18, 19]);
  d.editor.key('o');
  expect(d.editor.typing.entry?.texts[0]).toBe('o');
  d.click([40, 40]);
  expect([d.editor.tool.name, d.editor.tool.isBusy, d.editor.typing.entry]).toEqual(['circle', true, undefined]);
  move(d, [43, 43]);
  d.editor.key('8');
  d.editor.typing.take();
  expect(Object.values(d.editor.sketch.entities).map(({ kind }) => kind)).toEqual(['point', 'circle']);
  // the name of a value is taken as what it is
  d.draw('rectangle', [60, 60], [90, 80]);
  d.editor.take('circle');
  d.click([15, 90]);
  move(d, [18, 93]);
  d.editor.key('o');
  d.editor.typing.type('o = 6');
  d.editor.typing.take();
  d.click([15, 120]);
  move(d, [18, 123]);
  d.editor.key('o');
  d.click([19, 124]);
  expect(Object.values(d.editor.sketch.entities).filter(({ kind }) => kind === 'circle')).toHaveLength(3);
});

test('a letter begins the name of what waits for its number, but a verb where a chain could go on or end', () => {
  const d = desk();
  d.editor.take('circle');
  expect(d.editor.key('b')).toBe(false);
  d.click([15, 16]);
  move(d, [18, 19]);
  expect([d.editor.key('q'), d.editor.key('b'), d.editor.typing.entry?.texts]).toEqual([false, true, ['b']]);
  d.editor.escape();
  d.editor.take('chain');
  d.click([15, 16]);
  move(d, [38, 19]);
  expect(d.editor.key('b')).toBe(false);
});
