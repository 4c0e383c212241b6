import {
  compose,
  dot3,
  rotation,
  transformDirection,
  transformPoint,
  translation,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { explain } from '../wording/index.ts';
import { related, restPose, SPACE, type AssemblyRelationName, type Feature, type Mechanism } from './index.ts';

// Parts are drawn along the axes: two that shall be joined often stand square to each other.

const QUARTER = Math.PI / 2;
const turns = (axis: Vec3) => [0, 1, 2, 3].map((k) => rotation([0, 0, 0], axis, k * QUARTER));
const FACING_WAYS = [
  rotation([0, 0, 0], [0, 1, 0], QUARTER),
  rotation([0, 0, 0], [0, 1, 0], -QUARTER),
  ...turns([1, 0, 0]),
];
/** All ways in which a box can stand on a table, somewhere. */
const STANDING: RigidTransform[] = FACING_WAYS.flatMap((way) =>
  turns([0, 0, 1]).map((spin) => compose(compose(spin, way), translation([12, -7, 9]))),
);

const still: Record<string, Feature> = {
  plane: { body: SPACE, form: 'plane', at: [0, 0, 3], along: [0, 0, 1] },
  axis: { body: SPACE, form: 'axis', at: [4, 0, 0], along: [0, 1, 0], radius: 5 },
  rod: { body: SPACE, form: 'axis', at: [0, 0, 0], along: [1, 0, 0] },
  wall: { body: SPACE, form: 'plane', at: [0, 3, 0], along: [0, 1, 0] },
};
const own: Record<string, Feature> = {
  plane: { body: 0, form: 'plane', at: [2, 0, 1], along: [1, 0, 0] },
  axis: { body: 0, form: 'axis', at: [0, 3, 0], along: [0, 0, 1], radius: 2 },
  side: { body: 0, form: 'plane', at: [0, 2, 0], along: [0, 1, 0] },
};

const mechanism = (
  kind: AssemblyRelationName,
  a: Feature,
  b: Feature,
  pose: RigidTransform,
  amount?: number,
): Mechanism => {
  const equations = related(kind, a, b, amount);
  if (!equations.ok) throw new Error(explain(equations.issue));
  return {
    bodies: [{ id: 'x', pose, grounded: false }],
    joints: [],
    relations: [{ id: 'r', equations: equations.value }],
    ratios: [],
    limits: new Map(),
    size: 40,
  };
};

test.each<[AssemblyRelationName, string, string, number | undefined]>([
  ['coincident', 'plane', 'plane', undefined],
  ['coincident', 'plane', 'axis', undefined],
  ['coincident', 'axis', 'axis', undefined],
  ['concentric', 'axis', 'axis', undefined],
  ['flush', 'plane', 'plane', undefined],
  ['parallel', 'axis', 'axis', undefined],
  ['parallel', 'plane', 'axis', undefined],
  ['perpendicular', 'plane', 'plane', undefined],
  ['perpendicular', 'plane', 'axis', undefined],
  ['perpendicular', 'axis', 'axis', undefined],
  ['distance', 'axis', 'axis', 11],
  ['distance', 'plane', 'plane', 6],
  ['angle', 'axis', 'axis', Math.PI / 3],
  ['angle', 'plane', 'plane', Math.PI / 4],
  ['tangent', 'plane', 'axis', undefined],
  ['tangent', 'axis', 'axis', undefined],
])('%s, %s to %s (%s): holds however the part stands', (kind, a, b, amount) => {
  expect(STANDING).toHaveLength(24);
  for (const pose of STANDING) {
    const rest = restPose(mechanism(kind, still[a]!, own[b]!, pose, amount), new Map());
    expect([STANDING.indexOf(pose), rest.fulfilled]).toEqual([STANDING.indexOf(pose), true]);
  }
});

test('of the ways to turn it that is taken which leaves the most that holds', () => {
  // its z lies along the rod and shall stand square to it: turned about z of the room its side would face elsewhere
  for (const upright of [rotation([0, 0, 0], [0, 1, 0], QUARTER), rotation([0, 0, 0], [0, 1, 0], -QUARTER)]) {
    const square = mechanism('perpendicular', still['rod']!, own['axis']!, upright).relations[0]!;
    const level = mechanism('parallel', still['wall']!, own['side']!, upright).relations[0]!;
    const both = { ...mechanism('parallel', still['wall']!, own['side']!, upright), relations: [level, square] };
    const before = transformDirection(upright, [0, 1, 0]);
    const rest = restPose(both, new Map());
    expect(rest.fulfilled).toBe(true);
    // what looked along y was in order, and still is
    expect(Math.abs(dot3(transformDirection(rest.poses[0]!, [0, 1, 0]), before))).toBeCloseTo(1, 9);
  }
});

test('what stands square is turned by a quarter, no more, and stays where it is else', () => {
  const pose = translation([12, -7, 9]);
  const rest = restPose(mechanism('parallel', still['axis']!, own['axis']!, pose), new Map());
  expect(Math.abs(dot3(transformDirection(rest.poses[0]!, [0, 0, 1]), [0, 1, 0]))).toBeCloseTo(1, 12);
  // about the x axis: what lies along that keeps its direction
  expect(transformDirection(rest.poses[0]!, [1, 0, 0])).toEqual([1, 0, 0].map((c) => expect.closeTo(c, 9)));
  expect(transformPoint(rest.poses[0]!, [0, 0, 0])).toEqual([12, -7, 9].map((c) => expect.closeTo(c, 9)));
});
