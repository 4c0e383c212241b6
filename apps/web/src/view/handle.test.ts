import fc from 'fast-check';
import { transformPoint, type Vec2, type Vec3 } from '@helb/core';
import { gripName, gripsAt, take, type Grip, type HandleView } from './handle.ts';

/** Seen from an azimuth and from above, 2 px a mm, as the camera of the views does it. */
function seen(azimuth: number, above: number): HandleView {
  const [ca, sa, cp, sp] = [Math.cos(azimuth), Math.sin(azimuth), Math.cos(above), Math.sin(above)];
  const [right, up]: [Vec3, Vec3] = [
    [ca, sa, 0],
    [-sa * sp, ca * sp, cp],
  ];
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  return { pixel: 0.5, toScreen: (place) => [300 + 2 * dot(place, right), 200 - 2 * dot(place, up)] };
}
const CORNER = seen(0.6, 0.5);
const shift = (axis: 0 | 1 | 2): Grip => ({ sort: 'shift', axis });
const turn = (axis: 0 | 1 | 2): Grip => ({ sort: 'turn', axis });

test('all six can be taken from a corner; from the front what is seen end-on or edge-on can not', () => {
  expect(gripsAt([1, 2, 3], CORNER).map(({ grip }) => gripName(grip))).toEqual([
    ...['Shift along x', 'Turn about x', 'Shift along y', 'Turn about y', 'Shift along z', 'Turn about z'],
  ]);
  const front = gripsAt([0, 0, 0], seen(0, 0)).map(({ grip }) => gripName(grip));
  expect(front).toEqual(['Shift along x', 'Turn about y', 'Shift along z']);
});

test('what hangs on an arrow goes as far as the pointer goes along it, in whole millimetres', () => {
  const coordinate = fc.integer({ min: -200, max: 200 });
  fc.assert(
    fc.property(fc.tuple(coordinate, coordinate, coordinate), fc.constantFrom(0, 1, 2), coordinate, (at, axis, far) => {
      const goal = at.map((c, k) => (k === axis ? c + far : c)) as unknown as Vec3;
      const drag = take(shift(axis), at, CORNER, CORNER.toScreen(at), 'mm');
      transformPoint(drag(CORNER.toScreen(goal), false).by, at).forEach((c, k) => expect(c).toBeCloseTo(goal[k]!, 6));
    }),
  );
});

test('what hangs on an arc follows the pointer round, on over half a turn, the hand of the axis', () => {
  const at: Vec3 = [10, -5, 20];
  const place = (degrees: number): Vec2 => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    return CORNER.toScreen([at[0] + 40 * c, at[1] + 40 * s, at[2]]);
  };
  const drag = take(turn(2), at, CORNER, place(30), 'mm');
  for (let k = 30; k < 270; k += 20) drag(place(k), false);
  const { by, words } = drag(place(270), false);
  expect(words).toBe('about z +240 deg');
  const moved = transformPoint(by, [at[0] + 1, at[1], at[2]]);
  expect(moved[0] - at[0]).toBeCloseTo(Math.cos((240 * Math.PI) / 180), 9);
  expect(moved[1] - at[1]).toBeCloseTo(Math.sin((240 * Math.PI) / 180), 9);
  expect(transformPoint(by, at)).toEqual(at.map((c) => expect.closeTo(c, 9) as number));
});

test('coarse by whole millimetres and five degrees, fine by tenths and single degrees, whichever way it came', () => {
  const drag = take(shift(0), [0, 0, 0], CORNER, CORNER.toScreen([0, 0, 0]), 'mm');
  const to = CORNER.toScreen([12.34, 0, 0]);
  expect(drag(to, false).words).toBe('x +12 mm');
  expect(drag(to, true).words).toBe('x +12.3 mm');
  expect(drag(CORNER.toScreen([-3, 0, 0]), false).words).toBe('x -3 mm');
  // in inches by sixteenths and sixty-fourths, told in full
  const inches = take(shift(0), [0, 0, 0], CORNER, CORNER.toScreen([0, 0, 0]), 'in');
  expect(inches(to, false).words).toBe('x +0.5 in');
  expect(inches(to, true).words).toBe('x +0.484375 in');
  const about = take(turn(0), [0, 0, 0], CORNER, CORNER.toScreen([0, 9, 0]), 'mm');
  const angle = (12.4 * Math.PI) / 180;
  const there = CORNER.toScreen([0, 9 * Math.cos(angle), 9 * Math.sin(angle)]);
  expect(about(there, false).words).toBe('about x +10 deg');
  expect(about(there, true).words).toBe('about x +12 deg');
});
