import type { Thing, Vec3 } from '@helb/core';
import { centreFromHere, readingText } from './readings.ts';

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
