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

test('an edge that shares a corner with one that is borrowed is shown and drawn to as well', () => {
  const hand = over(side);
  hand.draw('chain', [39.8, 0.3], [70, 30]);
  expect(loansOf(hand)).toHaveLength(1);
  const next = edgeUnder(
    {
      ...{ name: 'e1/end | e1/side/l2', faces: ['e1/end', 'e1/side/l2'], length: 30, middle: [40, 15, 5] },
      ...{ ends: ['corner b', 'corner c'] },
      curve: { form: 'line', from: [40, 0, 5], to: [40, 30, 5] },
    },
    'edge · straight 30',
  );
  hand.model.under = [next];
  hand.editor.take('chain');
  hand.editor.pointer('move', at([39.7, 21]));
  const { borrowed, geometry, lends } = hand.editor.snapshot;
  expect(lends.map(({ words }) => words)).toEqual(['edge · straight 30']);
  // the corner that both have is the one that is there
  expect(Object.values(borrowed).every((entity) => entity !== undefined)).toBe(true);
  expect(Object.keys(geometry.entities).flatMap((id) => geometry.pieces(id)).length).toBeGreaterThan(2);
  hand.click([39.7, 21]);
  hand.click([10, 24]);
  expect(loansOf(hand)).toHaveLength(2);
});

test('what is selected stays lent when something else is borrowed', () => {
  const hand = over(side);
  const { editor } = hand;
  hand.click([30, 0.1]);
  const [selected] = editor.selection;
  hand.model.under = [rim];
  editor.take('circle');
  hand.click([10, 20]);
  hand.click([17, 20]);
  expect(loansOf(hand)).toHaveLength(1);
  expect(editor.snapshot.geometry.entities[selected!]).toMatchObject({ kind: 'line' });
});

test('a centre that lies on the origin is not meant where the origin is; edits borrow nothing', () => {
  const about: EdgeFacts = {
    ...{ name: 'e1/end | e1/side/c2', faces: ['e1/end', 'e1/side/c2'], length: 6, middle: [3, 0, 5] },
    curve: { form: 'circle', centre: [0, 0, 5], axis: [0, 0, 1], radius: 3 },
  };
  const hand = over(edgeUnder(about, 'edge · rim ⌀6'), side);
  const { editor } = hand;
  hand.draw('circle', [15, 25], [18, 25]);
  editor.take('size');
  hand.click([15, 25]);
  hand.click([0.1, 0.1]);
  expect([...editor.selection]).toContain('origin');
  editor.escape();
  editor.escape();
  editor.select([Object.keys(editor.sketch.entities)[0]!], false);
  editor.take('turn');
  editor.pointer('move', at([40, 0.2]));
  expect(editor.snapshot.lends).toEqual([]);
});

test('an offer that fails now may come later', () => {
  const hand = over();
  hand.editor.take('circle');
  hand.editor.pointer('move', at([10, 20]));
  expect(hand.editor.snapshot.lends).toEqual([]);
  hand.model.under = [rim];
  hand.editor.pointer('move', at([10, 20.1]));
  expect(hand.editor.snapshot.lends).toHaveLength(1);
});

test('of two things in one place the one in front is borrowed', () => {
  const behind = edgeUnder(
    {
      ...{ name: 'e1/start | e1/side/c1', faces: ['e1/start', 'e1/side/c1'], length: 8 * Math.PI, middle: [6, 20, 0] },
      curve: { form: 'circle', centre: [10, 20 + 1e-14, 0], axis: [0, 0, 1], radius: 4 },
    },
    'edge · rim below',
  );
  const hand = over(rim, behind);
  hand.editor.take('chain');
  hand.editor.pointer('move', at([14.1, 20]));
  expect(hand.editor.snapshot.lends.map(({ words }) => words)).toEqual(['edge · rim ⌀8']);
});
