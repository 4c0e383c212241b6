import type { EdgeFacts, FaceFacts } from '../kernel-port/index.ts';
import type { Vec3 } from '../math/index.ts';
import type { Reference, Thing } from '../references/index.ts';
import { stepKind, type Step } from './index.ts';
import type { SeenAround } from './pulls.ts';

/** The upper face of a box of 40 x 20 x 10 about the origin, with its front edge, and a corner of it. */
const edge: EdgeFacts = {
  name: 'front',
  faces: ['top', 'side'],
  curve: { form: 'line', from: [-20, -10, 10], to: [20, -10, 10] },
  length: 40,
  middle: [0, -10, 10],
};
const face: FaceFacts = {
  name: 'top',
  surface: { form: 'plane', origin: [0, 0, 10], normal: [0, 0, 1] },
  area: 800,
  centre: [0, 0, 10],
};
const THINGS: Readonly<Record<string, Thing>> = {
  top: { to: 'face', face, body: 0, topology: { name: 'b', faces: [face], edges: [edge], vertices: [] } },
  front: { to: 'edge', edge, body: 0 },
};
const seen: SeenAround = {
  sketch: () => ({ frame: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }, middle: [3, 4, 0] }),
  find: (reference) => THINGS[(reference as { name: string }).name],
  number: (field) => (field === 'start' ? 2 : 0),
  middle: [0, 0, 5],
};
const on = (to: 'face' | 'edge', name: string): Reference[] => [{ to, name }];
const pulls = (step: object) => {
  const { kind } = step as Step;
  return stepKind(kind).pulls!({ name: 'x', ...step } as Step, seen);
};
const round = (way: Vec3) => way.map((part) => Math.round(part * 1e6) / 1e6 + 0);

test('an extrusion is pulled at its end, on its side; both ways at half of it, two ways at both ends', () => {
  const step = { kind: 'extrude', sketch: 's', extent: 'by', distance: '10 mm' };
  expect(pulls(step)).toEqual([{ field: 'distance', from: [3, 4, 2], along: [0, 0, 1] }]);
  expect(pulls({ ...step, ways: 'backwards' })[0]!.along.map((part) => part + 0)).toEqual([0, 0, -1]);
  expect(pulls({ ...step, ways: 'both' })[0]!.scale).toBe(0.5);
  expect(pulls({ ...step, ways: 'two' }).map(({ field }) => field)).toEqual(['distance', 'back']);
  expect(pulls({ ...step, extent: 'through' })).toEqual([]);
});

test('edges are pulled out of the body, square to them; without a pick there is nothing', () => {
  const [radius] = pulls({ kind: 'fillet', edges: on('edge', 'front'), radius: '2 mm' });
  expect([radius!.field, radius!.from, round(radius!.along)]).toEqual([
    'radius',
    [0, -10, 10],
    [0, -0.894427, 0.447214],
  ]);
  expect(pulls({ kind: 'chamfer', edges: on('edge', 'front'), distance: '2 mm' })[0]!.field).toBe('distance');
  expect(pulls({ kind: 'fillet', edges: on('edge', 'gone'), radius: '2 mm' })).toEqual([]);
  expect(pulls({ kind: 'fillet', edges: [], radius: '2 mm' })).toEqual([]);
});

test('faces are pulled square off, into the body or out of it; walls from the rim to the middle', () => {
  const faces = on('face', 'top');
  const along = (step: object) => round(pulls(step)[0]!.along);
  expect(along({ kind: 'offset-face', faces, distance: '1 mm', side: 'outwards' })).toEqual([0, 0, 1]);
  expect(along({ kind: 'offset-face', faces, distance: '1 mm' })).toEqual([0, 0, -1]);
  expect(along({ kind: 'thicken', faces, thickness: '1 mm' })).toEqual([0, 0, 1]);
  expect(along({ kind: 'shell', open: faces, wall: '2 mm' })).toEqual([0, 1, 0]);
  expect(along({ kind: 'shell', open: faces, wall: '2 mm', side: 'outwards' })).toEqual([0, -1, 0]);
  const plane = pulls({ kind: 'datum-plane', how: 'offset', on: faces, by: '5 mm' });
  expect(plane).toEqual([{ field: 'by', from: [0, 0, 10], along: [0, 0, 1] }]);
});

test('what is moved is pulled along all three axes, what is repeated along its direction', () => {
  expect(pulls({ kind: 'move', bodies: [] }).map(({ field, along }) => [field, along])).toEqual([
    ['x', [1, 0, 0]],
    ['y', [0, 1, 0]],
    ['z', [0, 0, 1]],
  ]);
  const line = pulls({ kind: 'pattern-line', along: on('edge', 'front'), spacing: '20 mm', count: '3' });
  expect(line.map(({ field, along }) => [field, round(along)])).toEqual([['spacing', [1, 0, 0]]]);
});
