import type { EdgeFacts, FaceFacts, Topology } from '@helb/core';
import { listWords, ownWords } from './pick-words.ts';
import { bodyPick, cornerPick, edgePick, facePick } from './picks.ts';

const bore = (step: string, x: number, radius = 4): FaceFacts => ({
  name: `${step}/side/c`,
  surface: { form: 'cylinder', origin: [x, 0, 0], axis: [0, 0, 1], radius, hollow: true },
  area: 1,
  centre: [x, 0, 5],
});
const edge = (step: string, x: number): EdgeFacts => ({
  name: `${step}/end | ${step}/side/c`,
  faces: [`${step}/end`, `${step}/side/c`],
  curve: { form: 'line', from: [x, 0, 0], to: [x, 0, 25.4] },
  ends: ['a', 'b'],
  length: 25.4,
  middle: [x, 0, 12.7],
});
const topology: Topology = { name: 'b', faces: [], edges: [], vertices: [] };
const names = (step: string) => ({ s1: 'Hole 1', s2: 'Hole 2' })[step];

test('picks say their sizes in the unit of the project', () => {
  const pick = facePick('b', 0, topology, bore('s1', 0));
  expect(ownWords(pick, 'mm')).toBe('face · bore ⌀8 mm');
  expect(ownWords(edgePick('b', 0, edge('s1', 0)), 'in')).toBe('edge · straight 1 in');
  expect(ownWords(cornerPick('b', 0, { name: 'v', at: [25.4, 0, -50.8] }), 'in')).toBe('corner · 1  0  -2 in');
  expect(ownWords(bodyPick('b', 0, topology), 'mm')).toBe('body · with 0 faces');
});

test('those of a list that read alike say of which step they are, and where that is the same too where they are', () => {
  const picks = [bore('s1', 0), bore('s2', 30), bore('s3', 60, 3)].map((face) => facePick('b', 0, topology, face));
  expect(listWords(picks, 'mm', { nameOf: names })).toEqual([
    'face · bore ⌀8 mm of Hole 1',
    'face · bore ⌀8 mm of Hole 2',
    'face · bore ⌀6 mm',
  ]);
  const edges = [edge('s1', 0), edge('s1', 7)].map((one) => edgePick('b', 0, one));
  const words = listWords(edges, 'mm', { nameOf: names });
  expect(new Set(words).size).toBe(2);
  expect(words[1]).toBe('edge · straight 25.4 mm of Hole 1 at 7  0  12.7 mm');
  expect(listWords([{ ...picks[0]!, within: 'Rod' }, picks[0]!], 'mm', { nameOf: names })).toEqual([
    'face · bore ⌀8 mm in Rod',
    'face · bore ⌀8 mm',
  ]);
});

test('of placed parts they are told apart by where they stand now', () => {
  const rims = [edge('s1', 0), edge('s1', 0)].map((one, k) => ({
    ...edgePick('b', 0, one),
    member: k ? 'Lid' : 'Rod',
  }));
  const words = (members: readonly string[]) =>
    listWords(
      rims.map((rim, k) => ({ ...rim, member: members[k]! })),
      'mm',
      { nameOf: names, called: ({ member }) => member, placeOf: ({ member }) => [member.length, 0, 0] },
    );
  expect(words(['Rod', 'Lid 2'])).toEqual(['Rod', 'Lid 2']);
  expect(words(['Rod', 'Rod'])).toEqual(['Rod of Hole 1 at 3  0  0 mm', 'Rod of Hole 1 at 3  0  0 mm']);
});
