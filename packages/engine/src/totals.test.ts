import type { BodyMeasures, Vec3 } from '@helb/core';
import { seenFrom, totalsOf } from './totals.ts';

/** A box with its centre at a place: inertia m (b^2 + c^2) / 12 for a density of 1. */
function box([x, y, z]: Vec3, [a, b, c]: Vec3): BodyMeasures {
  const volume = a * b * c;
  return {
    volume_mm3: volume,
    area_mm2: 2 * (a * b + b * c + a * c),
    centre_mm: [x, y, z],
    inertia_mm5: [
      (volume * (b * b + c * c)) / 12,
      (volume * (a * a + c * c)) / 12,
      (volume * (a * a + b * b)) / 12,
      0,
      0,
      0,
    ],
    off: { volume_mm3: 0, area_mm2: 0, centre_mm: 0 },
    box_mm: { low: [x - a / 2, y - b / 2, z - c / 2], high: [x + a / 2, y + b / 2, z + c / 2] },
    faces: 6,
  };
}
const steel = { name: 'Steel', density_kg_m3: 7850 };

test('two halves of a box are the box: mass, centre, inertia, extent', () => {
  const whole = totalsOf([box([0, 0, 0], [20, 6, 4])], steel);
  const halves = totalsOf([box([-5, 0, 0], [10, 6, 4]), box([5, 0, 0], [10, 6, 4])], steel);
  expect(halves.mass_g).toBeCloseTo(whole.mass_g!, 9);
  expect(halves.centre_mm).toEqual([0, 0, 0]);
  halves.inertia_g_mm2!.forEach((entry, k) => expect(entry).toBeCloseTo(whole.inertia_g_mm2![k]!, 6));
  expect(halves.box_mm).toEqual(whole.box_mm);
  expect(whole.mass_g).toBeCloseTo(480 * 7850e-6, 9);
});

test('products of inertia have the sign of the tensor: minus the integral of x y', () => {
  const { inertia_g_mm2 } = totalsOf([box([5, 5, 0], [1, 1, 1]), box([-5, -5, 0], [1, 1, 1])], steel);
  expect(inertia_g_mm2![3]).toBeCloseTo(-50 * 7850e-6, 9);
});

test('without a material there is no mass, without a body no centre', () => {
  expect(totalsOf([box([0, 0, 0], [1, 1, 1])])).toMatchObject({ mass_g: null, inertia_g_mm2: null });
  expect(totalsOf([], steel)).toMatchObject({ bodies: 0, volume_mm3: 0, centre_mm: null, box_mm: null });
});

test('seen from a corner the inertia is that of a box about its corner: m (b^2 + c^2) / 3, and -m a b / 4', () => {
  const totals = totalsOf([box([10, 3, 2], [20, 6, 4])], steel);
  const seen = seenFrom(totals, { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] });
  const m = totals.mass_g!;
  expect(seen.centre_mm).toEqual([10, 3, 2]);
  const exact = [(m * 52) / 3, (m * 416) / 3, (m * 436) / 3, -m * 30, -m * 20, -m * 6];
  seen.inertia_g_mm2!.forEach((entry, k) => expect(entry).toBeCloseTo(exact[k]!, 9));
});

test('seen from a turned frame the axes change their parts, and the trace stays', () => {
  const totals = totalsOf([box([10, 3, 2], [20, 6, 4])], steel);
  const turned = seenFrom(totals, { origin: [10, 3, 2], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] });
  const [xx, yy, zz] = totals.inertia_g_mm2 as [number, number, number];
  expect(turned.centre_mm).toEqual([0, 0, 0]);
  expect(turned.inertia_g_mm2!.slice(0, 3)).toEqual([yy, zz, xx]);
  expect(
    seenFrom(totalsOf([box([1, 2, 3], [1, 1, 1])]), { origin: [1, 1, 1], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }),
  ).toEqual({
    centre_mm: [0, 1, 2],
    inertia_g_mm2: null,
  });
});
