import fc from 'fast-check';
import { Dual, variables, type DualVec3, type Vec3 } from '../../math/index.ts';
import { movingBall, movingCone, movingCylinder, movingPlane, movingRing, type MovingSurface } from './surfaces.ts';

/** The derivative by a variable. */
const partial = ({ d }: Dual, k: number): number => d.by[d.at.indexOf(k)] ?? 0;

const vec = (v: readonly Dual[], from: number): DualVec3 => [v[from]!, v[from + 1]!, v[from + 2]!];

/** Each form of surface by its numbers: where it is, which way it goes, how large it is. */
const FORMS: Readonly<Record<string, { numbers: number; made: (v: readonly Dual[]) => MovingSurface }>> = {
  plane: { numbers: 4, made: (v) => movingPlane(vec(v, 0), v[3]!) },
  cylinder: { numbers: 7, made: (v) => movingCylinder({ at: vec(v, 0), along: vec(v, 3) }, v[6]!) },
  cone: { numbers: 7, made: (v) => movingCone({ at: vec(v, 0), along: vec(v, 3) }, v[6]!) },
  ball: { numbers: 4, made: (v) => movingBall(vec(v, 0), v[3]!) },
  ring: { numbers: 8, made: (v) => movingRing({ at: vec(v, 0), along: vec(v, 3) }, v[6]!, v[7]!) },
};
const coordinate = fc.double({ min: -5, max: 5, noNaN: true });

test.each(Object.keys(FORMS))('%s: how far a place lies over it changes as its numbers do', (form) => {
  const { numbers, made } = FORMS[form]!;
  fc.assert(
    fc.property(
      fc.array(coordinate, { minLength: numbers, maxLength: numbers }),
      fc.tuple(coordinate, coordinate, coordinate),
      (values, place) => {
        // a size is positive, an axis is a unit vector, the place is far from where it has no direction
        const sized = values.map((value, k) =>
          k >= 6 || (numbers === 4 && k === 3) ? 0.2 + Math.abs(value) / 5 : value,
        );
        if (numbers > 4) {
          const length = Math.hypot(sized[3]!, sized[4]!, sized[5]!);
          fc.pre(length > 0.3);
          for (const k of [3, 4, 5]) sized[k]! /= length;
        }
        const far: Vec3 = [place[0] + 20, place[1] - 17, place[2] + 11];
        const off = made(variables(sized)).off(far);
        const h = 1e-5;
        for (let k = 0; k < numbers; k++) {
          const at = (by: number) =>
            made(variables(sized.map((value, i) => (i === k ? value + by : value)))).off(far).value;
          expect(partial(off, k)).toBeCloseTo((at(h) - at(-h)) / (2 * h), 4);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('known distances', () => {
  const of = (form: string, ...values: number[]) => FORMS[form]!.made(variables(values));
  expect(of('plane', 0, 0, 1, 3).off([7, 8, 5]).value).toBe(2);
  expect(of('cylinder', 0, 0, 0, 0, 0, 1, 2).off([3, 4, 9]).value).toBeCloseTo(3, 12);
  expect(of('ball', 1, 0, 0, 2).off([1, 0, 5]).value).toBe(3);
  // a cone of 45 degrees from the origin: 1 aside of a flank is root half over it
  expect(of('cone', 0, 0, 0, 0, 0, 1, Math.PI / 4).off([3, 0, 2]).value).toBeCloseTo(Math.SQRT1_2, 12);
  expect(of('ring', 0, 0, 0, 0, 0, 1, 5, 1).off([5, 0, 4]).value).toBeCloseTo(3, 12);
  const normals = [of('plane', 0, 0, 1, 3), of('cylinder', 0, 0, 0, 0, 0, 1, 2), of('ball', 0, 0, 0, 2)].map(
    (surface) => surface.normal([0, 2, 0]),
  );
  expect(normals).toEqual([
    [0, 0, 1],
    [0, 1, 0],
    [0, 1, 0],
  ]);
});
