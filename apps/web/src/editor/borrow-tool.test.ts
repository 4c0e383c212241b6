import {
  fingerprintOfEdge,
  fingerprintOfFace,
  type EdgeFacts,
  type FaceFacts,
  type SketchSources,
  type Topology,
} from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import type { Under } from './borrow-tool.ts';

const rim: EdgeFacts = {
  name: 's1/end | s1/side/c1',
  faces: ['s1/end', 's1/side/c1'],
  curve: { form: 'circle', centre: [10, 20, 5], axis: [0, 0, 1], radius: 4 },
  length: 8 * Math.PI,
  middle: [6, 20, 5],
};
const bore: FaceFacts = {
  name: 's1/side/c1',
  surface: { form: 'cylinder', origin: [10, 20, 0], axis: [0, 0, 1], radius: 4, hollow: true },
  area: 40 * Math.PI,
  centre: [10, 20, 2.5],
};
const topology: Topology = { name: 's1', faces: [bore], edges: [rim], vertices: [] };
const overRim: Under = {
  words: 'edge · rim ⌀8',
  reference: { to: 'edge', name: rim.name, print: fingerprintOfEdge(rim) },
  thing: { to: 'edge', edge: rim, body: 0 },
};
const overBore: Under = {
  words: 'face · bore ⌀8',
  reference: { to: 'face', name: bore.name, print: fingerprintOfFace(bore) },
  thing: { to: 'face', face: bore, body: 0, topology },
};

function borrowing(...under: Under[]) {
  const hand = desk();
  hand.model.under = under;
  hand.editor.take('borrow');
  return hand;
}
const kinds = ({ editor }: ReturnType<typeof desk>) => Object.values(editor.sketch.entities).map(({ kind }) => kind);

test('a rim becomes a circle, held where its source is', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  expect(kinds(hand).toSorted()).toEqual(['circle', 'point']);
  const [circle] = Object.entries(hand.editor.sketch.entities).find(([, { kind }]) => kind === 'circle')!;
  expect(hand.editor.geometry.circle(circle)).toEqual({ centre: [10, 20], radius: 4 });
  // what is borrowed by itself is outline: it encloses an area
  expect(hand.editor.solved.regions.regions).toHaveLength(1);
  expect(hand.state()).toEqual(['settled', 0]);
  expect(hand.labels).toEqual(['S: borrow']);
});

test('what lies under the pointer is offered in its ways; Tab steps through them and the choice stays', () => {
  const hand = borrowing(overRim, overBore);
  const { editor } = hand;
  const move = (at: readonly [number, number]) => editor.pointer('move', { at, reach: 1, free: false, add: false });
  move([6, 20]);
  // the plane of the sketch does not cross it: that is not offered
  expect(editor.tool.offered!.words).toEqual(['edge · rim ⌀8', 'axis of face · bore ⌀8']);
  expect(editor.tool.preview.pieces).toHaveLength(1);
  expect(editor.key('Tab')).toBe(true);
  // seen end-on the axis is a point
  expect(editor.tool.preview.tags).toEqual([{ at: [10, 20], mark: '•' }]);
  move([6.2, 20]);
  expect(editor.tool.offered!.chosen).toBe(1);
  hand.click([6.2, 20]);
  expect(kinds(hand)).toEqual(['point']);
});

test('the same is not borrowed twice', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  hand.click([6, 20]);
  expect(hand.refusals).toEqual(['borrow.again']);
  expect(Object.keys(hand.editor.sketch.loans!)).toHaveLength(1);
});

test('of an outline that has grown the rest is borrowed, once', () => {
  const flat: FaceFacts = {
    name: 's1/end',
    surface: { form: 'plane', origin: [0, 0, 5], normal: [0, 0, 1] },
    area: 1,
    centre: [0, 0, 5],
  };
  const other: EdgeFacts = { ...rim, name: 's1/end | s1/side/c2', faces: ['s1/end', 's1/side/c2'] };
  const seenWith = (...edges: EdgeFacts[]): Under => ({
    words: 'face · flat',
    reference: { to: 'face', name: flat.name, print: fingerprintOfFace(flat) },
    thing: { to: 'face', face: flat, body: 0, topology: { ...topology, edges } },
  });
  const hand = borrowing(seenWith(rim));
  hand.click([6, 20]);
  hand.model.under = [seenWith(rim, other)];
  hand.click([6, 20]);
  expect(kinds(hand).toSorted()).toEqual(['circle', 'circle', 'point', 'point']);
  hand.click([6, 20]);
  expect(hand.refusals).toEqual(['borrow.again']);
});

