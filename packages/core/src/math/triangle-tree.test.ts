import fc from 'fast-check';
import { TriangleTree } from './triangle-tree.ts';
import { add3, direction3, dot3, scale3, type Vec3 } from './vector.ts';

/** A sphere of so many rings about the origin. */
function sphere(rings: number): { positions: Float32Array; triangles: Uint32Array } {
  const around = 2 * rings;
  const positions: number[] = [];
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < around; j++) {
      const [polar, turn] = [(i * Math.PI) / rings, (j * 2 * Math.PI) / around];
      positions.push(Math.sin(polar) * Math.cos(turn), Math.sin(polar) * Math.sin(turn), Math.cos(polar));
    }
  const triangles: number[] = [];
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < around; j++) {
      const [a, b] = [i * around + j, i * around + ((j + 1) % around)];
      // at the poles one of the two is no triangle
      if (i > 0) triangles.push(a, a + around, b);
      if (i < rings - 1) triangles.push(b, a + around, b + around);
    }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

const round = sphere(24);
const tree = new TriangleTree(round.positions, round.triangles);
const number = fc.double({ min: -1, max: 1, noNaN: true });
const vector: fc.Arbitrary<Vec3> = fc.tuple(number, number, number);

test('a ray from within meets the skin where it is, which looks away from where the ray comes from', () => {
  fc.assert(
    fc.property(vector, vector, (place, way) => {
      const along = direction3(way);
      fc.pre(along !== undefined && Math.hypot(...way) > 1e-3);
      const from = scale3(place, 0.4);
      const hit = tree.firstHit(from, along)!;
      const at = add3(from, scale3(along, hit.distance));
      expect(Math.hypot(...at)).toBeGreaterThan(0.98);
      expect(Math.hypot(...at)).toBeLessThan(1 + 1e-6);
      expect(dot3(tree.normal(hit.triangle), along)).toBeGreaterThan(0);
    }),
    { numRuns: 300 },
  );
});

test('the same as looking at every triangle by itself', () => {
  const coarse = sphere(8);
  const whole = new TriangleTree(coarse.positions, coarse.triangles);
  const all = coarse.triangles.length / 3;
  const single = Array.from(
    { length: all },
    (_, k) => new TriangleTree(coarse.positions, coarse.triangles.slice(3 * k, 3 * k + 3)),
  );
  fc.assert(
    fc.property(vector, vector, (place, way) => {
      const along = direction3(way);
      fc.pre(along !== undefined && Math.hypot(...way) > 1e-3);
      const from = scale3(place, 3);
      const nearest = Math.min(...single.map((other) => other.firstHit(from, along)?.distance ?? Infinity));
      const found = whole.firstHit(from, along)?.distance ?? Infinity;
      // two that meet in an edge are hit equally far, to rounding
      if (nearest === Infinity) expect(found).toBe(Infinity);
      else expect(found).toBeCloseTo(nearest, 12);
    }),
    { numRuns: 60 },
  );
});

test('nothing is met by a ray that passes, and by any ray among no triangles', () => {
  expect(tree.firstHit([2, 0, 0], [0, 0, 1])).toBeUndefined();
  expect(tree.firstHit([2, 0, 0], [1, 0, 0])).toBeUndefined();
  expect(new TriangleTree(new Float32Array(0), new Uint32Array(0)).firstHit([0, 0, 0], [0, 0, 1])).toBeUndefined();
});
