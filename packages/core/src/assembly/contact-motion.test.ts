import { coordinateKey } from '../naming/index.ts';
import { frameOn, IDENTITY, translation, type RigidTransform, type Vec3 } from '../math/index.ts';
import { block, disc, prism } from '../contact/test-fixture.ts';
import { apartOf, lockDisc, slottedWheel } from '../samples/index.ts';
import type { ContactShape } from '../contact/index.ts';
import {
  Contacts,
  drive,
  Grab,
  RateEquations,
  restOf,
  SPACE,
  type JointName,
  type Limits,
  type Mechanism,
  type Pose,
} from './index.ts';

const DEGREE = Math.PI / 180;
const Z: Vec3 = [0, 0, 1];
type At = readonly [number, number];

/** Bodies with shapes, joined to space, and what may touch: every two. */
class Touching {
  private readonly bodies: { id: string; pose: RigidTransform; shapes: readonly ContactShape[] }[] = [];
  private readonly joints: Mechanism['joints'][number][] = [];

  constructor(private readonly size = 100) {}

  /** Joined to space at a place; its shapes are told in its own coordinates, with that place as origin. */
  add(id: string, kind: JointName | undefined, [x, y]: At, shapes: readonly ContactShape[], along: Vec3 = Z): this {
    const body = this.bodies.length;
    const pose = translation([x, y, 0]);
    this.bodies.push({ id, pose, shapes });
    const frame = (at: Vec3) => frameOn(at, along);
    if (kind)
      this.joints.push({ id, kind, a: { body: SPACE, frame: frame([x, y, 0]) }, b: { body, frame: frame([0, 0, 0]) } });
    return this;
  }

  mechanism(limits: Limits = new Map()): Mechanism {
    return {
      bodies: this.bodies.map(({ id, pose }) => ({
        id,
        pose,
        grounded: !this.joints.some((joint) => joint.id === id),
      })),
      ...{ joints: this.joints, relations: [], ratios: [], limits, size: this.size },
    };
  }

  contacts(mechanism = this.mechanism()): Contacts {
    const bodies = this.bodies.flatMap(({ id, shapes }, body) =>
      shapes.map((shape) => ({
        member: { id, name: id, part: id, body, local: IDENTITY, again: [] },
        shape,
        box: shape.tree.box(0),
      })),
    );
    return new Contacts(mechanism, bodies, () => true);
  }
}

const turn = (pose: Pose, id: string) => pose.coordinates.get(coordinateKey(id, 'turn'))! / DEGREE;
const toAngle = (id: string, degrees: number) => new Map([[coordinateKey(id, 'turn'), degrees * DEGREE]]);

const driver = coordinateKey('driver', 'turn');
/** How fast a wheel is turned by a pin that pushes one flank of its slot, and how that changes, by the angle of the driver. */
function pushedRates(at: number, arm: number, apart: number, play: number) {
  const angle = (a: number) => {
    const [x, y] = [apart - arm * Math.cos(a), arm * Math.sin(a)];
    return Math.atan2(y, x) - Math.asin(play / Math.hypot(x, y));
  };
  const h = 1e-3;
  const [far, p, m, q, beyond] = [at - 2 * h, at - h, at, at + h, at + 2 * h].map(angle) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return {
    first: (far - 8 * p + 8 * q - beyond) / (12 * h),
    second: (-far + 16 * p - 30 * m + 16 * q - beyond) / (12 * h * h),
  };
}

const whole = { from: -180, step: 5 };
/** Only where the pin is in its slot, and a little before. */
const part = { from: undefined, step: 15 };

