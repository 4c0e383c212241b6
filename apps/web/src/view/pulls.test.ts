import type { Vec2, Vec3 } from '@helb/core';
import { drawn, isTypedLength, pulled, type ShownPull } from './pulls.ts';

/** Seen from the front: x to the right, z up, four pixels a millimetre. */
const FRONT = { pixel: 0.25, toScreen: ([x, , z]: Vec3): Vec2 => [400 + 4 * x, 300 - 4 * z] };
const up: ShownPull = {
  ...{ field: 'distance', label: 'distance', from: [10, 0, 5], along: [0, 0, 1], value: 20 },
  ...{ min: 1e-3, turns: true, opposes: true },
};

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
  expect(follow([480, 170], false)).toEqual({ text: '20 mm', isOver: false });
  expect(follow([440, 127], false)).toEqual({ text: '31 mm', isOver: false });
  expect(follow([440, 127], true)).toMatchObject({ text: '30.8 mm' });
  expect(pulled({ ...up, scale: 0.5 }, FRONT, [440, 170], 'mm')([440, 130], false)!.text).toBe('40 mm');
  expect(pulled({ ...up, value: 25.4 }, FRONT, [440, 170], 'in')([440, 160], false)!.text).toBe('1.125 in');
});

test('past nothing the step is turned round, the number gets a sign, or it stays: as the step can', () => {
  const at = (more: Partial<ShownPull>, y: number) =>
    pulled({ ...up, ...more }, FRONT, [440, 170], 'mm')([440, y], false);
  expect(at({}, 270)).toEqual({ text: '5 mm', isOver: true });
  // a shift, a plane that is set off: turned round these have another sign, and point as before
  expect(at({ min: -1e5, opposes: false }, 270)).toEqual({ text: '-5 mm', isOver: false });
  expect(at({ min: -1e5, opposes: false }, 250)!.text).toBe('0 mm');
  // a radius
  expect(at({ turns: false, opposes: false }, 270)).toBeUndefined();
  expect(at({}, 250)).toBeUndefined();
});

test('what is told by a name or an expression is no plain number', () => {
  expect(['12', '12.5 mm', '-3 in', '0.2cm', '1/2 in', '2-1/8"', '1 1/2'].every(isTypedLength)).toBe(true);
  expect(['wall', '2 * 3', '10-2', '12 deg', ''].some(isTypedLength)).toBe(false);
});
