import type { Handle, Vec2 } from '@helb/core';
import { nearestHandle } from './handles.ts';

const handle = (name: string, ...path: Vec2[]): Handle => ({
  view: 'front',
  reference: { to: path.length === 1 ? 'vertex' : 'edge', name },
  path,
});
const found = (handles: readonly Handle[], at: Vec2, within = 2) =>
  (nearestHandle(handles, at, within)?.reference as { name: string } | undefined)?.name;

const edge = handle('edge', [0, 0], [10, 0], [10, 10]);
const corner = handle('corner', [10, 0]);

test('the nearest line within reach, along all of its path', () => {
  expect(found([edge], [5, 1])).toBe('edge');
  expect(found([edge], [11, 5])).toBe('edge');
  expect(found([edge], [5, 3])).toBeUndefined();
  expect(found([edge, handle('other', [0, 1.5], [10, 1.5])], [5, 1])).toBe('other');
  expect(found([], [0, 0])).toBeUndefined();
});

test('a corner is met before the lines that meet there, not from far off', () => {
  expect(found([edge, corner], [9.7, 0.2])).toBe('corner');
  expect(found([edge, corner], [5, 0.2])).toBe('edge');
  // a line without length is a place
  expect(found([handle('dot', [3, 3], [3, 3])], [3, 4])).toBe('dot');
});
