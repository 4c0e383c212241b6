import { ORIGIN_DATUMS, type FaceFacts, type Topology } from '@helb/core';
import { answering } from './answering.ts';
import { edgePick, facePick, guidePick, type Pick } from './picks.ts';

const topology: Topology = { name: 'b', faces: [], edges: [], vertices: [] };
const face = (name: string, form: 'plane' | 'cylinder'): Pick => {
  const surface = { form, origin: [0, 0, 0], normal: [0, 0, 1], axis: [0, 0, 1], radius: 4, hollow: false };
  return facePick('b', 0, topology, { name, surface, area: 1, centre: [0, 0, 0] } as unknown as FaceFacts);
};
const edge = edgePick('b', 0, {
  ...{ name: 'e', faces: ['s/end', 's/side/a'], length: 5, middle: [0, 0, 0], ends: ['p', 'q'] },
  curve: { form: 'line', from: [0, 0, 0], to: [5, 0, 0] },
});
const plane = guidePick(
  {
    ...{ name: 'front', words: 'Front', reference: { to: 'origin', name: 'front' }, look: 'datum', lines: [] },
    thing: { to: 'datum', datum: ORIGIN_DATUMS.front },
  },
  0,
);
const namesOf = (picks: readonly Pick[]) => picks.map(({ name }) => name);

test('only what can be the answer is left, in its order', () => {
  expect(namesOf(answering([edge, face('bore', 'cylinder'), plane], 'axis'))).toEqual(['e', 'bore']);
  expect(namesOf(answering([edge, plane], 'body'))).toEqual([]);
});

test('where a face is asked for it comes before a plane that is seen edge-on through it', () => {
  expect(namesOf(answering([plane, face('bore', 'cylinder'), face('top', 'plane')], 'plane'))).toEqual([
    'top',
    'front',
  ]);
  expect(namesOf(answering([plane, face('bore', 'cylinder')], 'sheet'))).toEqual(['bore', 'front']);
});
