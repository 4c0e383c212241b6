import fc from 'fast-check';
import {
  add3,
  direction3,
  dot3,
  transformPoint,
  sub3,
  transformDirection,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { SPACE, valueOf, type Equation, type Gradient, type Positions } from './equations.ts';
import { displacedPose, originOf, torqueOnVector, rotateByVector } from './pose.ts';

const number = fc.double({ min: -1, max: 1, noNaN: true });
const vector: fc.Arbitrary<Vec3> = fc.tuple(number, number, number);
const unit = vector.filter((a) => Math.hypot(...a) > 0.1).map((a) => direction3(a)!);
const pose = fc.tuple(vector, vector).map(([turn, at]) =>
  displacedPose(
    [
      [1, 0, 0, 0],
      [0, 1, 0, 0],
      [0, 0, 1, 0],
    ],
    [9 * at[0], 9 * at[1], 9 * at[2]],
    turn,
  ),
);
const place = vector.map((a): Vec3 => [5 * a[0], 5 * a[1], 5 * a[2]]);

const positions = (poses: readonly RigidTransform[], coordinate: number): Positions => ({
  place: ({ body, at }) => (body === SPACE ? at : transformPoint(poses[body]!, at)),
  direction: ({ body, along }) => (body === SPACE ? along : transformDirection(poses[body]!, along)),
  arm: ({ body, at }) => (body === SPACE ? at : transformDirection(poses[body]!, at)),
  coordinate: () => coordinate,
});
const NOBODY: Gradient = { force: () => {}, torque: () => {}, slope: () => {} };

/** An equation of each form between the bodies 0 and 1, and between 0 and what stands still. */
const equations: fc.Arbitrary<Equation> = fc
  .tuple(fc.constantFrom(0, SPACE), place, place, unit, unit, unit)
  .chain(([body, p, q, u, v, w]) =>
    fc.constantFrom<Equation>(
      { form: 'dot', a: { body, along: u }, b: { body: 1, along: v }, is: 0.3 },
      { form: 'span', from: { body, at: p }, to: { body: 1, at: q }, along: { body, along: u }, is: 2 },
      {
        form: 'span',
        from: { body, at: p },
        to: { body: 1, at: q },
        along: { body: 1, along: u },
        is: 0,
        coordinate: 0,
      },
      { form: 'turn', x: { body, along: u }, y: { body, along: v }, b: { body: 1, along: w }, coordinate: 0 },
      { form: 'away', from: { body, at: p }, to: { body: 1, at: q }, is: 4 },
      { form: 'away', from: { body, at: p }, to: { body: 1, at: q }, across: { body: 1, along: u }, is: 4 },
    ),
  );

test('the gradient of every form is what small motions show', () => {
  fc.assert(
    fc.property(fc.tuple(pose, pose), equations, number, (poses, equation, coordinate) => {
      const found = poses.map(() => ({ force: [0, 0, 0] as Vec3, torque: [0, 0, 0] as Vec3 }));
      let slope = 0;
      const value = valueOf(equation, positions(poses, coordinate), {
        force: (body, force) => void (body === SPACE || (found[body]!.force = add3(found[body]!.force, force))),
        torque: (body, torque) => void (body === SPACE || (found[body]!.torque = add3(found[body]!.torque, torque))),
        slope: (_, by) => void (slope += by),
      });
      // two places in one have no direction from one to the other
      fc.pre(equation.form !== 'away' || value + equation.is > 0.5);
      const h = 1e-6;
      const near = (poseOf: (h: number) => readonly RigidTransform[], turned = 0) =>
        (valueOf(equation, positions(poseOf(h), coordinate + turned), NOBODY) -
          valueOf(equation, positions(poseOf(-h), coordinate - turned), NOBODY)) /
        (2 * h);
      for (const body of [0, 1])
        for (let k = 0; k < 3; k++) {
          const by = (h: number): Vec3 => [0, 1, 2].map((n) => (n === k ? h : 0)) as unknown as Vec3;
          const moved = (change: (pose: RigidTransform) => RigidTransform) =>
            poses.map((p, n) => (n === body ? change(p) : p));
          const shifted = near((h) => moved((p) => displacedPose(p, add3(originOf(p), by(h)), [0, 0, 0])));
          const turned = near((h) => moved((p) => displacedPose(p, originOf(p), by(h))));
          expect(found[body]!.force[k]).toBeCloseTo(shifted, 5);
          expect(found[body]!.torque[k]).toBeCloseTo(turned, 5);
        }
      if ('coordinate' in equation)
        expect(slope).toBeCloseTo(
          near(() => poses, h),
          5,
        );
    }),
    { numRuns: 300 },
  );
});

test('a torque on a body that is turned far is the gradient by its rotation vector', () => {
  fc.assert(
    fc.property(vector, fc.double({ min: 1e-6, max: 3, noNaN: true }), unit, vector, (way, size, u, w) => {
      const along = direction3(way);
      fc.pre(along !== undefined);
      const turn: Vec3 = [size * along[0], size * along[1], size * along[2]];
      // of the product of a turned direction with another that stands still
      const value = (at: Vec3) => dot3(rotateByVector(at, u), w);
      const now = rotateByVector(turn, u);
      const torque: Vec3 = [
        now[1] * w[2] - now[2] * w[1],
        now[2] * w[0] - now[0] * w[2],
        now[0] * w[1] - now[1] * w[0],
      ];
      const gradient = torqueOnVector(turn, torque);
      const h = 1e-6;
      for (let k = 0; k < 3; k++) {
        const step = [0, 1, 2].map((n) => (n === k ? h : 0)) as unknown as Vec3;
        expect(gradient[k]).toBeCloseTo((value(add3(turn, step)) - value(sub3(turn, step))) / (2 * h), 5);
      }
    }),
    { numRuns: 300 },
  );
});
