import type { SizedRelation } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import { toggleConstruction } from './entity-edits.ts';

/** A slanted line and an ellipse, well away from the axes; the size tool in hand. */
function sizing() {
  const d = desk();
  d.draw('chain', [20, 10], [60, 40]);
  d.draw('ellipse', [120, 60], [160, 60], [120, 78]);
  d.editor.take('size');
  return d;
}
const proposed = ({ editor }: ReturnType<typeof desk>) => editor.proposed as SizedRelation & { direction?: string };
const move = ({ editor }: ReturnType<typeof desk>, at: [number, number], add = false) =>
  editor.pointer('move', { at, reach: 1, free: false, add });

test('square off a line its true length is meant, above it how long it is level, beside it how high', () => {
  const d = sizing();
  d.click([40, 25]);
  for (const [at, direction] of [
    [[25, 45], 'aligned'],
    [[58, 70], 'horizontal'],
    [[90, 38], 'vertical'],
  ] as const) {
    move(d, [...at]);
    expect([at, proposed(d).direction]).toEqual([at, direction]);
  }
});

test('a key tells what is meant, before the click, and the hint says so', () => {
  const d = sizing();
  d.click([40, 25]);
  move(d, [58, 70]);
  expect(d.editor.tool.hint).toContain('level; W: upright');
  for (const direction of ['vertical', 'aligned', 'horizontal']) {
    expect(d.editor.key('w')).toBe(true);
    expect(proposed(d).direction).toBe(direction);
  }
  d.editor.key('w');
  move(d, [25, 45]);
  // what was told stays told, wherever the number stands
  expect(proposed(d).direction).toBe('vertical');
  d.click([25, 45]);
  d.editor.answer('12');
  expect(Object.values(d.editor.relations)).toContainEqual(
    expect.objectContaining({ kind: 'distance', direction: 'vertical', value: '12' }),
  );
});

test('a number that is typed at once is taken: it finds room by itself, or stands where the pointer rests', () => {
  const d = sizing();
  expect(d.editor.key('4')).toBe(false);
  // of a point alone there is nothing to type yet, and no verb either
  d.click([20, 10]);
  expect([d.editor.key('4'), d.editor.asking]).toEqual([true, undefined]);
  d.editor.take('select');
  d.editor.take('size');
  d.click([40, 25]);
  expect(d.editor.key('4')).toBe(true);
  expect(d.editor.asking).toMatchObject({ text: '4', begun: true });
  expect(d.editor.asking!.relation!.at).toBeUndefined();
  d.editor.answer('45');
  expect(Object.values(d.editor.relations)).toContainEqual(expect.objectContaining({ kind: 'distance', value: '45' }));
  d.editor.take('size');
  d.click([40, 25]);
  move(d, [58, 70]);
  const { direction } = proposed(d);
  d.editor.key('7');
  expect(d.editor.asking!.relation).toMatchObject({ at: [58, 70], direction });
});

test('an ellipse is measured along either axis', () => {
  const d = sizing();
  d.click([120, 78]);
  move(d, [120, 100]);
  expect(proposed(d)).toMatchObject({ kind: 'axis', axis: 'first' });
  move(d, [180, 61]);
  expect(proposed(d)).toMatchObject({ kind: 'axis', axis: 'second' });
  d.click([180, 61]);
  expect(d.editor.asking!.text).toBe('36 mm');
});

test('a number that stands on an axis does not take the axis, unless it is asked for', () => {
  const d = sizing();
  d.click([20, 10]);
  move(d, [40, 0.3]);
  expect(proposed(d)).toBeUndefined();
  move(d, [40, 0.3], true);
  expect(proposed(d)).toMatchObject({ kind: 'distance', b: 'x-axis' });
});

test('nothing is drawn to the diagonal that holds a rectangle about its centre', () => {
  const d = desk();
  d.draw('centred rectangle', [30, 30], [70, 50]);
  d.editor.take('circle');
  d.click([50.2, 40.3]);
  d.click([55.4, 40.3]);
  expect(d.kinds().filter((kind) => kind === 'coincident')).toEqual([]);
  // a construction line of one's own is drawn to
  d.draw('chain', [100, 0.1], [100, 60]);
  const line = Object.keys(d.editor.sketch.entities).at(-1)!;
  d.editor.select([line], false);
  toggleConstruction(d.editor);
  d.draw('circle', [100.3, 22], [104, 22]);
  expect(d.kinds()).toContain('coincident');
});

test('the name of a number is begun by its letter once something is picked; the keys of the tool stay its own', () => {
  expect(sizing().editor.key('h')).toBe(false);
  for (const [key, isName] of [
    ['h', true],
    ['q', false],
    ['w', false],
  ] as const) {
    const d = sizing();
    d.click([40, 25]);
    move(d, [58, 70]);
    d.editor.key(key);
    expect([key, d.editor.asking?.text]).toEqual([key, isName ? key : undefined]);
  }
});

test('the angle that two lines enclose is meant where its number is typed at once, wherever they were clicked', () => {
  for (const along of [0.1, 0.5, 0.9]) {
    const d = desk();
    d.draw('chain', [30, 60], [0, 0], [70, 0]);
    d.editor.take('size');
    d.click([30 * along, 60 * along]);
    d.click([70 * along, 0]);
    d.editor.key('6');
    d.editor.answer('60');
    const highest = Math.max(...Object.values(d.editor.geometry.entities).map((e) => (e.kind === 'point' ? e.y : 0)));
    const right = Object.values(d.editor.geometry.entities).find((e) => e.kind === 'point' && e.y === highest);
    expect(right).toMatchObject({ x: expect.closeTo(highest / Math.tan(Math.PI / 3), 6) });
  }
});

test.each([
  [
    'between two points that no line joins level or upright is meant, but square off their middle',
    [50, 60],
    [
      [[35, 75], 'horizontal'],
      [[44, 74], 'horizontal'],
      [[60, 50], 'vertical'],
      [[5, 52], 'vertical'],
      [[26, 64], 'aligned'],
      [[35, 50], 'aligned'],
    ],
  ],
  [
    'of two that are nearly level the level distance is meant, but beside them how much one is higher',
    [72, 52],
    [
      [[46, 48], 'horizontal'],
      [[42, 66], 'horizontal'],
      [[90, 46], 'vertical'],
      [[90, 90], 'horizontal'],
    ],
  ],
  [
    'of two above each other only the upright distance',
    [20, 80],
    [
      [[20, 80], 'vertical'],
      [[20, 95], 'vertical'],
      [[34, 66], 'vertical'],
    ],
  ],
] as const)('%s', (_, [x, y], meant) => {
  const d = desk();
  d.draw('circle', [20, 40], [24, 40]);
  d.draw('circle', [x, y], [x + 4, y]);
  d.editor.take('size');
  d.click([20, 40]);
  d.click([x, y]);
  for (const [at, direction] of meant) {
    move(d, [...at]);
    expect([at, proposed(d).direction]).toEqual([at, direction]);
  }
});
