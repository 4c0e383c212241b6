import type { Thing, Vec3 } from '@helb/core';
import { centreFromHere, placeRead, readingText } from './readings.ts';

const corner: Thing = { to: 'vertex', vertex: { name: 'v', faces: [], at: [84, 130, 52] } } as unknown as Thing;
const face: Thing = { to: 'face', face: { name: 'f', surface: { form: 'free' } } } as unknown as Thing;
const words = (at: Vec3) => at.map((c) => c.toFixed(2)).join(' ');

test('the centre of mass is told from a place that is picked, and from nothing else', () => {
  const centre: Vec3 = [42, 65, 37.2878];
  expect(centreFromHere([corner], centre, words)).toEqual([['centre of mass from here', '-42.00 -65.00 -14.71']]);
  expect(centreFromHere([face], centre, words)).toEqual([]);
  expect(centreFromHere([corner, corner], centre, words)).toEqual([]);
  expect(centreFromHere([corner], null, words)).toEqual([]);
});

test('lengths are read to a thousandth, in the unit of the project', () => {
  expect(readingText(25.4, 'length', 'in')).toBe('1 in');
  expect(readingText(10.00049, 'length', 'mm')).toBe('10 mm');
});

test('a place is told by its coordinates, what is round by its centre; of more than one nothing', () => {
  const curve = { form: 'circle', from: [1, 0, 5], to: [1, 0, 5], centre: [0, 0, 5], axis: [0, 0, 1], radius: 1 };
  const rim = { to: 'edge', body: 0, edge: { name: 'e', faces: [], curve, closed: true } } as unknown as Thing;
  expect(placeRead([corner], words)).toEqual([['place', '84.00 130.00 52.00']]);
  expect(placeRead([rim], words)).toEqual([['centre', '0.00 0.00 5.00']]);
  const datum: Thing = { to: 'datum', datum: { form: 'point', at: [1, 2, 3] } } as unknown as Thing;
  expect(placeRead([datum], words)).toEqual([['place', '1.00 2.00 3.00']]);
  expect(placeRead([face], words)).toEqual([]);
  expect(placeRead([rim, corner], words)).toEqual([]);
});
