import { coordinateKey } from '../naming/index.ts';
import {
  frameOn,
  transformPoint,
  translation,
  IDENTITY,
  type Frame,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { Grab, MechanismEquations, restOf, SPACE, type Joint, type Mechanism, type Pose } from './index.ts';

const at = (x: number, y: number): Frame => frameOn([x, y, 0], [0, 0, 1], [1, 0, 0]);

/** Bars of one length end to end along x, the first on a pivot at the origin; each carries its own coordinates. */
function chain(bars: number, length: number): Mechanism {
  const poses = Array.from({ length: bars }, (_, k): RigidTransform =>
    k === 0 ? IDENTITY : translation([k * length, 0, 0]),
  );
  const joints = poses.map((_, k): Joint => ({
    id: `j${k}`,
    kind: 'revolute',
    a: k === 0 ? { body: SPACE, frame: at(0, 0) } : { body: k - 1, frame: at(length, 0) },
    b: { body: k, frame: at(0, 0) },
  }));
  const bodies = poses.map((pose, k) => ({ id: `b${k}`, pose, grounded: false }));
  return { bodies, joints, relations: [], ratios: [], limits: new Map(), size: length };
}

const end = (pose: Pose, body: number, length: number): Vec3 => transformPoint(pose.poses[body]!, [length, 0, 0]);

test('a crank follows the hand round its pivot', () => {
  const mechanism = chain(1, 30);
  const grab = new Grab(mechanism, { body: 0, at: [30, 0, 0] });
  let pose = restOf(mechanism);
  for (let k = 1; k <= 24; k++) {
    const angle = (k * Math.PI) / 8;
    // the hand is off the circle, and above the plane
    pose = grab.pull(pose, [50 * Math.cos(angle), 50 * Math.sin(angle), 4]);
    const [x, y, z] = end(pose, 0, 30);
    expect(x).toBeCloseTo(30 * Math.cos(angle), 3);
    expect(y).toBeCloseTo(30 * Math.sin(angle), 3);
    expect(z).toBeCloseTo(0, 8);
  }
  // three turns, counted
  expect(pose.coordinates.get(coordinateKey('j0', 'turn'))).toBeCloseTo(3 * Math.PI, 4);
});

test('a chain reaches what it can reach, and points at what it can not', () => {
  const mechanism = chain(5, 20);
  const grab = new Grab(mechanism, { body: 4, at: [20, 0, 0] });
  const reached = grab.pull(restOf(mechanism), [30, 60, 0]);
  end(reached, 4, 20).forEach((c, k) => expect(c).toBeCloseTo([30, 60, 0][k]!, 4));
  const beyond = grab.pull(reached, [0, 300, 0]);
  const [x, y] = end(beyond, 4, 20);
  expect(Math.hypot(x, y)).toBeGreaterThan(99);
  expect(Math.hypot(x, y)).toBeLessThanOrEqual(100 + 1e-6);
  expect(beyond.fulfilled).toBe(true);
});

test('limits stop a joint, and the others go on', () => {
  const mechanism = chain(2, 30);
  const limits = new Map([[coordinateKey('j0', 'turn'), [-0.5, 0.5] as const]]);
  const grab = new Grab({ ...mechanism, limits }, { body: 1, at: [30, 0, 0] });
  let pose = restOf(mechanism);
  for (let k = 1; k <= 10; k++) pose = grab.pull(pose, [60 - 4 * k, 5 * k, 0]);
  expect(pose.coordinates.get(coordinateKey('j0', 'turn'))!).toBeLessThanOrEqual(0.5 + 1e-9);
  const free = new Grab(mechanism, { body: 1, at: [30, 0, 0] });
  let other = restOf(mechanism);
  for (let k = 1; k <= 10; k++) other = free.pull(other, [60 - 4 * k, 5 * k, 0]);
  end(other, 1, 30).forEach((c, k) => expect(c).toBeCloseTo([20, 50, 0][k]!, 4));
  expect(other.coordinates.get(coordinateKey('j0', 'turn'))!).toBeGreaterThan(0.5);
});

test('what is held still does not move, and what hangs on nothing comes along', () => {
  const mechanism: Mechanism = {
    bodies: [
      { id: 'table', pose: IDENTITY, grounded: true },
      { id: 'loose', pose: translation([10, 0, 0]), grounded: false },
    ],
    joints: [],
    relations: [],
    ratios: [],
    limits: new Map(),
    size: 20,
  };
  const pose = new Grab(mechanism, { body: 1, at: [0, 0, 0] }).pull(restOf(mechanism), [40, 50, 60]);
  transformPoint(pose.poses[1]!, [0, 0, 0]).forEach((c, k) => expect(c).toBeCloseTo([40, 50, 60][k]!, 4));
  expect(pose.poses[0]).toEqual(IDENTITY);
  // and is not turned on the way, wherever it is taken
  const aside = new Grab(mechanism, { body: 1, at: [9, -4, 30] }).pull(restOf(mechanism), [40, 50, 60]);
  aside.poses[1]!.forEach((row, r) => row.slice(0, 3).forEach((c, k) => expect(c).toBeCloseTo(r === k ? 1 : 0, 9)));
  expect(new MechanismEquations(mechanism).freedoms(pose).count).toBe(6);
});

test('what slides and turns is pulled along its axis without turning, and across it round', () => {
  const mechanism: Mechanism = {
    bodies: [{ id: 'b', pose: IDENTITY, grounded: false }],
    joints: [{ id: 'j', kind: 'cylindrical', a: { body: SPACE, frame: at(0, 0) }, b: { body: 0, frame: at(0, 0) } }],
    relations: [],
    ratios: [],
    limits: new Map(),
    size: 40,
  };
  const pulled = (to: Vec3) => {
    const grab = new Grab(mechanism, { body: 0, at: [10, 0, 0] });
    return transformPoint(grab.pull(restOf(mechanism), to).poses[0]!, [10, 0, 0]);
  };
  // the hand is not quite on the axis
  const along = pulled([-10, 20, 40]);
  [10, 0, 40].forEach((c, k) => expect(along[k]).toBeCloseTo(c, 2));
  const [x, y] = pulled([0, 30, 2]);
  expect(x).toBeCloseTo(0, 2);
  expect(y).toBeCloseTo(10, 2);
});
