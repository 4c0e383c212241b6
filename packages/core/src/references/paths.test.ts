import fc from 'fast-check';
import { chained, dot3, length3, Path, sub3, type SpaceCurve, type Vec3 } from '../index.ts';

const line = (from: Vec3, to: Vec3): SpaceCurve => ({ form: 'line', from, to });
const quarter: SpaceCurve = {
  form: 'circle',
  centre: [10, 10, 0],
  axis: [0, 0, 1],
  radius: 10,
  from: [10, 0, 0],
  to: [20, 10, 0],
};

test('lengths of lines, arcs, circles and free curves', () => {
  expect(new Path([line([0, 0, 0], [3, 4, 0])]).length).toBeCloseTo(5, 12);
  expect(new Path([line([0, 0, 0], [10, 0, 0]), quarter]).length).toBeCloseTo(10 + 5 * Math.PI, 3);
  const ring = new Path([{ form: 'circle', centre: [0, 0, 0], axis: [0, 1, 0], radius: 7 }]);
  expect(ring.length).toBeCloseTo(14 * Math.PI, 2);
  expect(ring.closed).toBe(true);
});

test('a chain is gone along from its beginning, whichever way its curves were drawn', () => {
  const drawn = [line([10, 0, 0], [0, 0, 0]), quarter, line([20, 30, 0], [20, 10, 0])];
  const path = new Path(drawn);
  const [start, end] = path.frames([0, path.length]);
  expect(start).toMatchObject({ origin: [0, 0, 0], z: [1, 0, 0] });
  expect(end!.origin.map((c) => Math.round(c * 1e3) / 1e3)).toEqual([20, 30, 0]);
});

test('frames are square and as far apart along the path as they were asked', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 6 }), (shares) => {
      const path = new Path([line([0, 0, 0], [10, 0, 0]), quarter]);
      for (const { x, y, z } of path.frames(shares.map((share) => share * path.length))) {
        for (const axis of [x, y, z]) expect(length3(axis)).toBeCloseTo(1, 6);
        for (const [a, b] of [
          [x, y],
          [y, z],
          [x, z],
        ] as const)
          expect(dot3(a, b)).toBeCloseTo(0, 4);
      }
    }),
  );
});

test('in a plane a frame keeps its side to the plane', () => {
  const path = new Path([quarter]);
  const [first, last] = path.frames([0, path.length]);
  expect(length3(sub3(first!.x, last!.x)) < 1e-3 || Math.abs(dot3(first!.x, [0, 0, 1])) < 1e-6).toBe(true);
  expect(dot3(first!.x, [0, 0, 1])).toBeCloseTo(dot3(last!.x, [0, 0, 1]), 5);
});

test('curves chosen in any order become a chain from the loose end that is nearest to a place', () => {
  const curves = [line([20, 30, 0], [20, 10, 0]), line([10, 0, 0], [0, 0, 0]), quarter];
  expect(chained(curves, [1, 1, 0])).toEqual([curves[1], curves[2], curves[0]]);
  expect(chained(curves, [20, 40, 0])).toEqual([curves[0], curves[2], curves[1]]);
  // nearest of all is an end that two share: no chain begins there
  expect(chained(curves, [11, 0, 0])[0]).toBe(curves[1]);
  const ring = [line([0, 0, 0], [9, 0, 0]), line([9, 0, 0], [0, 9, 0]), line([0, 9, 0], [0, 0, 0])];
  expect(new Path(chained(ring, [9, 1, 0])).closed).toBe(true);
});
