import { type CoordinateKey, coordinateKey } from '../naming/index.ts';
import {
  frameOn,
  transformPoint,
  translation,
  IDENTITY,
  transformDirection,
  type Frame,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import {
  drive,
  MechanismEquations,
  restOf,
  SPACE,
  type Body,
  type Joint,
  type JointName,
  type Mechanism,
  type Pose,
} from './index.ts';

// Known mechanisms against their closed formulas. All in the plane z = 0 unless said otherwise; z is up.

const Z: Vec3 = [0, 0, 1];
const at = (x: number, y: number, z = 0, normal: Vec3 = Z, along: Vec3 = [1, 0, 0]): Frame =>
  frameOn([x, y, z], normal, along);

/** Builds a mechanism from bodies where they lie at rest; frames are told in space. */
class Bench {
  private readonly bodies: Body[] = [];
  private readonly joints: Joint[] = [];
  private readonly ratios: Mechanism['ratios'][number][] = [];

  body(id: string, pose: RigidTransform = IDENTITY): this {
    this.bodies.push({ id, pose, grounded: false });
    return this;
  }

  /** @param a, b bodies by name; "" is space; the frame as it lies at rest */
  joint(id: string, kind: JointName, a: string, b: string, frame: Frame, other: Frame = frame): this {
    this.joints.push({ id, kind, a: this.carried(a, frame), b: this.carried(b, other) });
    return this;
  }

  ratio(id: string, first: CoordinateKey, second: CoordinateKey, factor: number): this {
    this.ratios.push({ id, first, second, factor });
    return this;
  }

  get mechanism(): Mechanism {
    return {
      bodies: this.bodies,
      joints: this.joints,
      relations: [],
      ratios: this.ratios,
      limits: new Map(),
      size: 50,
    };
  }

  private carried(id: string, frame: Frame) {
    const body = id === '' ? SPACE : this.bodies.findIndex((other) => other.id === id);
    // bodies of these tests are only shifted at rest
    const { pose } = this.bodies[body] ?? { pose: IDENTITY };
    const back: Vec3 = [-pose[0][3], -pose[1][3], -pose[2][3]];
    return { body, frame: { ...frame, origin: transformPoint(translation(back), frame.origin) } };
  }
}

const free = (mechanism: Mechanism, pose: Pose = restOf(mechanism), ...prescribed: CoordinateKey[]) =>
  new MechanismEquations(mechanism, prescribed).freedoms(pose).count;
const place = (mechanism: Mechanism, pose: Pose, id: string, local: Vec3): Vec3 =>
  transformPoint(pose.poses[mechanism.bodies.findIndex((body) => body.id === id)]!, local);
const degrees = (count: number) => Array.from({ length: count }, (_, k) => ((k + 1) * 2 * Math.PI) / count);

describe('a slider-crank', () => {
  const [crank, rod] = [30, 80];
  const bench = new Bench()
    .body('crank')
    .body('rod', translation([crank, 0, 0]))
    .body('slider', translation([crank + rod, 0, 0]))
    .joint('shaft', 'revolute', '', 'crank', at(0, 0))
    .joint('pin', 'revolute', 'crank', 'rod', at(crank, 0))
    .joint('gudgeon', 'revolute', 'rod', 'slider', at(crank + rod, 0))
    .joint('guide', 'prismatic', '', 'slider', at(crank + rod, 0, 0, [1, 0, 0], [0, 1, 0]));
  const { mechanism } = bench;

  test('has one freedom, though in space it tells things twice; held by its crank none', () => {
    expect(free(mechanism)).toBe(1);
    expect(free(mechanism, restOf(mechanism), coordinateKey('shaft', 'turn'))).toBe(0);
    expect(new MechanismEquations(mechanism).freedoms(restOf(mechanism)).redundant.length).toBeGreaterThan(0);
  });

  test('over a whole turn the slider is where the formula says', () => {
    let pose = restOf(mechanism);
    for (const angle of degrees(24)) {
      const driven = drive(mechanism, pose, new Map([[coordinateKey('shaft', 'turn'), angle]]));
      expect(driven.arrived).toBe(true);
      pose = driven.pose;
      const x = crank * Math.cos(angle) + Math.sqrt(rod ** 2 - (crank * Math.sin(angle)) ** 2);
      expect(place(mechanism, pose, 'slider', [0, 0, 0])[0]).toBeCloseTo(x, 8);
      expect(pose.coordinates.get(coordinateKey('guide', 'slide'))).toBeCloseTo(x - crank - rod, 8);
    }
    // the angle is counted on, not folded back
    expect(pose.coordinates.get(coordinateKey('shaft', 'turn'))).toBeCloseTo(2 * Math.PI, 9);
  });

  test('driven by its slider beyond the dead point it stops there, and says what stops it', () => {
    const driven = drive(mechanism, restOf(mechanism), new Map([[coordinateKey('guide', 'slide'), 10]]));
    expect(driven.arrived).toBe(false);
    expect(driven.share).toBeLessThan(0.01);
    expect(driven.suspects.length).toBeGreaterThan(0);
    expect(driven.pose.fulfilled).toBe(true);
  });
});

test('a four-bar linkage: the coupler point by the crossing of two circles', () => {
  const [ground, crank, coupler, rocker] = [100, 30, 90, 70];
  // at rest the crank points along x; the rocker's end where the circles meet
  const meet = (bx: number, by: number): [number, number] => {
    const [dx, dy] = [ground - bx, -by];
    const d = Math.hypot(dx, dy);
    const a = (coupler ** 2 - rocker ** 2 + d ** 2) / (2 * d);
    const h = Math.sqrt(coupler ** 2 - a ** 2);
    return [bx + (a * dx - h * dy) / d, by + (a * dy + h * dx) / d];
  };
  const [cx, cy] = meet(crank, 0);
  const { mechanism } = new Bench()
    .body('crank')
    .body('coupler', translation([crank, 0, 0]))
    .body('rocker', translation([ground, 0, 0]))
    .joint('a', 'revolute', '', 'crank', at(0, 0))
    .joint('b', 'revolute', 'crank', 'coupler', at(crank, 0))
    .joint('c', 'revolute', 'coupler', 'rocker', at(cx, cy))
    .joint('d', 'revolute', '', 'rocker', at(ground, 0));
  expect(free(mechanism)).toBe(1);
  // a point beside the coupler, in its own coordinates at rest
  const point: Vec3 = [20, 35, 0];
  const rest = Math.atan2(cy, cx - crank);
  let pose = restOf(mechanism);
  for (const angle of degrees(36)) {
    ({ pose } = drive(mechanism, pose, new Map([[coordinateKey('a', 'turn'), angle]])));
    const [bx, by] = [crank * Math.cos(angle), crank * Math.sin(angle)];
    const [ex, ey] = meet(bx, by);
    const turn = Math.atan2(ey - by, ex - bx) - rest;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const found = place(mechanism, pose, 'coupler', point);
    expect(found[0]).toBeCloseTo(bx + c * point[0] - s * point[1], 7);
    expect(found[1]).toBeCloseTo(by + s * point[0] + c * point[1], 7);
    expect(found[2]).toBeCloseTo(0, 8);
  }
});

test('pins in two crossed slots guide a bar along ellipses: half axes to 1e-6 mm', () => {
  // pins at (60, 0) in a slot along x, and at (0, 0) in a slot along y: the trammel of Archimedes
  const length = 60;
  const { mechanism } = new Bench()
    .body('bar')
    .joint('along x', 'pin-in-slot', '', 'bar', at(0, 0), at(length, 0))
    .joint('along y', 'pin-in-slot', '', 'bar', at(0, 0, 0, Z, [0, 1, 0]), at(0, 0, 0, Z, [0, 1, 0]));
  expect(free(mechanism)).toBe(1);
  const arm = 90;
  let pose = restOf(mechanism);
  for (const angle of degrees(16)) {
    ({ pose } = drive(mechanism, pose, new Map([[coordinateKey('along x', 'turn'), angle]])));
    const [x, y] = place(mechanism, pose, 'bar', [arm, 0, 0]);
    // it is 90 from the pin on the y axis and 30 from that on the x axis
    expect((x / arm) ** 2 + (y / (arm - length)) ** 2).toBeCloseTo(1, 8);
    expect(Math.abs(x - arm * Math.cos(angle))).toBeLessThan(1e-6);
    expect(Math.abs(y - (arm - length) * Math.sin(angle))).toBeLessThan(1e-6);
  }
});

test('gears, and a rack: the ratio holds over many turns', () => {
  const { mechanism } = new Bench()
    .body('pinion')
    .body('wheel', translation([40, 0, 0]))
    .body('rack', translation([0, -10, 0]))
    .joint('p', 'revolute', '', 'pinion', at(0, 0))
    .joint('w', 'revolute', '', 'wheel', at(40, 0))
    .joint('r', 'prismatic', '', 'rack', at(0, -10, 0, [1, 0, 0], [0, 1, 0]))
    .ratio('teeth', coordinateKey('p', 'turn'), coordinateKey('w', 'turn'), -12 / 36)
    .ratio('rack', coordinateKey('p', 'turn'), coordinateKey('r', 'slide'), 10);
  expect(free(mechanism)).toBe(1);
  const { pose, arrived } = drive(mechanism, restOf(mechanism), new Map([[coordinateKey('p', 'turn'), 6 * Math.PI]]));
  expect(arrived).toBe(true);
  expect(pose.coordinates.get(coordinateKey('w', 'turn'))).toBeCloseTo(-2 * Math.PI, 9);
  expect(pose.coordinates.get(coordinateKey('r', 'slide'))).toBeCloseTo(60 * Math.PI, 7);
});

test('a universal joint: the second shaft runs unevenly by the tangent law', () => {
  const bend = Math.PI / 6;
  // the first shaft along z, the second leans by the bend in the plane of y and z; the cross at the origin
  const second: Vec3 = [0, Math.sin(bend), Math.cos(bend)];
  const { mechanism } = new Bench()
    .body('first')
    .body('cross')
    .body('second')
    .joint('in', 'revolute', '', 'first', at(0, 0))
    .joint('arm', 'revolute', 'first', 'cross', at(0, 0, 0, [1, 0, 0], [0, 1, 0]))
    .joint('other arm', 'revolute', 'cross', 'second', at(0, 0, 0, [0, Math.cos(bend), -Math.sin(bend)], second))
    .joint('out', 'revolute', '', 'second', at(0, 0, 0, second, [1, 0, 0]));
  expect(free(mechanism)).toBe(1);
  let pose = restOf(mechanism);
  for (const angle of degrees(12)) {
    ({ pose } = drive(mechanism, pose, new Map([[coordinateKey('in', 'turn'), angle]])));
    const out = pose.coordinates.get(coordinateKey('out', 'turn'))!;
    // the arm of the first shaft starts square to the plane of the bend: tan(out) = tan(in) cos(bend)
    expect(Math.sin(out) * Math.cos(angle)).toBeCloseTo(Math.sin(angle) * Math.cos(out) * Math.cos(bend), 8);
  }
});

test('a closed six-bar with one freedom tells things twice in space, and moves', () => {
  // a four-bar with a dyad on its rocker: all axes along z
  const { mechanism } = new Bench()
    .body('crank')
    .body('coupler', translation([20, 0, 0]))
    .body('rocker', translation([80, 0, 0]))
    .body('link', translation([90, 50, 0]))
    .body('output', translation([150, 0, 0]))
    .joint('a', 'revolute', '', 'crank', at(0, 0))
    .joint('b', 'revolute', 'crank', 'coupler', at(20, 0))
    .joint('c', 'revolute', 'coupler', 'rocker', at(70, 45))
    .joint('d', 'revolute', '', 'rocker', at(80, 0))
    .joint('e', 'revolute', 'rocker', 'link', at(90, 50))
    .joint('f', 'revolute', 'link', 'output', at(140, 55))
    .joint('g', 'revolute', '', 'output', at(150, 0));
  expect(free(mechanism)).toBe(1);
  const rest = restOf(mechanism);
  const { pose, arrived } = drive(mechanism, rest, new Map([[coordinateKey('a', 'turn'), Math.PI / 2]]));
  expect([arrived, pose.fulfilled, pose.suspects]).toEqual([true, true, []]);
  // all stays in its plane, and the bars keep their lengths
  for (const matrix of pose.poses) expect(transformDirection(matrix, Z)[2]).toBeCloseTo(1, 9);
  const e = place(mechanism, pose, 'rocker', [10, 50, 0]);
  const f = place(mechanism, pose, 'link', [50, 5, 0]);
  expect(Math.hypot(e[0] - f[0], e[1] - f[1])).toBeCloseTo(Math.hypot(50, 5), 8);
});

test.each<[JointName, number]>([
  ['rigid', 0],
  ['revolute', 1],
  ['prismatic', 1],
  ['cylindrical', 2],
  ['pin-in-slot', 2],
  ['planar', 3],
  ['spherical', 3],
])('a body on a %s joint has %i freedoms; alone it has six', (kind, count) => {
  const frame = at(10, 20, 5, [0, 0.6, 0.8], [1, 0, 0]);
  expect(free(new Bench().body('x').joint('j', kind, '', 'x', frame).mechanism)).toBe(count);
  expect(free(new Bench().body('x').mechanism)).toBe(6);
});

test('joints that can not hold together are told, and the pose stays what it was', () => {
  const { mechanism } = new Bench()
    .body('bar')
    .joint('left', 'revolute', '', 'bar', at(0, 0))
    .joint('right', 'revolute', '', 'bar', at(100, 0), at(90, 0));
  const pose = new MechanismEquations(mechanism).solve(restOf(mechanism));
  expect(pose.fulfilled).toBe(false);
  expect(pose.suspects.toSorted()).toEqual(['left', 'right']);
});
