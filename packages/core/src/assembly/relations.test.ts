import {
  frameOn,
  transformPoint,
  IDENTITY,
  rotation,
  transformDirection,
  compose,
  translation,
  dot3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { explain } from '../wording/index.ts';
import {
  MechanismEquations,
  related,
  restOf,
  restPose,
  SPACE,
  type AssemblyRelationName,
  type Feature,
  type Mechanism,
  type Pose,
} from './index.ts';

/** A body somewhere, turned somehow, and a relation of it to what stands still. */
const SOMEWHERE: RigidTransform = compose(rotation([0, 0, 0], [0.6, 0, 0.8], 0.4), translation([12, -7, 9]));
const mechanism = (kind: AssemblyRelationName, still: Feature, moved: Feature, amount?: number): Mechanism => {
  const equations = related(kind, still, moved, amount);
  if (!equations.ok) throw new Error(explain(equations.issue));
  return {
    bodies: [{ id: 'x', pose: SOMEWHERE, grounded: false }],
    joints: [],
    relations: [{ id: 'r', equations: equations.value }],
    ratios: [],
    limits: new Map(),
    size: 40,
  };
};

const plane = (body: number, at: Vec3, along: Vec3): Feature => ({ body, form: 'plane', at, along });
const axis = (body: number, at: Vec3, along: Vec3, radius?: number): Feature => ({
  body,
  form: 'axis',
  at,
  along,
  ...(radius ? { radius } : {}),
});
const rim = (body: number, at: Vec3, along: Vec3): Feature => ({ body, form: 'axis', at, along, isRim: true });
const point = (body: number, at: Vec3): Feature => ({ body, form: 'point', at });

const still = {
  plane: plane(SPACE, [0, 0, 3], [0, 0, 1]),
  axis: axis(SPACE, [4, 0, 0], [0, 1, 0], 5),
  rim: rim(SPACE, [4, 7, 0], [0, 1, 0]),
  point: point(SPACE, [1, 2, 3]),
};
const own = {
  plane: plane(0, [2, 0, 1], [1, 0, 0]),
  axis: axis(0, [0, 3, 0], [0, 0, 1], 2),
  rim: rim(0, [0, 3, 6], [0, 0, 1]),
  point: point(0, [5, 1, -2]),
};

interface Measured {
  readonly way: Vec3;
  /** Of the still one and the moved one, in space. */
  readonly u: Vec3;
  readonly v: Vec3;
}
function measure({ poses: [pose] }: Pose, a: Feature, b: Feature): Measured {
  const [p, q] = [a.at, transformPoint(pose!, b.at)];
  return {
    way: [q[0] - p[0], q[1] - p[1], q[2] - p[2]],
    u: 'along' in a ? a.along : [0, 0, 0],
    v: 'along' in b ? transformDirection(pose!, b.along) : [0, 0, 0],
  };
}
/** How far two endless lines are apart, seen along the first. */
const besides = ({ way, u }: Measured) => {
  const { x, y } = frameOn([0, 0, 0], u);
  return Math.hypot(dot3(way, x), dot3(way, y));
};
type Check = (found: Measured) => number;
const alike: Check = ({ u, v }) => 1 - Math.abs(dot3(u, v));
const crossed: Check = ({ u, v }) => Math.abs(dot3(u, v));

test.each<[AssemblyRelationName, keyof typeof still, keyof typeof own, number | undefined, number, readonly Check[]]>([
  ['coincident', 'point', 'point', undefined, 3, [({ way }) => Math.hypot(...way)]],
  ['coincident', 'axis', 'point', undefined, 4, [besides]],
  ['coincident', 'plane', 'point', undefined, 5, [({ way, u }) => dot3(way, u)]],
  ['coincident', 'plane', 'plane', undefined, 3, [alike, ({ way, u }) => dot3(way, u)]],
  ['coincident', 'plane', 'axis', undefined, 4, [crossed, ({ way, u }) => dot3(way, u)]],
  ['flush', 'plane', 'plane', undefined, 3, [alike, ({ way, u }) => dot3(way, u)]],
  ['concentric', 'axis', 'axis', undefined, 2, [alike, besides]],
  ['seated', 'rim', 'rim', undefined, 1, [alike, ({ way }) => Math.hypot(...way)]],
  ['parallel', 'axis', 'axis', undefined, 4, [alike]],
  ['parallel', 'plane', 'plane', undefined, 4, [alike]],
  ['parallel', 'plane', 'axis', undefined, 5, [crossed]],
  ['perpendicular', 'axis', 'axis', undefined, 5, [crossed]],
  ['perpendicular', 'plane', 'axis', undefined, 4, [alike]],
  ['perpendicular', 'plane', 'plane', undefined, 5, [crossed]],
  ['distance', 'point', 'point', 15, 5, [({ way }) => Math.hypot(...way) - 15]],
  ['distance', 'plane', 'point', 6, 5, [({ way, u }) => dot3(way, u) - 6]],
  ['distance', 'axis', 'point', 8, 5, [(found) => besides(found) - 8]],
  ['distance', 'axis', 'axis', 11, 3, [alike, (found) => besides(found) - 11]],
  ['distance', 'plane', 'plane', 6, 3, [alike, ({ way, u }) => dot3(way, u) - 6]],
  ['angle', 'axis', 'axis', Math.PI / 3, 5, [({ u, v }) => dot3(u, v) - 0.5]],
  ['angle', 'plane', 'plane', Math.PI / 4, 5, [({ u, v }) => dot3(u, v) - Math.SQRT1_2]],
  ['angle', 'plane', 'axis', Math.PI / 6, 5, [({ u, v }) => dot3(u, v) - 0.5]],
  ['tangent', 'plane', 'axis', undefined, 4, [crossed, ({ way, u }) => dot3(way, u) - 2]],
  ['tangent', 'axis', 'axis', undefined, 3, [alike, (found) => besides(found) - 7]],
])('%s, %s to %s (%s): %i freedoms are left', (kind, a, b, amount, left, checks) => {
  const one = mechanism(kind, still[a], own[b], amount);
  const motion = new MechanismEquations(one);
  const pose = motion.solve(restOf(one));
  expect(pose.fulfilled).toBe(true);
  expect(motion.freedoms(pose).count).toBe(left);
  const found = measure(pose, still[a], own[b]);
  for (const check of checks) expect(Math.abs(check(found))).toBeLessThan(1e-8);
});

test('what is left free stays where it is as far as it can', () => {
  const one = mechanism('coincident', still.plane, own.point);
  const pose = new MechanismEquations(one).solve(restOf(one));
  const moved = transformPoint(SOMEWHERE, own.point.at)[2] - 3;
  // no body moves further than the point was off
  for (const corner of [
    [0, 0, 0],
    [5, 5, 5],
    [-5, 0, 5],
  ] as const) {
    const [p, q] = [transformPoint(SOMEWHERE, corner), transformPoint(pose.poses[0]!, corner)];
    expect(Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])).toBeLessThanOrEqual(1.01 * Math.abs(moved));
  }
  expect(
    new MechanismEquations({ ...one, bodies: [{ id: 'x', pose: IDENTITY, grounded: true }] }).freedoms(restOf(one))
      .count,
  ).toBe(0);
});

