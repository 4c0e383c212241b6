import fc from 'fast-check';
import type { BodyMesh } from '../kernel-port/index.ts';
import { distance3, frameOn, length3, IDENTITY, toPlane, type RigidTransform, type Vec3 } from '../math/index.ts';
import { armsOf, bezierAt, endsOfCurve } from '../geometry/index.ts';
import { OccluderGrid } from './occluder-grid.ts';
import { flatCurve, flatThrough } from './flat-curve.ts';
import { runsOf } from './runs.ts';
import { BLOCK_FACES, blockCorner, blockTopology } from '../samples/index.ts';
import { shellOf } from './shell.ts';
import { drawnView, type ViewedBody } from './hidden-lines.ts';

/** A block from the origin, as a kernel would tell it: patches that share no points. */
function block(size: Vec3, transform: RigidTransform = IDENTITY, body = 0): ViewedBody {
  const topology = blockTopology(size);
  const mesh: BodyMesh = {
    positions: Float32Array.from(BLOCK_FACES.flatMap((face) => face.flatMap((k) => blockCorner(k, size)))),
    normals: new Float32Array(72),
    triangles: Uint32Array.from(BLOCK_FACES.flatMap((_, f) => [0, 1, 2, 0, 2, 3].map((k) => 4 * f + k))),
    faces: BLOCK_FACES.map((_, f) => ({ name: `${f}`, start: 6 * f, count: 6 })),
    edgePoints: Float32Array.from(topology.edges.flatMap(({ curve }) => endsOfCurve(curve).flat())),
    edges: topology.edges.map(({ name }, k) => ({ name, start: 2 * k, count: 2 })),
  };
  return { topology, mesh, transform, body };
}
const shifted = (x: number, y: number, z: number): RigidTransform => [
  [1, 0, 0, x],
  [0, 1, 0, y],
  [0, 0, 1, z],
];
const TOP = frameOn([0, 0, 0], [0, 0, 1], [1, 0, 0]);

test('the patches of a mesh are sewn into a closed skin', () => {
  const shell = shellOf(block([3, 4, 5]).mesh);
  expect(shell.points.length / 3).toBe(8);
  expect(shell.meetings.length / 4).toBe(18);
  expect(shell.lines.size).toBe(12);
});

test('from a corner nine edges of a block are seen and three are not, whatever its size', () => {
  const side = fc.double({ min: 5, max: 50, noNaN: true });
  const way = fc.double({ min: 0.3, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(side, side, side), fc.tuple(way, way, way), (size, look) => {
      const { lines } = drawnView([block(size)], frameOn([0, 0, 0], look.map((x) => x / length3(look)) as never));
      expect(lines.filter(({ hidden }) => !hidden)).toHaveLength(9);
      expect(lines.filter(({ hidden }) => hidden)).toHaveLength(3);
    }),
  );
});

test('a bar over another hides just what lies under it', () => {
  const under = block([10, 2, 1]);
  const over = block([2, 10, 1], shifted(4, -4, 3), 1);
  const { lines } = drawnView([under, over], TOP);
  const length = (body: number, hidden: boolean) =>
    lines.reduce((sum, line) => {
      const { curve } = line;
      return line.body === body && line.hidden === hidden && curve.form === 'line'
        ? sum + Math.abs(curve.to[0] - curve.from[0])
        : sum;
    }, 0);
  // along x: two edges of its top are seen but for the 2 mm under the bar; two of its underside not at all
  expect(length(0, false)).toBeCloseTo(2 * 8, 4);
  expect(length(0, true)).toBeCloseTo(2 * 2 + 2 * 10, 4);
  expect(length(1, false)).toBeCloseTo(2 * 2, 4);
});

test('what touches is not hidden: a block on another', () => {
  const { lines } = drawnView([block([4, 4, 2]), block([2, 2, 2], shifted(1, 1, 2), 1)], TOP);
  const top = lines.filter(({ hidden, body }) => !hidden && body === 0);
  expect(top).toHaveLength(4);
});

