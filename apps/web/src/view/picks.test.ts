import type { EdgeFacts, FaceFacts, Topology } from '@helb/core';
import { cornerPick, edgePick, facePick, frontToBack, type Pick } from './picks.ts';

const FLAT = { form: 'plane', origin: [0, 0, 0], normal: [0, 0, 1] };
const LINE = { form: 'line', from: [0, 0, 0], to: [1, 0, 0], origin: [0, 0, 0], direction: [1, 0, 0] };
const topology = { name: 'b' } as unknown as Topology;
const face = (name: string, depth: number): Pick => ({
  ...facePick('b', 0, topology, { name, surface: FLAT, area: 1, centre: [0, 0, 0] } as unknown as FaceFacts),
  depth,
});
const edge = (name: string, of: string, off: readonly [number, number], depth: number): Pick => ({
  ...edgePick('b', 0, {
    name,
    faces: [of, 'other'],
    curve: LINE,
    length: 1,
    middle: [0, 0, 0],
  } as unknown as EdgeFacts),
  ...{ off, depth },
});
const order = (...picks: Pick[]) => frontToBack(picks).map(({ name }) => name);

test('an edge comes before the faces that it bounds', () => {
  expect(order(face('side', 10), edge('rim', 'side', [4, 0], 9), face('behind', 30))).toEqual([
    'rim',
    'side',
    'behind',
  ]);
});

test('in the middle of a face that is so thin that edges on both sides are near, the face comes first', () => {
  const [left, right] = [edge('left', 'side', [-4, 0], 9), edge('right', 'side', [5, 0.5], 9.1)];
  expect(order(face('side', 10), left, right)).toEqual(['side', 'left', 'right']);
  // on an edge the edge is meant, and so is a corner
  expect(order(face('side', 10), left, edge('right', 'side', [1, 0], 9.1))).toEqual(['right', 'left', 'side']);
  const corner = { ...cornerPick('b', 0, { name: 'corner', at: [0, 0, 0] } as never), depth: 8 };
  expect(order(face('side', 10), left, right, corner)).toEqual(['corner', 'left', 'right', 'side']);
  // also on the edge of another face that lies before it
  expect(order(face('side', 10), left, right, edge('rim', 'another', [0, 1], 8))).toEqual([
    'rim',
    'left',
    'right',
    'side',
  ]);
  // edges of another face do not make it thin
  expect(order(face('side', 10), left, edge('far', 'another', [5, 0], 9.1))).toEqual(['left', 'far', 'side']);
});

test('of several edges on a face that which is nearest on the screen comes first; what lies behind stays behind', () => {
  const [far, near] = [edge('far', 'side', [4, 1], 8), edge('near', 'side', [0, 1], 9)];
  expect(order(face('side', 10), far, near, edge('hidden', 'behind', [0, 0], 12))).toEqual([
    'near',
    'far',
    'side',
    'hidden',
  ]);
  // beside all faces the front counts
  expect(order(far, near)).toEqual(['far', 'near']);
});
