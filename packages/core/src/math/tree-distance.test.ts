import fc from 'fast-check';
import { compose, transformPoint, translation, rotation, type RigidTransform } from './rigid-transform.ts';
import { awayFromTriangle, goesThrough, nearestOfTriangles, type Nearest } from './triangle-distance.ts';
import { alternatelyNearest, MovedTree, nearestOfTrees } from './tree-distance.ts';
import { TriangleTree } from './triangle-tree.ts';
import { add3, direction3, distance3, scale3, sub3, type Vec3 } from './vector.ts';

type Triangle = readonly [Vec3, Vec3, Vec3];
const packed = ([a, b, c]: Triangle) => Float64Array.from([...a, ...sub3(b, a), ...sub3(c, a)]);
const nearest = (p: Triangle, q: Triangle, limit = Infinity): Nearest => {
  const at = new Float64Array(6);
  const distance = nearestOfTriangles(packed(p), 0, packed(q), 0, limit, at);
  return { distance, a: [at[0]!, at[1]!, at[2]!], b: [at[3]!, at[4]!, at[5]!] };
};

const number = fc.double({ min: -1, max: 1, noNaN: true });
const vector: fc.Arbitrary<Vec3> = fc.tuple(number, number, number);
const triangle: fc.Arbitrary<Triangle> = fc.tuple(vector, vector, vector);
const share = fc.double({ min: 0, max: 1, noNaN: true });

const on = ([a, b, c]: Triangle, s: number, t: number): Vec3 => {
  const [u, v] = s + t > 1 ? [1 - s, 1 - t] : [s, t];
  return add3(a, add3(scale3(sub3(b, a), u), scale3(sub3(c, a), v)));
};

test('no two places of two triangles are nearer than what is told, and the places told are as far apart as said', () => {
  fc.assert(
    fc.property(
      triangle,
      triangle,
      fc.array(fc.tuple(share, share, share, share), { maxLength: 30 }),
      (p, q, tries) => {
        const { distance, a, b } = nearest(p, q);
        expect(nearest(p, q, distance * 0.999).distance).toBe(Infinity);
        if (distance > 1e-9) expect(nearest(p, q, distance * 1.001).distance).toBe(distance);
        expect(distance3(a, b)).toBeCloseTo(distance, 9);
        for (const [s, t, u, v] of tries) expect(distance3(on(p, s, t), on(q, u, v))).toBeGreaterThan(distance - 1e-9);
      },
    ),
  );
});

test.each<[string, Triangle, number]>([
  [
    'over its inside',
    [
      [0.2, 0.2, 3],
      [0.3, 0.2, 5],
      [0.2, 0.3, 5],
    ],
    3,
  ],
  [
    'through it',
    [
      [0.2, 0.2, -1],
      [0.2, 0.2, 1],
      [5, 5, 1],
    ],
    0,
  ],
  [
    'beside an edge',
    [
      [0.5, -2, 0],
      [0.5, -3, 1],
      [0.6, -3, -1],
    ],
    2,
  ],
  [
    'beside a corner',
    [
      [-3, -4, 0],
      [-9, -9, 1],
      [-9, -8, -1],
    ],
    5,
  ],
  [
    'in its plane and inside it',
    [
      [0.1, 0.1, 0],
      [0.2, 0.1, 0],
      [0.1, 0.2, 0],
    ],
    0,
  ],
])('a triangle %s', (_, other, distance) => {
  const flat: Triangle = [
    [0, 0, 0],
    [1, 0, 0],
    [0, 1, 0],
  ];
  expect(nearest(flat, other).distance).toBeCloseTo(distance, 12);
  expect(nearest(other, flat).distance).toBeCloseTo(distance, 12);
});

test('segments: crossing, parallel, end to end, and without length', () => {
  const at = (a: Vec3, b: Vec3, c: Vec3, d: Vec3) => nearest([a, b, b], [c, d, d]).distance;
  expect(at([-1, 0, 0], [1, 0, 0], [0, -1, 2], [0, 1, 2])).toBeCloseTo(2, 12);
  expect(at([0, 0, 0], [1, 0, 0], [0.5, 3, 0], [9, 3, 0])).toBeCloseTo(3, 12);
  expect(at([0, 0, 0], [1, 0, 0], [4, 4, 0], [9, 9, 0])).toBeCloseTo(5, 12);
  expect(at([0, 0, 0], [0, 0, 0], [3, 4, 0], [3, 4, 0])).toBeCloseTo(5, 12);
});