test.each([
  [6, 0.15, whole],
  [4, 0, part],
  [3, 0, part],
])('a wheel with %d slots and %d mm of play turns as the formula says', (n, play, { from, step }) => {
  const arm = 36;
  const half = 180 / n;
  const told = { slots: n, arm, slot: 8 + 2 * play, recess: 28 + 2 * play, lock: 28 };
  const apart = apartOf(told);
  const shape = ({ start, legs }: ReturnType<typeof slottedWheel>) => prism(start, legs, 0, 8);
  const bench = new Touching()
    .add('wheel', 'revolute', [0, 0], [shape(slottedWheel(told))])
    .add('driver', 'revolute', [apart, 0], [disc(-arm, 0, 4, -1, 10), shape(lockDisc(told))]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  const enters = 90 - half;
  const begin = from ?? -enters - step;
  // a recess faces the driver
  let { pose } = drive(
    mechanism,
    restOf(mechanism),
    new Map([...toAngle('wheel', half), ...toAngle('driver', -begin)]),
  );
  const begun = turn(pose, 'wheel');
  const slip = (a: number) =>
    Math.asin(play / Math.hypot(arm * Math.sin(a), apart - arm * Math.cos(a))) / DEGREE + 1e-6;
  let [worked, pushed] = [0, 0];
  for (let angle = begin + step; angle <= -begin; angle += step) {
    const driven = drive(mechanism, pose, toAngle('driver', -angle), () => {}, contacts);
    expect(driven).toMatchObject({ arrived: true, against: [] });
    pose = driven.pose;
    const turned = turn(pose, 'wheel') - begun;
    const a = angle * DEGREE;
    const ideal = half + Math.atan2(arm * Math.sin(a), apart - arm * Math.cos(a)) / DEGREE;
    if (Math.abs(angle) < enters) {
      worked++;
      expect(turned).toBeLessThan(ideal + 1e-6);
      expect(turned).toBeGreaterThan(ideal - slip(a) - 1e-6);
      const lag = play === 0 ? 0 : slip(a) - 1e-6;
      if (Math.abs(turned - (ideal - lag)) < 1e-6) {
        pushed++;
        const rates = new RateEquations(mechanism, [driver], contacts).at(pose, new Map([[driver, -1]]));
        const { first, second } = pushedRates(a, arm, apart, play);
        expect(rates!.first.coordinates.get(coordinateKey('wheel', 'turn'))).toBeCloseTo(first, 6);
        expect(rates!.second!.coordinates.get(coordinateKey('wheel', 'turn'))).toBeCloseTo(second, 5);
      }
    } else if (play === 0) expect(Math.abs(turned - (angle < 0 ? 0 : 2 * half))).toBeLessThan(0.02);
  }
  expect(worked).toBeGreaterThan(2);
  expect(pushed).toBeGreaterThan(2);
});

test('an eccentric disc lifts a flat follower by e (1 - cos a), and leaves it there', () => {
  const [radius, e] = [20, 6];
  const bench = new Touching()
    .add('cam', 'revolute', [0, 0], [disc(0, -e, radius)])
    .add('follower', 'prismatic', [0, radius - e], [block(-30, 0, 60, 5, -4, 14)], [0, 1, 0]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  let pose = restOf(mechanism);
  for (let angle = 20; angle <= 240; angle += 20) {
    pose = drive(mechanism, pose, toAngle('cam', angle), () => {}, contacts).pose;
    const lift = pose.coordinates.get(coordinateKey('follower', 'slide'))!;
    expect(lift).toBeCloseTo(e * (1 - Math.cos(Math.min(angle, 180) * DEGREE)), 6);
  }
});

test('a disc cam lifts a roller along its pitch curve', () => {
  const [radius, e, roller] = [20, 6, 5];
  const rise = (a: number) => Math.sqrt((radius + roller) ** 2 - (e * Math.sin(a)) ** 2) - e * Math.cos(a);
  const bench = new Touching()
    .add('cam', 'revolute', [0, 0], [disc(0, -e, radius)])
    .add('follower', 'prismatic', [0, rise(0)], [disc(0, 0, roller, 2, 6)], [0, 1, 0]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  let pose = restOf(mechanism);
  for (let angle = 25; angle <= 175; angle += 25) {
    pose = drive(mechanism, pose, toAngle('cam', angle), () => {}, contacts).pose;
    const lift = pose.coordinates.get(coordinateKey('follower', 'slide'))!;
    expect(lift).toBeCloseTo(rise(angle * DEGREE) - rise(0), 6);
  }
});

/** A bar about one end, 80 long and 2 x 4 thick, and a post with a corner at a place under it. */
const barAndStop = () =>
  new Touching()
    .add('bar', 'revolute', [0, 0], [block(0, -4, 80, 8, 2, 6)])
    .add('post', undefined, [30, -30], [block(-20, -20, 20, 20)]);

test('a bar that is driven down stands against the corner of a post at the angle of the formula', () => {
  const bench = barAndStop();
  const mechanism = bench.mechanism();
  const driven = drive(mechanism, restOf(mechanism), toAngle('bar', -80), () => {}, bench.contacts(mechanism));
  // its lower side is 4 off its axis and passes through (30, -30)
  const stands = -(45 - Math.asin(4 / Math.hypot(30, 30)) / DEGREE);
  expect(driven.arrived).toBe(false);
  expect(turn(driven.pose, 'bar')).toBeCloseTo(stands, 6);
  expect(driven.against[0]).toMatchObject({ a: 'bar', b: 'post' });
  expect(driven.against[0]!.at[0]).toBeCloseTo(30, 5);
  // and goes up again
  const back = drive(mechanism, driven.pose, toAngle('bar', 20), () => {}, bench.contacts(mechanism));
  expect(back.arrived).toBe(true);
});

test('a bar that is pulled by the hand stops there as well', () => {
  const bench = barAndStop();
  const mechanism = bench.mechanism();
  const grab = new Grab(mechanism, { body: 0, at: [70, 0, 4] }, bench.contacts(mechanism));
  let pose = restOf(mechanism);
  for (let k = 1; k <= 10; k++) pose = grab.pull(pose, [70 - 5 * k, -9 * k, 4]);
  expect(turn(pose, 'bar')).toBeCloseTo(-(45 - Math.asin(4 / Math.hypot(30, 30)) / DEGREE), 5);
  expect(grab.against.map(({ a, b }) => [a, b])).toContainEqual(['bar', 'post']);
});

test('nothing is passed through however far a step goes', () => {
  const bench = new Touching()
    .add('bar', 'revolute', [0, 0], [block(0, -1, 80, 2)])
    .add('wire', undefined, [40, 30], [block(-0.1, -0.1, 0.2, 0.2)]);
  const mechanism = bench.mechanism();
  const driven = drive(mechanism, restOf(mechanism), toAngle('bar', 720), () => {}, bench.contacts(mechanism));
  expect(driven.arrived).toBe(false);
  const touches = [
    [40.1, 29.9],
    [40.1, 30.1],
    [39.9, 29.9],
  ].map(([x, y]) => (Math.atan2(y!, x!) - Math.asin(1 / Math.hypot(x!, y!))) / DEGREE);
  expect(turn(driven.pose, 'bar')).toBeCloseTo(Math.min(...touches), 5);
});

test('a block pushes a row of free ones before it, and leaves them where they are', () => {
  const bench = new Touching()
    .add('pusher', 'prismatic', [0, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('first', 'prismatic', [15, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('second', 'prismatic', [30, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('wall', undefined, [60, 0], [block(0, 0, 5, 10)]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  const slide = (pose: Pose, id: string) => pose.coordinates.get(coordinateKey(id, 'slide'))!;
  const to = (x: number) => new Map([[coordinateKey('pusher', 'slide'), x]]);
  const driven = drive(mechanism, restOf(mechanism), to(17), () => {}, contacts);
  expect(driven.arrived).toBe(true);
  expect([slide(driven.pose, 'first'), slide(driven.pose, 'second')]).toEqual([12, 7].map((x) => expect.closeTo(x, 7)));
  const back = drive(mechanism, driven.pose, to(-5), () => {}, contacts).pose;
  expect([slide(back, 'first'), slide(back, 'second')]).toEqual([12, 7].map((x) => expect.closeTo(x, 7)));
  // all three against the wall
  const blocked = drive(mechanism, back, to(90), () => {}, contacts);
  expect(blocked.arrived).toBe(false);
  expect(slide(blocked.pose, 'pusher')).toBeCloseTo(30, 6);
  expect(new Set(blocked.against.flatMap(({ a, b }) => [a, b]))).toEqual(
    new Set(['pusher', 'first', 'second', 'wall']),
  );
});

test('a pin with play in its slot drives a slide to either side with half of it', () => {
  const slot = prism(
    [-30, -30],
    [
      { to: [-4.2, -30] },
      { to: [-4.2, 25] },
      { to: [4.2, 25] },
      { to: [4.2, -30] },
      { to: [30, -30] },
      { to: [30, 30] },
      { to: [-30, 30] },
      { to: [-30, -30] },
    ],
    0,
    10,
  );
  const bench = new Touching()
    .add('crank', 'revolute', [0, 0], [disc(20, 0, 4, -2, 12)])
    .add('slide', 'prismatic', [20, 0], [slot], [1, 0, 0]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  const slide = (pose: Pose) => pose.coordinates.get(coordinateKey('slide', 'slide'))!;
  const there = drive(mechanism, restOf(mechanism), toAngle('crank', 40), () => {}, contacts).pose;
  expect(slide(there)).toBeCloseTo(20 * Math.cos(40 * DEGREE) - 20 + 0.2, 6);
  // on the way back the slide stands until the play is gone
  const little = drive(mechanism, there, toAngle('crank', 39), () => {}, contacts).pose;
  expect(slide(little)).toBeCloseTo(slide(there), 9);
  const back = drive(mechanism, little, toAngle('crank', 10), () => {}, contacts).pose;
  expect(slide(back)).toBeCloseTo(20 * Math.cos(10 * DEGREE) - 20 - 0.2, 6);
});

test('what stands in each other where it begins is told, and can leave', () => {
  const bench = new Touching()
    .add('sunk', 'prismatic', [0, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('wall', undefined, [8, -20], [block(0, 0, 40, 50)])
    .add('flush', 'prismatic', [8, 30], [block(0, 0, 10, 10)], [1, 0, 0]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  const told = [...contacts.overlaps(restOf(mechanism))].filter((pair) => pair !== undefined);
  expect(told).toEqual([['sunk', 'wall']]);
  const to = new Map([[coordinateKey('sunk', 'slide'), -20]]);
  const out = drive(mechanism, restOf(mechanism), to, () => {}, contacts);
  expect(out.arrived).toBe(true);
  // and does not come in again
  const back = drive(mechanism, out.pose, new Map([[coordinateKey('sunk', 'slide'), 0]]), () => {}, contacts);
  expect(back.arrived).toBe(false);
  expect(back.pose.coordinates.get(coordinateKey('sunk', 'slide'))).toBeCloseTo(-2, 6);
});

test('thin walls do not pass through each other, nor is one pushed that only lies behind another', () => {
  const sheet = (thick: number) => block(0, -40, thick, 80, -40, 40);
  const bench = new Touching()
    .add('first', 'prismatic', [0, 0], [sheet(0.5)], [1, 0, 0])
    .add('second', 'prismatic', [30, 0], [sheet(0.5)], [1, 0, 0])
    .add('behind', 'prismatic', [30.5, 0], [sheet(0.5)], [1, 0, 0]);
  const mechanism = bench.mechanism();
  const contacts = bench.contacts(mechanism);
  const slide = (pose: Pose, id: string) => pose.coordinates.get(coordinateKey(id, 'slide'))!;
  const away = drive(
    mechanism,
    restOf(mechanism),
    new Map([[coordinateKey('behind', 'slide'), 40]]),
    () => {},
    contacts,
  );
  expect(away.arrived).toBe(true);
  expect(slide(away.pose, 'second')).toBeCloseTo(0, 9);
  const pushed = drive(mechanism, away.pose, new Map([[coordinateKey('first', 'slide'), 60]]), () => {}, contacts).pose;
  expect(slide(pushed, 'second')).toBeCloseTo(30.5, 6);
  expect(slide(pushed, 'behind')).toBeCloseTo(40, 6);
});

test('a block that is pushed stops what pushes it at its own limit, and the limit is told', () => {
  const bench = new Touching()
    .add('pusher', 'prismatic', [0, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('block', 'prismatic', [15, 0], [block(0, 0, 10, 10)], [1, 0, 0]);
  const key = coordinateKey('block', 'slide');
  const mechanism = bench.mechanism(new Map([[key, [-3, 9]]]));
  const to = new Map([[coordinateKey('pusher', 'slide'), 40]]);
  const driven = drive(mechanism, restOf(mechanism), to, () => {}, bench.contacts(mechanism));
  expect(driven).toMatchObject({ arrived: false, stops: [key] });
  expect(driven.pose.coordinates.get(coordinateKey('pusher', 'slide'))).toBeCloseTo(14, 6);
  expect(driven.pose.poses.flat(2).every(Number.isFinite)).toBe(true);
});

test('the hand goes on pushing however few steps it is given at a time', () => {
  const bench = new Touching()
    .add('pusher', 'prismatic', [0, 0], [block(0, 0, 10, 10)], [1, 0, 0])
    .add('thin', 'prismatic', [15, 0], [block(0, 0, 0.2, 10)], [1, 0, 0]);
  const mechanism = bench.mechanism();
  const grab = new Grab(mechanism, { body: 0, at: [5, 5, 5] }, bench.contacts(mechanism));
  let pose = restOf(mechanism);
  for (let k = 0; k < 600; k++) pose = grab.pull(pose, [35, 5, 5], 1);
  expect(pose.coordinates.get(coordinateKey('pusher', 'slide'))).toBeCloseTo(30, 6);
  expect(pose.coordinates.get(coordinateKey('thin', 'slide'))).toBeCloseTo(25, 6);
});

test('what the hand has pulled out of something does not go back in', () => {
  const bench = new Touching()
    .add('arm', 'revolute', [0, 0], [block(0, -4, 80, 8, 0, 8)])
    .add('inner', undefined, [60, -2], [block(0, 0, 4, 4, 2, 6)]);
  const mechanism = bench.mechanism();
  const grab = new Grab(mechanism, { body: 0, at: [75, 0, 8] }, bench.contacts(mechanism));
  let pose = restOf(mechanism);
  const pull = (degrees: number) => {
    const a = degrees * DEGREE;
    for (let k = 0; k < 8; k++) pose = grab.pull(pose, [75 * Math.cos(a), 75 * Math.sin(a), 8], 2);
  };
  for (let angle = 6; angle <= 42; angle += 6) pull(angle);
  expect(turn(pose, 'arm')).toBeCloseTo(42, 3);
  for (let angle = 36; angle >= 0; angle -= 6) pull(angle);
  // the lower side stands on the corner at 60 / 2
  expect(turn(pose, 'arm')).toBeCloseTo((Math.atan2(2, 60) + Math.asin(4 / Math.hypot(60, 2))) / DEGREE, 5);
});
