import { coordinateKey } from '../naming/index.ts';
import { frameOn, IDENTITY, sub3 } from '../math/index.ts';
import { bars, CRANK, sliderCrank, type At } from './test-bars.ts';
import { carriedBy, drive, originOf, RateEquations, restOf, SPACE, type Mechanism, type Pose } from './index.ts';

const DEGREE = Math.PI / 180;
const turn = (id: string) => coordinateKey(id, 'turn');
const driven = (mechanism: Mechanism, id: string, degrees: number): Pose =>
  drive(mechanism, restOf(mechanism), new Map([[turn(id), degrees * DEGREE]])).pose;

/** A relative bound of 1e-8, beside a scale. */
const near = (value: number, is: number, scale = Math.abs(is)) =>
  expect(Math.abs(value - is)).toBeLessThan(1e-8 * Math.abs(scale));

test.each([-150, -37, 12.5, 61, 104, 171])('speed and acceleration of a slider at %d deg of its crank', (degrees) => {
  const { r, l } = CRANK;
  const mechanism = sliderCrank();
  const a = degrees * DEGREE;
  const [s, c] = [Math.sin(a), Math.cos(a)];
  const root = Math.sqrt(l * l - r * r * s * s);
  const speed = -r * s - (r * r * s * c) / root;
  const acceleration = -r * c - (r * r * (c * c - s * s)) / root - (r ** 4 * s * s * c * c) / root ** 3;
  for (const rate of [1, -1, 250]) {
    const pose = driven(mechanism, 'crank', degrees);
    const found = new RateEquations(mechanism, [turn('crank')]).at(pose, new Map([[turn('crank'), rate]]))!;
    const rail = coordinateKey('rail', 'slide');
    near(found.first.coordinates.get(rail)!, rate * speed, rate * r);
    near(found.second!.coordinates.get(rail)!, rate * rate * acceleration, rate * rate * r);
    near(found.first.bodies[2]!.shift[0], rate * speed, rate * r);
    near(found.second!.bodies[2]!.shift[0], rate * rate * acceleration, rate * rate * r);
    near(found.first.coordinates.get(turn('crank'))!, rate);
    expect(Math.abs(found.second!.coordinates.get(turn('crank'))!)).toBeLessThan(1e-8 * rate * rate);
  }
});

test('a four-bar: speeds and accelerations of its rocker and of a point of its coupler', () => {
  const [a, b, c, d] = [21, 57, 43, 61];
  const at = (deg: number) => {
    const t = deg * DEGREE;
    const A: At = [a * Math.cos(t), a * Math.sin(t)];
    const [fx, fy] = [d - A[0], -A[1]];
    const f = Math.hypot(fx, fy);
    const beta = Math.acos((b * b + f * f - c * c) / (2 * b * f));
    const coupler = Math.atan2(fy, fx) + beta;
    const B: At = [A[0] + b * Math.cos(coupler), A[1] + b * Math.sin(coupler)];
    return { A, B, coupler, rocker: Math.atan2(B[1], B[0] - d) };
  };
  const start = at(0);
  const mechanism = bars(
    [
      { at: [0, 0], of: ['', 'crank'] },
      { at: start.A, of: ['crank', 'coupler'] },
      { at: start.B, of: ['coupler', 'rocker'] },
      { at: [d, 0], of: ['', 'rocker'] },
    ],
    ['crank', 'coupler', 'rocker'],
  );
  for (const degrees of [-140, 33, 95]) {
    const { A, B, coupler, rocker } = at(degrees);
    const t = degrees * DEGREE;
    // loop closure, differentiated once and twice (Norton 2012, ch. 6 and 7)
    const w3 = (a / b) * (Math.sin(rocker - t) / Math.sin(coupler - rocker));
    const w4 = (a / c) * (Math.sin(t - coupler) / Math.sin(rocker - coupler));
    const pose = driven(mechanism, 'crank', degrees);
    const found = new RateEquations(mechanism, [turn('crank')]).at(pose, new Map([[turn('crank'), 1]]))!;
    near(found.first.bodies[1]!.turn[2], w3, 1);
    near(found.first.bodies[2]!.turn[2], w4, 1);
    // the pin between coupler and rocker goes as both carry it
    const [p, q] = [1, 2].map((body) => {
      const twist = [found.first.bodies[body]!, found.second!.bodies[body]!] as const;
      const origin = originOf(pose.poses[body]!);
      return carriedBy(...twist, sub3([B[0], B[1], 0], origin));
    });
    near(p!.first[0], q!.first[0], a);
    near(p!.second![0], q!.second![0], a);
    near(p!.second![1], q!.second![1], a);
    // that of the pin of the crank is central
    const crank = carriedBy(
      found.first.bodies[1]!,
      found.second!.bodies[1],
      sub3([A[0], A[1], 0], originOf(pose.poses[1]!)),
    );
    near(crank.second![0], -A[0], a);
    near(crank.second![1], -A[1], a);
    const angular = (k: number) => found.second!.bodies[k]!.turn[2];
    const closed = [
      -a * Math.cos(t) - b * (w3 ** 2 * Math.cos(coupler) + angular(1) * Math.sin(coupler)),
      -a * Math.sin(t) - b * (w3 ** 2 * Math.sin(coupler) - angular(1) * Math.cos(coupler)),
    ];
    near(-c * (w4 ** 2 * Math.cos(rocker) + angular(2) * Math.sin(rocker)), closed[0]!, a);
    near(-c * (w4 ** 2 * Math.sin(rocker) - angular(2) * Math.cos(rocker)), closed[1]!, a);
  }
});

