import { compose, translation, rotation, type Entities, type Clearance, type RigidTransform } from '@helb/core';
import { box, circle, kernel, all, profile, withKernel } from './test-fixture.ts';

withKernel();

const meeting = (a: number, b: number, transform: RigidTransform): Clearance => {
  const met = kernel.clearance(a, b, transform);
  if (!met.ok) throw new Error(JSON.stringify(met.issue));
  return met.value;
};
const near = (place: readonly number[], expected: readonly number[]) =>
  place.forEach((c, k) => expect(c).toBeCloseTo(expected[k]!, 7));

test('apart they tell how far and where, in the space of the first', () => {
  const [a, b] = [box(10, 20, 30), box(4, 4, 4)];
  const { overlap_mm3, distance_mm, from, to } = meeting(a, b, translation([15, 3, 5]));
  expect(overlap_mm3).toBe(0);
  expect(distance_mm).toBeCloseTo(5, 9);
  expect(from[0]).toBeCloseTo(10, 9);
  expect(to[0]).toBeCloseTo(15, 9);
});

test('what goes into each other tells how much and its middle; touching is nothing', () => {
  const [a, b] = [box(10, 20, 30), box(4, 4, 4)];
  const met = meeting(a, b, translation([8, 3, 5]));
  expect(met.overlap_mm3).toBeCloseTo(2 * 4 * 4, 9);
  near(met.from, [9, 5, 7]);
  expect(meeting(a, b, translation([10, 3, 5]))).toMatchObject({ overlap_mm3: 0 });
});

test('what lies inside the other overlaps whole, also turned', () => {
  const [a, b] = [box(10, 20, 30), box(4, 4, 4)];
  const turned = compose(rotation([2, 2, 2], [0, 0, 1], 0.7), translation([3, 8, 12]));
  const met = meeting(a, b, turned);
  expect(met.overlap_mm3).toBeCloseTo(64, 7);
  near(met.from, [5, 10, 14]);
});

test('a rod in a bore of its size touches, one that is larger overlaps by its ring', () => {
  const round = (radius: number, from: number, to: number, bore?: number) => {
    const inside: Entities = bore === undefined ? {} : { i: { kind: 'circle', centre: 'm', radius: bore } };
    const drawn = profile({ ...circle(0, 0, radius), ...inside });
    return all(kernel.extrude({ profile: drawn, from, to, step: 's' }))[0]!;
  };
  const sleeve = round(12, 0, 10, 6);
  expect(meeting(sleeve, round(6, -5, 15), translation([0, 0, 0])).overlap_mm3).toBe(0);
  const ring = Math.PI * (6.5 ** 2 - 36) * 10;
  expect(meeting(sleeve, round(6.5, -5, 15), translation([0, 0, 0])).overlap_mm3).toBeCloseTo(ring, 6);
});