describe('a curtain', () => {
  const triangle = new OccluderGrid(Float64Array.from([0, 0, 0, 4, 0, 0, 0, 4, 4]), Uint32Array.from([0, 1, 2]), 10);

  test('hides what lies within and beneath, as shares of the segment', () => {
    const [stretch, ...more] = triangle.hidden([-2, 1, -5], [6, 1, -5]);
    expect(more).toEqual([]);
    expect(stretch![0]).toBeCloseTo(2 / 8, 5);
    expect(stretch![1]).toBeCloseTo(5 / 8, 5);
  });

  test('goes through a segment that pierces it: only beyond is hidden', () => {
    // over y = 2 the triangle stands at z = 2
    const [stretch] = triangle.hidden([1, 2, 4], [1, 2.0001, 0]);
    expect(stretch![0]).toBeCloseTo(0.5, 3);
    expect(stretch![1]).toBe(1);
  });

  test('hides nothing in front of it, on it or beside it; turned away it hides nothing', () => {
    expect(triangle.hidden([-2, 1, 5], [6, 1, 5])).toEqual([]);
    expect(triangle.hidden([0, 0, 0], [4, 0, 0])).toEqual([]);
    expect(triangle.hidden([-2, 5, -5], [6, 5, -5])).toEqual([]);
    const turned = new OccluderGrid(Float64Array.from([0, 0, 0, 4, 0, 0, 0, 4, 4]), Uint32Array.from([0, 2, 1]), 10);
    expect(turned.hidden([-2, 1, -5], [6, 1, -5])).toEqual([]);
  });

  test('agrees with rays on random triangles', () => {
    const place = fc.tuple(
      ...[0, 1, 2].map(() => fc.double({ min: -10, max: 10, noNaN: true })),
    ) as fc.Arbitrary<unknown> as fc.Arbitrary<Vec3>;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, place), { minLength: 1, maxLength: 20 }),
        place,
        place,
        (all, a, b) => {
          const points = Float64Array.from(all.flat(2));
          const curtain = new OccluderGrid(
            points,
            Uint32Array.from(all.flatMap((_, k) => [3 * k, 3 * k + 1, 3 * k + 2])),
            1e-3,
          );
          const stretches = curtain.hidden(a, b);
          for (const t of [0.13, 0.37, 0.5, 0.61, 0.89]) {
            const at = a.map((c, i) => c + t * (b[i]! - c)) as unknown as Vec3;
            const over = all.map((corners) => heightAt(corners, at)).filter((gap) => gap !== undefined);
            // too near to a rim or to a triangle to tell
            if (over.some((gap) => Number.isNaN(gap) || Math.abs(gap) < 1e-4)) continue;
            expect(stretches.some(([from, to]) => from <= t && t <= to)).toBe(over.some((gap) => gap > 0));
          }
        },
      ),
    );
  });
  /** How far a triangle that is turned to the eye is over a place; undefined beside it, NaN near its rim. */
  function heightAt([p, q, r]: readonly [Vec3, Vec3, Vec3], [x, y, z]: Vec3): number | undefined {
    const cross = (a: Vec3, b: Vec3, u: number, v: number) => (b[0] - a[0]) * (v - a[1]) - (b[1] - a[1]) * (u - a[0]);
    const area = cross(p, q, r[0], r[1]);
    const normal = Math.hypot(
      (q[1] - p[1]) * (r[2] - p[2]) - (q[2] - p[2]) * (r[1] - p[1]),
      (q[2] - p[2]) * (r[0] - p[0]) - (q[0] - p[0]) * (r[2] - p[2]),
      area,
    );
    if (area < 4e-3 * normal) return area < 1e-3 * normal ? undefined : NaN;
    const shares = [cross(q, r, x, y), cross(r, p, x, y), cross(p, q, x, y)].map((share) => share / area);
    if (shares.some((share) => Math.abs(share) < 1e-4)) return NaN;
    if (shares.some((share) => share < 0)) return undefined;
    return shares[0]! * p[2] + shares[1]! * q[2] + shares[2]! * r[2] - z;
  }
});