test('at a dead point nothing is told of speeds, and a pair of wheels goes by its ratio', () => {
  const mechanism = sliderCrank();
  const rail = coordinateKey('rail', 'slide');
  // stretched: the slider can not go on outwards
  expect(new RateEquations(mechanism, [rail]).at(restOf(mechanism), new Map([[rail, 1]]))).toBeUndefined();
  const wheels = bars(
    [
      { at: [0, 0], of: ['', 'one'] },
      { at: [40, 0], of: ['', 'two'] },
    ],
    ['one', 'two'],
    { ratios: [{ id: 'r', first: turn('one'), second: turn('two'), factor: -2.5 }] },
  );
  const { first, second } = new RateEquations(wheels, [turn('one')]).at(restOf(wheels), new Map([[turn('one'), 3]]))!;
  near(first.coordinates.get(turn('two'))!, -7.5);
  expect(Math.abs(second!.coordinates.get(turn('two'))!)).toBeLessThan(1e-8);
  near(carriedBy(first.bodies[1]!, second!.bodies[1], [40, 7, 0]).second![1], -(7.5 ** 2) * 7, 1e3);
});

test('what goes straight is told no acceleration, also where joints tell that twice', () => {
  const rail = frameOn([31, -7, 12], [0.48, 0.64, 0.6]);
  const carried = (body: number) => ({ body, frame: rail });
  const mechanism: Mechanism = {
    bodies: ['a', 'b'].map((id) => ({ id, pose: IDENTITY, grounded: false })),
    joints: [
      { id: 'one', kind: 'prismatic', a: carried(SPACE), b: carried(0) },
      { id: 'two', kind: 'prismatic', a: carried(SPACE), b: carried(1) },
      // held together by a joint that lets nothing turn, which both rails tell too
      { id: 'tie', kind: 'prismatic', a: carried(0), b: carried(1) },
    ],
    ...{ relations: [], ratios: [{ id: 'r', first: 'one slide', second: 'two slide', factor: 1 }] },
    ...{ limits: new Map(), size: 80 },
  };
  const found = new RateEquations(mechanism, ['one slide']).at(restOf(mechanism), new Map([['one slide', 3]]));
  near(found!.first.coordinates.get('two slide')!, 3);
  for (const key of ['one slide', 'two slide', 'tie slide'] as const)
    expect(Math.abs(found!.second!.coordinates.get(key)!)).toBeLessThan(1e-8);
});
