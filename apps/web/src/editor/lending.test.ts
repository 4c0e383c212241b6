import { fingerprintOfEdge, type EdgeFacts, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import type { Under } from './borrow-tool.ts';

// What of the model is drawn to without an errand.

const edgeUnder = (edge: EdgeFacts, words: string): Under => ({
  words,
  reference: { to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) },
  thing: { to: 'edge', edge, body: 0 },
});
const rim = edgeUnder(
  {
    ...{ name: 'e1/end | e1/side/c1', faces: ['e1/end', 'e1/side/c1'], length: 8 * Math.PI, middle: [6, 20, 5] },
    curve: { form: 'circle', centre: [10, 20, 5], axis: [0, 0, 1], radius: 4 },
  },
  'edge · rim ⌀8',
);
const side = edgeUnder(
  {
    ...{ name: 'e1/end | e1/side/l1', faces: ['e1/end', 'e1/side/l1'], length: 40, middle: [20, 0, 5] },
    ...{ ends: ['corner a', 'corner b'] },
    curve: { form: 'line', from: [0, 0, 5], to: [40, 0, 5] },
  },
  'edge · straight 40',
);

function over(...under: Under[]) {
  const hand = desk();
  hand.model.under = under;
  return hand;
}
const at = (place: Vec2, free = false) => ({ at: place, reach: 1, free, add: false });
const loansOf = ({ editor }: ReturnType<typeof desk>) => Object.values(editor.sketch.loans ?? {});

test('a circle about the centre of a rim borrows that centre, and nothing before it is drawn', () => {
  const hand = over(rim);
  hand.editor.take('circle');
  hand.editor.pointer('move', at([10.3, 20.2]));
  expect(hand.editor.snapshot.lends.map(({ words }) => words)).toEqual(['centre of edge · rim ⌀8']);
  expect(Object.keys(hand.editor.snapshot.borrowed)).toHaveLength(1);
  expect(loansOf(hand)).toEqual([]);
  hand.click([10.3, 20.2]);
  expect(hand.editor.sketch.entities).toEqual({});
  hand.click([17, 20]);
  expect(loansOf(hand)).toMatchObject([{ how: 'axis', source: { to: 'edge' } }]);
  // only its radius is free; one step back takes all of it away
  expect(hand.state()).toEqual(['loose', 1]);
  expect(hand.labels).toEqual(['S: circle']);
  expect(hand.editor.snapshot.lends).toEqual([]);
});

test('lines end on corners, in middles and on edges; with the key held nothing is borrowed', () => {
  const hand = over(side);
  hand.draw('chain', [0.2, 0.3], [20, 30], [20.4, 0.2]);
  expect(loansOf(hand)).toHaveLength(1);
  const { editor } = hand;
  // the corner is used as it is, and the line ends in the middle
  expect(hand.kinds()).toContain('midpoint');
  expect(Object.values(editor.sketch.entities).filter(({ kind }) => kind === 'line')).toHaveLength(3);
  expect(editor.geometry.box()!.low).toEqual([0, 0]);

  const free = over(side);
  free.editor.take('chain');
  free.click([39.8, 0.3], { free: true });
  free.click([20, 30], { free: true });
  expect(loansOf(free)).toEqual([]);
  expect(free.kinds()).toEqual([]);
});

test('a size to an edge of the model borrows it with the number', () => {
  const hand = over(side);
  hand.draw('circle', [15, 25], [18, 25]);
  const { editor } = hand;
  editor.take('size');
  hand.click([15, 25]);
  hand.click([30, 0.1]);
  hand.click([35, 12]);
  expect(editor.asking?.text).toBe('25 mm');
  expect(loansOf(hand)).toEqual([]);
  expect(editor.answer('22').ok).toBe(true);
  expect(loansOf(hand)).toHaveLength(1);
  expect(editor.geometry.box()!.low).toEqual([0, 0]);
  const [circle] = Object.keys(editor.sketch.entities).filter((id) => editor.geometry.roleOf(id) === 'circle');
  expect(editor.geometry.circle(circle!).centre[1]).toBeCloseTo(22, 9);
});

test('an edge is selected together with what is drawn, and a relation borrows it', () => {
  const hand = over(side);
  hand.draw('chain', [5, 12], [25, 19]);
  const { editor } = hand;
  editor.take('select');
  const line = Object.keys(editor.sketch.entities).find((id) => editor.geometry.roleOf(id) === 'line')!;
  editor.select([line], false);
  hand.click([30, 0.1], { add: true });
  expect(editor.selection.size).toBe(2);
  expect(editor.snapshot.lends).toMatchObject([{ words: 'edge · straight 40', ids: expect.anything() }]);
  // what is not there yet can't be pulled, boxed or erased
  editor.pointer('move', at([30, 0.1]));
  expect(editor.relate('parallel').ok).toBe(true);
  expect(loansOf(hand)).toHaveLength(1);
  const { a, b } = editor.geometry.line(line);
  expect(b[1]).toBeCloseTo(a[1], 9);
});
