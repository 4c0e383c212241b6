import fc from 'fast-check';
import { transformPoint, type RigidTransform, type Vec2, type Vec3 } from '@helb/core';
import { nearness, offsetTo, PICK_PIXELS, type Screen } from './nearness.ts';
import { Rims } from './rims.ts';

/** Seen from above, half a millimetre for a pixel. */
const ABOVE: Screen = {
  pixel: 0.5,
  toScreen: ([x, y]) => [2 * x, -2 * y],
  depthOf: ([, , z]) => -z,
};

test('an edge is as near as its nearest segment, wherever its body stands', () => {
  const c = fc.double({ min: -20, max: 20, noNaN: true });
  const place: fc.Arbitrary<Vec3> = fc.tuple(c, c, c);
  const edge = fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 6 });
  const turn = fc.double({ min: 0, max: 6, noNaN: true });
  fc.assert(
    fc.property(fc.array(edge, { minLength: 1, maxLength: 8 }), place, turn, place, (edges, shift, angle, [x, y]) => {
      const rows = edges.map((segments) => segments.flat());
      let start = 0;
      const ranges = rows.map(({ length: count }, k) => ({ name: `e${k}`, start: (start += count) - count, count }));
      const rims = new Rims({ edges: ranges, edgePoints: Float32Array.from(rows.flat(2)) });
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      const pose: RigidTransform = [
        [cos, -sin, 0, shift[0]],
        [sin, cos, 0, shift[1]],
        [0, 0, 1, shift[2]],
      ];
      const at: Vec2 = [2 * x, -2 * y];
      const near = rims.near(ABOVE, at, pose);
      const expected = rows.flatMap((row, k) => {
        const exact = row.map((one) => [...Float32Array.from(one)] as unknown as Vec3);
        const depth = nearness(ABOVE, at, row.length, (j) => transformPoint(pose, exact[j]!));
        const off = offsetTo(ABOVE, at, row.length, (j) => transformPoint(pose, exact[j]!));
        if (depth !== undefined) expect(Math.hypot(...off)).toBeLessThanOrEqual(PICK_PIXELS);
        return depth === undefined ? [] : [{ range: ranges[k], depth, at: transformPoint(pose, exact[0]!), off }];
      });
      expect(near).toEqual(expected);
    }),
  );
});

test('what is hidden is not near', () => {
  const rims = new Rims({
    edges: [{ name: 'e', start: 0, count: 2 }],
    edgePoints: new Float32Array([0, 0, 0, 9, 0, 0]),
  });
  expect(rims.near(ABOVE, [4, 3]).map(({ range }) => range.name)).toEqual(['e']);
  expect(rims.near(ABOVE, [4, 3], undefined, ([x]) => x < 5)).toEqual([]);
  expect(rims.near(ABOVE, [4, 9])).toEqual([]);
});