test.each<[AssemblyRelationName, Feature, Feature, number | undefined, RegExp]>([
  ['flush', still.plane, own.axis, undefined, /This axis and this flat face can not be flush/],
  ['concentric', still.point, own.point, undefined, /can not be concentric/],
  ['seated', still.rim, own.axis, undefined, /can not be rim to rim/],
  ['tangent', axis(SPACE, [0, 0, 0], [0, 0, 1]), own.axis, undefined, /can not be tangent/],
  ['angle', still.axis, own.axis, 0, /use the relation parallel/],
  ['parallel', own.axis, own.plane, undefined, /same part/],
])('%s of what does not suit it is told', (kind, a, b, amount, words) => {
  const result = related(kind, a, b, amount);
  expect(!result.ok && explain(result.issue)).toMatch(words);
});

test('what has to come elsewhere is shifted, not turned, where that does', () => {
  const upright = { ...mechanism('parallel', plane(SPACE, [0, 0, 0], [0, 0, 1]), plane(0, [0, 0, 0], [0, 0, 1])) };
  const meet = (still: Feature, moved: Feature) => {
    const equations = related('coincident', still, moved);
    if (!equations.ok) throw new Error(explain(equations.issue));
    const bodies = [{ id: 'x', pose: translation([12, -7, 9]), grounded: false }];
    return restPose({ ...upright, bodies, relations: [{ id: 'r', equations: equations.value }] }, new Map());
  };
  // the axis and the point lie far from the origin of the body: turning it would bring them there as well
  for (const [still, moved, to] of [
    [axis(SPACE, [0, 0, 0], [0, 0, 1]), axis(0, [40, 30, 5], [0, 0, 1]), [-40, -30, 9]],
    [{ body: SPACE, form: 'point', at: [1, 2, 3] }, { body: 0, form: 'point', at: [40, 30, 5] }, [-39, -28, -2]],
    [axis(SPACE, [0, 0, 0], [0, 0, 1]), { body: 0, form: 'point', at: [40, 30, 5] }, [-40, -30, 9]],
  ] as const) {
    const { poses, fulfilled } = meet(still, moved);
    expect(fulfilled).toBe(true);
    const expected = translation(to);
    poses[0]!.forEach((row, r) => row.forEach((c, k) => expect(c).toBeCloseTo(expected[r]![k]!, 9)));
  }
});