test('when the source moves the copy follows, and what hangs on it; dragging can not pull it away', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  const { editor } = hand;
  const centre = Object.entries(editor.sketch.entities).find(([, { kind }]) => kind === 'point')![0];
  const circle = Object.entries(editor.sketch.entities).find(([, { kind }]) => kind === 'circle')![0];
  hand.draw('circle', [10, 20], [12, 20]);
  const own = Object.entries(editor.sketch.entities).findLast(([, { kind }]) => kind === 'circle')![0];
  const sources: SketchSources = {
    frame: editor.solved.frame,
    borrowed: {
      [centre]: { kind: 'point', x: 70, y: -5 },
      [circle]: { kind: 'circle', centre, radius: 9 },
    },
    lost: {},
    more: {},
    now: {},
  };
  hand.model.sources = sources;
  expect(editor.geometry.circle(circle)).toEqual({ centre: [70, -5], radius: expect.closeTo(9, 9) });
  expect(editor.geometry.circle(own).centre).toEqual([expect.closeTo(70, 9), expect.closeTo(-5, 9)]);
  editor.take('select');
  hand.drag([70, -5], [90, 30]);
  expect(editor.geometry.circle(own).centre).toEqual([expect.closeTo(70, 9), expect.closeTo(-5, 9)]);
});

test('what was told of an entity that stands on other points by now does not count', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  const { editor } = hand;
  const circle = Object.entries(editor.sketch.entities).find(([, { kind }]) => kind === 'circle')![0];
  const before = editor.geometry.circle(circle);
  hand.model.sources = {
    frame: editor.solved.frame,
    borrowed: { [circle]: { kind: 'circle', centre: 'gone', radius: 9 } },
    ...{ lost: {}, more: {}, now: {} },
  };
  expect(editor.geometry.circle(circle)).toEqual(before);
});

test('let go it stays where it is and is free', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  const [loan] = Object.keys(hand.editor.sketch.loans!);
  hand.editor.loans.letGo(loan!);
  expect(hand.editor.sketch.loans).toBeUndefined();
  expect(hand.state()).toEqual(['loose', 3]);
});

test('what is lost is told, and nothing else of the sketch is', () => {
  const hand = borrowing(overRim);
  hand.click([6, 20]);
  const [loan] = Object.keys(hand.editor.sketch.loans!) as [string];
  const issue = { code: 'reference.gone', facts: { to: 'edge' } };
  hand.model.sources = {
    frame: hand.editor.solved.frame,
    borrowed: {},
    lost: { [loan]: issue, other: issue },
    more: {},
    now: {},
  };
  expect(hand.editor.solved.sources.lost).toEqual({ [loan]: issue });
  expect(hand.editor.solved.issue).toEqual(issue);
  expect(hand.state()).toEqual(['settled', 0]);
});

test('what is borrowed is trimmed by drawing over it: a pocket at its rim, told once and whole', () => {
  const hand = borrowing(overRim);
  const { editor } = hand;
  hand.click([6, 20]);
  const [rimId] = Object.entries(editor.sketch.entities).find(([, { kind }]) => kind === 'circle')!;
  const turn = Math.PI / 4;
  hand.draw('chain', [10, 24], [10, 21.6], [10 + 4 * Math.cos(turn), 20 + 4 * Math.sin(turn)]);
  editor.escape();
  editor.take('trim');
  hand.click([6, 20]);
  expect(hand.refusals).toEqual([]);
  const { solution, regions } = editor.solved;
  expect(solution.redundant).toEqual([]);
  // the sector between both ends less what the lines leave of it
  const [a, b] = [
    [0, 1.6],
    [4 * Math.cos(turn), 4 * Math.sin(turn)],
  ] as const;
  const sector = 8 * (Math.PI / 2 - turn);
  const corner = Math.abs(a[0] * b[1] - a[1] * b[0]) / 2;
  expect(regions.regions.map(({ area }) => area)).toEqual([expect.closeTo(sector - corner, 9)]);
  expect(editor.sketch.entities[rimId]).toMatchObject({ kind: 'circle', construction: true });
  // and its source leads it still
  expect(kinds(hand).filter((kind) => kind === 'arc')).toHaveLength(1);
});

test('of a borrowed line both ends that are left stay on it; what nothing crosses is construction from then on', () => {
  const side: EdgeFacts = {
    ...{ name: 's1/end | s1/side/a', faces: ['s1/end', 's1/side/a'], length: 60, middle: [30, 0, 5] },
    ...{ curve: { form: 'line', from: [0, 0, 5], to: [60, 0, 5] }, ends: ['p', 'q'] },
  };
  const hand = borrowing({
    words: 'edge · straight 60',
    reference: { to: 'edge', name: side.name, print: fingerprintOfEdge(side) },
    thing: { to: 'edge', edge: side, body: 0 },
  });
  const { editor } = hand;
  hand.click([30, 0]);
  hand.draw('rectangle', [20, -5], [40, 25]);
  editor.take('trim');
  hand.click([30, 0]);
  const lines = Object.values(editor.geometry.entities).filter(
    (entity) => entity.kind === 'line' && !entity.construction,
  );
  expect(lines).toHaveLength(4 + 2);
  expect(editor.solved.solution.redundant).toEqual([]);
  const before = editor.solved.solution.freedoms;
  expect(before).toBe(4);
  hand.click([10, 0]);
  hand.click([50, 0]);
  expect(editor.solved.solution.freedoms).toBe(4);
});
