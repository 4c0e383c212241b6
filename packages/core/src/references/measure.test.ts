import { frameOn, type Datum, type Thing, type Vec3 } from '../index.ts';
import { readingsBetween } from './measure.ts';
import { readingsOf } from './things/index.ts';

const datum = (made: Datum): Thing => ({ to: 'datum', datum: made });
const point = (...at: Vec3) => datum({ form: 'point', at });
const plane = (origin: Vec3, normal: Vec3) => datum({ form: 'plane', frame: frameOn(origin, normal) });
const axis = (origin: Vec3, direction: Vec3) => datum({ form: 'axis', origin, direction });
const H = Math.SQRT1_2;

test.each<[string, Thing, Thing, Record<string, number>]>([
  ['points', point(1, 2, 3), point(4, 6, 3), { distance: 5, 'along x': 3, 'along y': 4, 'along z': 0 }],
  ['parallel planes', plane([0, 0, 2], [0, 0, 1]), plane([5, 5, 9], [0, 0, -1]), { distance: 7 }],
  ['planes that meet', plane([0, 0, 0], [0, 0, 1]), plane([0, 0, 0], [0, H, H]), { angle: Math.PI / 4 }],
  ['a point and a plane', plane([0, 0, 2], [0, 0, 1]), point(7, 7, -1), { distance: 3 }],
  ['a point and an axis', point(3, 4, 9), axis([0, 0, 0], [0, 0, 1]), { distance: 5 }],
  ['parallel axes', axis([0, 0, 0], [0, 0, 1]), axis([6, 8, 1], [0, 0, -1]), { distance: 10 }],
  ['axes askew', axis([0, 0, 0], [1, 0, 0]), axis([0, 0, 7], [0, 1, 0]), { distance: 7, angle: Math.PI / 2 }],
  ['an axis along a plane', axis([0, 0, 4], [1, 0, 0]), plane([0, 0, 0], [0, 0, 1]), { distance: 4 }],
  ['an axis through a plane', axis([0, 0, 4], [0, H, H]), plane([0, 0, 0], [0, 0, 1]), { angle: Math.PI / 4 }],
])('between %s', (_, a, b, figures) => {
  for (const readings of [readingsBetween(a, b), readingsBetween(b, a)])
    expect(Object.fromEntries(readings.map(({ label, amount }) => [label, Math.abs(amount)]))).toEqual(
      Object.fromEntries(Object.entries(figures).map(([label, amount]) => [label, expect.closeTo(amount, 9)])),
    );
});

test('off a rim its length and radius, off a bore its area and radius, off a datum nothing', () => {
  const rim: Thing = {
    to: 'edge',
    body: 0,
    edge: {
      name: 'e',
      faces: [],
      curve: { form: 'circle', centre: [0, 0, 0], axis: [0, 0, 1], radius: 4 },
      length: 8 * Math.PI,
      middle: [4, 0, 0],
    },
  };
  expect(readingsOf(rim).map(({ label, amount }) => [label, amount])).toEqual([
    ['length', 8 * Math.PI],
    ['radius', 4],
  ]);
  expect(readingsOf(point(0, 0, 0))).toEqual([]);
});
