import type { Reference, Thing } from '@helb/core';
import { begunStep, type Beginning } from './begin.ts';

const flat = (name: string) => {
  const surface = { form: 'plane', origin: [0, 0, 0], normal: [0, 0, 1] } as const;
  const face = { name, surface, area: 9, centre: [0, 0, 0] } as const;
  const topology = { name: 's1', faces: [face], edges: [], vertices: [] };
  const thing: Thing = { to: 'face', face, body: 0, topology };
  return { thing, reference: { to: 'face', name } as Reference };
};
const straight = (name: string) => {
  const curve = { form: 'line', from: [0, 0, 0], to: [0, 7, 0] } as const;
  const edge = { name, faces: ['a', 'b'], curve, length: 7, middle: [0, 3.5, 0] } as const;
  return { thing: { to: 'edge', edge, body: 0 } as Thing, reference: { to: 'edge', name } as Reference };
};
const from = (given: Partial<Beginning> = {}): Beginning => ({
  ...{ picked: [], sketch: undefined, waiting: [], latest: [], parts: [], hasBody: true, shown: undefined, unit: 'mm' },
  freeName: (word) => `${word} 3`,
  ...given,
});

test('a step is called by its noun, takes the waiting sketch, and is added where there is a body', () => {
  expect(begunStep('extrude', from({ sketch: 's4' }))).toEqual({
    ...{ kind: 'extrude', name: 'Extrusion 3', sketch: 's4', result: 'add' },
  });
  expect(begunStep('extrude', from({ sketch: 's4', hasBody: false }))).not.toHaveProperty('result');
});

test('what is picked goes into the first lines that take it, each once', () => {
  const picked = [straight('e1'), flat('f1'), straight('e2')];
  expect(begunStep('fillet', from({ picked }))).toMatchObject({
    // a face is all of its edges
    edges: [{ name: 'e1' }, { name: 'f1' }, { name: 'e2' }],
  });
  expect(begunStep('mirror', from({ picked }))).toMatchObject({ plane: [{ name: 'f1' }] });
});

test('a repeat is of what was made last, or of the body that is picked', () => {
  const latest = ['s3', 's4'];
  expect(begunStep('mirror', from({ latest, picked: [flat('f1')] }))).toMatchObject({
    steps: latest,
    plane: [{ name: 'f1' }],
  });
  const body = { thing: { to: 'body', body: 0 } as Thing, reference: { to: 'body', name: 's1' } as Reference };
  const ofBody = begunStep('mirror', from({ latest, picked: [body] }));
  expect(ofBody).toMatchObject({ what: 'bodies', bodies: [{ name: 's1' }] });
  expect(ofBody).not.toHaveProperty('steps');
  // a face may be picked for anything: how far an extrusion goes stays as it is
  expect(begunStep('extrude', from({ sketch: 's4', picked: [flat('f1')] }))).not.toHaveProperty('extent');
});

test('of bodies some of which are hidden a step takes those that are shown, unless some are picked', () => {
  const shown: Reference[] = [{ to: 'body', name: 's1' }];
  expect(begunStep('extrude', from({ shown }))).toMatchObject({ only: shown, result: 'add' });
  // nothing is seen that it could be added to
  expect(begunStep('extrude', from({ shown: [] }))).not.toHaveProperty('result');
});

test('where there is only one body nobody is asked which, unless another is picked', () => {
  const only: Reference = { to: 'body', name: 's1' };
  expect(begunStep('move', from({ only }))).toMatchObject({ bodies: [only] });
  const mirror = begunStep('mirror', from({ only, latest: ['s3'] }));
  expect(mirror).toMatchObject({ steps: ['s3'], bodies: [only] });
  expect(mirror).not.toHaveProperty('what');
  const other = { thing: { to: 'body', body: 1 } as Thing, reference: { to: 'body', name: 's2' } as Reference };
  expect(begunStep('move', from({ only, picked: [other] }))).toMatchObject({ bodies: [{ name: 's2' }] });
  // where none is needed it takes all
  expect(begunStep('split', from({ only }))).not.toHaveProperty('bodies');
});

test('a datum begins in the way that suits all of what is picked best', () => {
  const how = (picked: Beginning['picked']) => begunStep('datum-plane', from({ picked }));
  expect(how([flat('f1')])).toEqual({
    kind: 'datum-plane',
    name: 'Plane 3',
    how: 'offset',
    on: [flat('f1').reference],
  });
  expect(how([flat('f1'), flat('f2')])).toMatchObject({ how: 'halfway' });
  expect(how([flat('f1'), straight('e1')])).toMatchObject({ how: 'angle' });
  expect(how([])).toMatchObject({ on: [] });
});

test('the bodies of another part are those of the first that can be taken', () => {
  expect(begunStep('opposite-hand', from({ parts: ['p2', 'p3'] }))).toMatchObject({ of: 'p2' });
});

test('first lengths are round in the unit of the project, and are what they say in any other', () => {
  expect(begunStep('extrude', from({ unit: 'in', sketch: 's4' }))).toMatchObject({ distance: '1/2 in' });
  expect(begunStep('shell', from({ unit: 'in' }))).toMatchObject({ wall: '1/16 in' });
  expect(begunStep('fillet', from({ unit: 'cm' }))).toMatchObject({ radius: '0.2 cm' });
  expect(begunStep('datum-plane', from({ unit: 'in', picked: [flat('f1')] }))).toMatchObject({ by: '1/2 in' });
  // an angle is no length
  const turned = begunStep('datum-plane', from({ unit: 'in', picked: [flat('f1'), straight('e1')] }));
  expect(turned).not.toHaveProperty('by');
});