test('a place is as far from a triangle as a triangle that is only that place', () => {
  fc.assert(
    fc.property(vector, triangle, (place, other) => {
      const foot = new Float64Array(3);
      const distance = awayFromTriangle(place, packed(other), 0, foot);
      expect(distance).toBeCloseTo(nearest([place, place, place], other).distance, 9);
      expect(distance3(place, foot as unknown as Vec3)).toBeCloseTo(distance, 9);
    }),
  );
});

test('an edge goes through by no more than it does', () => {
  const flat: Triangle = [
    [0, 0, 0],
    [4, 0, 0],
    [0, 4, 0],
  ];
  const through = (x: number, deep: number): Triangle => [
    [x, 1, -deep],
    [x, 1, 3],
    [x, 1, 2],
  ];
  const goes = (p: Triangle, by: number) =>
    goesThrough(packed(flat), 0, packed(p), 0, by) && goesThrough(packed(p), 0, packed(flat), 0, by);
  expect(goes(through(1, 0.5), 0.4)).toBe(true);
  expect(goes(through(1, 0.5), 0.6)).toBe(false);
  expect(goes(through(0.3, 0.5), 0.2)).toBe(true);
  expect(goes(through(0.3, 0.5), 0.4)).toBe(false);
  expect(goes(through(-0.1, 0.5), 0)).toBe(false);
});

/** A sphere about the origin, as fine as its rings. */
function sphere(rings: number): TriangleTree {
  const positions: number[] = [];
  const triangles: number[] = [];
  const around = 2 * rings;
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < around; j++) {
      const [polar, turn] = [(i * Math.PI) / rings, (j * 2 * Math.PI) / around];
      positions.push(Math.sin(polar) * Math.cos(turn), Math.sin(polar) * Math.sin(turn), Math.cos(polar));
    }
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < around; j++) {
      const [a, b] = [i * around + j, i * around + ((j + 1) % around)];
      triangles.push(a, a + around, b, b, a + around, b + around);
    }
  return new TriangleTree(Float32Array.from(positions), Uint32Array.from(triangles));
}
const ball = sphere(12);

test('two balls are as far apart as their middles less their radii, to the quality of their meshes', () => {
  fc.assert(
    fc.property(vector, fc.double({ min: 2.2, max: 9, noNaN: true }), number, (way, far, angle) => {
      const direction = direction3(way);
      if (!direction) return;
      const transform: RigidTransform = compose(
        rotation([0, 0, 0], direction, angle),
        translation(scale3(direction, far)),
      );
      const found = nearestOfTrees(ball, new MovedTree(ball, transform))!;
      expect(Math.abs(found.distance - (far - 2))).toBeLessThan(0.05);
      expect(distance3(found.a, found.b)).toBeCloseTo(found.distance, 9);
      // balls have one such place: the alternate projections come to it, or to one that is a little further
      const near = alternatelyNearest(ball, ball, transform, found.a)!;
      expect(near.distance).toBeCloseTo(found.distance, 9);
      expect(alternatelyNearest(ball, ball, transform, [0, 0, 1])!.distance).toBeGreaterThan(found.distance - 1e-9);
      expect(nearestOfTrees(ball, new MovedTree(ball, transform), found.distance * 0.99)).toBeUndefined();
      expect(nearestOfTrees(ball, new MovedTree(ball, transform), found.distance * 1.01)!.distance).toBe(
        found.distance,
      );
    }),
    { numRuns: 20 },
  );
});

test('balls that go into each other touch; of two in one another the skins are told', () => {
  expect(nearestOfTrees(ball, new MovedTree(ball, translation([1.5, 0.1, 0.2])))!.distance).toBe(0);
  const half: RigidTransform = [
    [0.5, 0, 0, 0],
    [0, 0.5, 0, 0],
    [0, 0, 0.5, 0],
  ];
  const small = sphere(4);
  expect(Math.abs(nearestOfTrees(small, new MovedTree(small, half))!.distance - 0.5)).toBeLessThan(0.1);
  expect(transformPoint(half, [1, 0, 0])).toEqual([0.5, 0, 0]);
  expect(
    nearestOfTrees(ball, new MovedTree(new TriangleTree(new Float32Array(), new Uint32Array()), half)),
  ).toBeUndefined();
});
