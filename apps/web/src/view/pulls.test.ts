import type { Vec2, Vec3 } from '@helb/core';
import { drawn, isPlainNumber, pulled, type ShownPull } from './pulls.ts';

/** Seen from the front: x to the right, z up, four pixels a millimetre. */
const FRONT = { pixel: 0.25, toScreen: ([x, , z]: Vec3): Vec2 => [400 + 4 * x, 300 - 4 * z] };
const up: ShownPull = { field: 'distance', from: [10, 0, 5], along: [0, 0, 1], value: 20, turns: true };

test('the arrow stands beyond the end of its length, on its side', () => {
  expect(drawn(up, FRONT)).toEqual({
    line: [
      [440, 280],
      [440, 200],
    ],
    tip: [440, 164],
  });
  expect(drawn({ ...up, value: -20 }, FRONT)!.tip).toEqual([440, 396]);
  // half of what goes both ways is seen on each side
  expect(drawn({ ...up, scale: 0.5 }, FRONT)!.line[1]).toEqual([440, 240]);
  // along the line of sight there is nothing to be pulled
  expect(drawn({ ...up, along: [0, 1, 0] }, FRONT)).toBeUndefined();
});

test('pulled it comes to steps that can be seen, finer with Shift, in the unit of the project', () => {
  const follow = pulled(up, FRONT, [440, 170], 'mm');
  expect(follow([480, 170], false)).toEqual({ value: 20, text: '20 mm' });
  expect(follow([440, 127], false)).toEqual({ value: 31, text: '31 mm' });
  expect(follow([440, 127], true)).toMatchObject({ text: '30.8 mm' });
  expect(follow([440, 270], false)).toEqual({ value: -5, text: '-5 mm' });
  expect(pulled({ ...up, scale: 0.5 }, FRONT, [440, 170], 'mm')([440, 130], false).value).toBe(40);
  expect(pulled({ ...up, value: 25.4 }, FRONT, [440, 170], 'in')([440, 160], false).text).toBe('1.125 in');
});

test('what is told by a name or an expression is no plain number', () => {
  expect(['12', '12.5 mm', '-3 in', '0.2cm'].every(isPlainNumber)).toBe(true);
  expect(['wall', '2 * 3', '12 deg', '1/2 in', ''].some(isPlainNumber)).toBe(false);
});