describe('curves as they look from above', () => {
  const unit = fc
    .tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
    .filter((v) => Math.hypot(...v) > 0.1)
    .map((v) => v.map((c) => c / Math.hypot(...v)) as unknown as Vec3);

  test('a stretch of a tilted circle is that of its ellipse, through the same places', () => {
    fc.assert(
      fc.property(
        unit,
        fc.double({ min: 0.2, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (axis, sweep, start) => {
          const circle = { form: 'circle', centre: [1, 2, 3], axis, radius: 5 } as const;
          const [u, v] = armsOf(circle);
          const at = (t: number) =>
            [0, 1, 2].map((i) => circle.centre[i]! + u[i]! * Math.cos(t) + v[i]! * Math.sin(t)) as unknown as Vec3;
          const places = Array.from({ length: 9 }, (_, k) => at(start + (sweep * k) / 8));
          const seen = flatCurve(circle)(places);
          fc.pre(Math.abs(axis[2]) > 0.02);
          if (seen?.form !== 'circle' && seen?.form !== 'ellipse') throw new Error('round things stay round');
          const ends = [seen.from!, seen.to!];
          for (const end of [places[0]!, places[8]!])
            expect(Math.min(...ends.map(([x, y]) => Math.hypot(x - end[0], y - end[1])))).toBeLessThan(1e-9);
          // its area tells that it is the ellipse of that tilt
          const area = seen.form === 'circle' ? seen.radius ** 2 : length3(seen.major) * length3(seen.minor);
          expect(area).toBeCloseTo(25 * Math.abs(axis[2]), 6);
        },
      ),
    );
  });

  test('a circle seen edge-on is a line of its diameter; end-on a line is nothing', () => {
    const circle = { form: 'circle', centre: [0, 0, 7], axis: [0, 1, 0], radius: 2 } as const;
    const places = Array.from({ length: 8 }, (_, k): Vec3 => {
      const t = (2 * Math.PI * (k % 7)) / 7 + 0.3;
      return [2 * Math.cos(t), 0, 7 + 2 * Math.sin(t)];
    });
    const line = flatCurve(circle)(places);
    if (line?.form !== 'line') throw new Error();
    expect([line.from[0], line.to[0]].sort()).toEqual([-2, 2]);
    expect(
      flatCurve({ form: 'line', from: [1, 1, 0], to: [1, 1, 9] })([
        [1, 1, 0],
        [1, 1, 9],
      ]),
    ).toBeUndefined();
  });

  test('a stretch of a free curve lies on it and ends where it should', () => {
    const spans = [
      [
        [0, 0, 0],
        [1, 2, 0],
        [3, 2, 1],
        [4, 0, 2],
      ],
      [
        [4, 0, 2],
        [5, -2, 3],
        [7, -2, 3],
        [8, 0, 0],
      ],
    ] as const;
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1.9, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (from, more) => {
          const to = Math.min(2, from + more);
          const at = (t: number): Vec3 => bezierAt(spans[Math.min(1, Math.floor(t))]!, t - Math.min(1, Math.floor(t)));
          const seen = flatCurve({ form: 'free', spans })([at(from), at((from + to) / 2), at(to)]);
          if (seen?.form !== 'free') throw new Error();
          const [first, last] = [seen.spans[0]![0], seen.spans.at(-1)![3]];
          expect(distance3(first, [at(from)[0], at(from)[1], 0])).toBeLessThan(1e-5);
          expect(distance3(last, [at(to)[0], at(to)[1], 0])).toBeLessThan(1e-5);
        },
      ),
    );
  });

  test('of a closed free curve a stretch may go on over its beginning', () => {
    const k = 0.5523;
    const quarter = (a: Vec3, b: Vec3): readonly [Vec3, Vec3, Vec3, Vec3] => [
      a,
      [a[0] + k * b[0], a[1] + k * b[1], 0],
      [b[0] + k * a[0], b[1] + k * a[1], 0],
      b,
    ];
    const corners: Vec3[] = [
      [1, 0, 0],
      [0, 1, 0],
      [-1, 0, 0],
      [0, -1, 0],
    ];
    const spans = corners.map((from, at) => quarter(from, corners[(at + 1) % 4]!));
    const at = (angle: number): Vec3 => [Math.cos(angle), Math.sin(angle), 0];
    const seen = flatCurve({ form: 'free', spans })([-0.5, -0.2, 0.1, 0.5].map(at));
    if (seen?.form !== 'free') throw new Error();
    for (const span of seen.spans) for (const [x] of span) expect(x).toBeGreaterThan(0.8);
    expect(seen.spans).toHaveLength(2);
  });

  test('through places goes a smooth line', () => {
    const places = Array.from({ length: 25 }, (_, k): Vec3 => [10 * Math.cos(k / 4), 10 * Math.sin(k / 4), k]);
    const curve = flatThrough(places);
    if (curve?.form !== 'free') throw new Error();
    for (const span of curve.spans)
      for (const t of [0.25, 0.5, 0.75]) expect(length3(bezierAt(span, t))).toBeCloseTo(10, 1);
  });
});

test('of a closed line the hidden stretch is told once, and what is left once', () => {
  const wall = new OccluderGrid(
    Float64Array.from([-9, -9, 5, 0, -9, 5, 0, 9, 5, -9, 9, 5]),
    Uint32Array.from([0, 1, 2, 0, 2, 3]),
    1,
  );
  const ring = Array.from({ length: 24 }, (_, k): Vec3 => {
    const t = (2 * Math.PI * k) / 24 + 0.1;
    return [4 * Math.cos(t), 4 * Math.sin(t), 0];
  });
  const runs = runsOf([...ring, ring[0]!], [], wall, 1e-3);
  expect(runs.map(({ hidden }) => hidden).sort()).toEqual([false, true]);
  const [low, high] = runs
    .find(({ hidden }) => hidden)!
    .places.map((place) => toPlane(TOP, place)[0])
    .reduce(([a, b], x) => [Math.min(a, x), Math.max(b, x)], [9, -9]);
  expect(high).toBeCloseTo(0, 4);
  expect(low).toBeLessThan(-3.9);
});
