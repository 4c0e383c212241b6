import fc from 'fast-check';
import {
  add3,
  carriedAlong,
  carriedFrame,
  choleskyInPlace,
  cross3,
  direction3,
  distance3,
  dot3,
  frameOn,
  frameToFrame,
  transformPoint,
  transformDirection,
  type Vec3,
  choleskySolve,
  matrix,
  nullSpace,
  randomFrom,
  rankRevealing,
  rotation,
  scale3,
  SparseCholesky,
  toPlane,
  toSpace,
  type Frame,
} from './index.ts';

const size = fc.integer({ min: 1, max: 8 });
const seed = fc.integer();

function product(m: number, k: number, n: number, random: () => number) {
  const left = Float64Array.from({ length: m * k }, () => random() - 0.5);
  const right = Float64Array.from({ length: k * n }, () => random() - 0.5);
  const out = matrix(m, n);
  for (let i = 0; i < m; i++)
    for (let j = 0; j < n; j++)
      for (let l = 0; l < k; l++) out.data[i * n + j]! += left[i * k + l]! * right[l * n + j]!;
  return out;
}

test('a product of m x k and k x n has rank min(m, k, n), and its null space is annihilated, one vector a free column', () => {
  fc.assert(
    fc.property(size, size, size, seed, (m, k, n, s) => {
      const a = product(m, k, n, randomFrom(s));
      const { rank, order, freeBasis } = rankRevealing(a);
      const basis = freeBasis();
      expect(rank).toBe(Math.min(m, k, n));
      expect(basis).toHaveLength(n - rank);
      basis.forEach((v, p) => {
        for (let i = 0; i < m; i++) {
          let dot = 0;
          for (let j = 0; j < n; j++) dot += a.data[i * n + j]! * v[j]!;
          expect(Math.abs(dot)).toBeLessThan(1e-8 * Math.max(...v.map(Math.abs)));
        }
        order.slice(rank).forEach((free, q) => expect(v[free]).toBe(p === q ? 1 : 0));
      });
    }),
  );
});

test('the zero matrix has rank 0 and a full null space', () => {
  const { rank, freeBasis } = rankRevealing(matrix(3, 4));
  expect([rank, freeBasis().length]).toEqual([0, 4]);
});

test('Cholesky solves A x = b for A = B B^T + I, and refuses an indefinite matrix', () => {
  fc.assert(
    fc.property(size, seed, (n, s) => {
      const random = randomFrom(s);
      const b = Float64Array.from({ length: n * n }, () => random() - 0.5);
      const a = new Float64Array(n * n);
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          for (let k = 0; k < n; k++) a[i * n + j]! += b[i * n + k]! * b[j * n + k]!;
          if (i === j) a[i * n + j]! += 1;
        }
      const x = Float64Array.from({ length: n }, () => random());
      const right = new Float64Array(n);
      for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) right[i]! += a[i * n + j]! * x[j]!;
      expect(choleskyInPlace(a, n)).toBe(true);
      choleskySolve(a, n, right);
      right.forEach((entry, i) => expect(entry).toBeCloseTo(x[i]!, 8));
    }),
  );
  expect(choleskyInPlace(Float64Array.from([1, 2, 2, 1]), 2)).toBe(false);
});

test('plane to space and back is the identity', () => {
  const frame: Frame = { origin: [1, 2, 3], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] };
  expect(toSpace(frame, [5, 7])).toEqual([1, 7, 10]);
  expect(toPlane(frame, [1, 7, 10])).toEqual([5, 7]);
});

/** A random sparse matrix with a few entries in each row, some rows combinations of others. */
function sparse(m: number, n: number, random: () => number): Map<number, number>[] {
  return Array.from({ length: m }, () => {
    const row = new Map<number, number>();
    for (let k = 0; k < 4; k++) row.set(Math.floor(random() * n), random() - 0.5);
    return row;
  });
}

test('sparse rank and null space agree with the dense ones, also with dependent rows (property)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 40 }), seed, (m, n, s) => {
      const random = randomFrom(s);
      const rows = sparse(m, n, random);
      for (let k = 0; k + 2 < m; k += 5) {
        const sum = new Map(rows[k]);
        for (const [c, entry] of rows[k + 1]!) sum.set(c, (sum.get(c) ?? 0) + 2 * entry);
        rows[k + 2] = sum;
      }
      const dense = matrix(m, n);
      rows.forEach((row, i) => row.forEach((entry, c) => (dense.data[i * n + c] = entry)));
      const { rank, basis } = nullSpace(rows, n, 1e-9);
      expect(rank).toBe(rankRevealing(dense, 1e-9).rank);
      expect(basis).toHaveLength(n - rank);
      for (const vector of basis) {
        const most = Math.max(...vector.map(Math.abs));
        for (const row of rows) {
          const sum = [...row].reduce((total, [c, entry]) => total + entry * vector[c]!, 0);
          expect(Math.abs(sum)).toBeLessThan(1e-8 * most);
        }
      }
    }),
  );
});

test('sparse Cholesky solves what dense Cholesky solves; an arrow fills in nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), seed, (n, s) => {
      const random = randomFrom(s);
      const pairs = sparse(n, n, random).flatMap((row, i) => [...row.keys()].map((c): [number, number] => [i, c]));
      const cholesky = new SparseCholesky(n, pairs);
      const dense = new Float64Array(n * n);
      pairs.forEach(([i, j], k) => {
        const entry = random() - 0.5;
        cholesky.values[cholesky.slotOf[k]!]! += entry;
        dense[Math.max(i, j) * n + Math.min(i, j)]! += entry;
      });
      for (let i = 0; i < n; i++) {
        cholesky.values[cholesky.diagonal[i]!]! += 8;
        dense[i * n + i]! += 8;
      }
      const right = Float64Array.from({ length: n }, () => random());
      const expected = Float64Array.from(right);
      expect(choleskyInPlace(dense, n)).toBe(cholesky.factor());
      choleskySolve(dense, n, expected);
      cholesky.solve(right);
      right.forEach((entry, i) => expect(entry).toBeCloseTo(expected[i]!, 9));
    }),
  );
  const arrow = Array.from({ length: 300 }, (_, k): [number, number] => [0, k]);
  expect(new SparseCholesky(300, arrow).size).toBe(599);
});

test('a matrix that is not positive definite is told', () => {
  const cholesky = new SparseCholesky(2, [[0, 1]]);
  cholesky.values.fill(1);
  cholesky.values[cholesky.slotOf[0]!] = 2;
  expect(cholesky.factor()).toBe(false);
});

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const place = fc.tuple(coordinate, coordinate, coordinate);
const unit = place.map((v) => direction3(v as Vec3)).filter((v) => v !== undefined);

test('a movement from one frame to another takes its origin and axes there', () => {
  fc.assert(
    fc.property(place, unit, place, unit, (p, n, q, m) => {
      const [from, to] = [frameOn(p, n), frameOn(q, m)];
      const transform = frameToFrame(from, to);
      transformPoint(transform, from.origin).forEach((c, k) => expect(c).toBeCloseTo(to.origin[k]!, 8));
      for (const axis of ['x', 'y', 'z'] as const)
        transformDirection(transform, from[axis]).forEach((c, k) => expect(c).toBeCloseTo(to[axis][k]!, 9));
    }),
  );
});

test('a direction that is carried along a path stays square to it and as long as it was', () => {
  fc.assert(
    fc.property(place, unit, place, unit, (p, n, q, m) => {
      const side = frameOn(p, n).x;
      const carried = carriedAlong({ at: p, heading: n }, side, { at: q, heading: m });
      expect(dot3(carried, carried)).toBeCloseTo(1, 9);
      expect(dot3(carried, m)).toBeCloseTo(0, 6);
    }),
  );
});

describe('a frame that is carried with its plane', () => {
  const angle = fc.double({ min: -3, max: 3, noNaN: true });
  const turned = ({ origin, x, y, z }: Frame, about: Vec3, by: number): Frame => {
    const way = rotation([0, 0, 0], about, by);
    const [u, v, w] = [x, y, z].map((one) => transformDirection(way, one)) as [Vec3, Vec3, Vec3];
    return { origin, x: u, y: v, z: w };
  };
  /** Where its plane is turned, the frame is carried with it to within rounding. */
  const goesAlong = (was: Frame, about: Vec3, by: number): void => {
    const { x, z } = turned(was, about, by);
    expect(distance3(carriedFrame(was, frameOn([0, 0, 0], z)).x, x)).toBeLessThan(1e-7);
  };

  test('is square, and stays what it was where nothing turned', () => {
    fc.assert(
      fc.property(place, unit, unit, (p, n, m) => {
        const was = frameOn(p, n);
        const carried = carriedFrame(was, frameOn(p, m));
        expect(carried.z).toEqual(m);
        expect(dot3(carried.x, carried.z)).toBeCloseTo(0, 9);
        expect(dot3(carried.x, carried.x)).toBeCloseTo(1, 9);
        expect(carriedFrame(was, was)).toEqual(was);
      }),
    );
  });

  test('goes along with what is tilted about a level line, through flat and hanging over', () => {
    fc.assert(
      fc.property(unit, angle, (n, by) => {
        const was = frameOn([0, 0, 0], n);
        const level = direction3(cross3([0, 0, 1], n));
        fc.pre(level !== undefined && Math.abs(n[2]) < 1 - 1e-6);
        goesAlong(was, level, by);
      }),
    );
  });

  test('goes along with what leans and is turned about the vertical, and is the usual one there', () => {
    fc.assert(
      fc.property(unit, angle, (n, by) => {
        fc.pre(Math.abs(n[2]) <= 0.9);
        const was = frameOn([0, 0, 0], n);
        goesAlong(was, [0, 0, 1], by);
        const now = frameOn([0, 0, 0], turned(was, [0, 0, 1], by).z);
        expect(carriedFrame(was, now)).toEqual(now);
      }),
    );
  });

  test('turns by the shortest way off what is flat', () => {
    const was = frameOn([0, 0, 0], [0, 0, 1]);
    fc.assert(fc.property(angle, angle, (round, by) => goesAlong(was, [Math.cos(round), Math.sin(round), 0], by)));
  });

  test('is a little elsewhere where its plane is, unless that was turned over', () => {
    fc.assert(
      fc.property(unit, unit, unit, (n, m, aside) => {
        // turned over: the normal opposite, or its level part
        const opposite = n[0] * m[0] + n[1] * m[1] < -0.9 * Math.hypot(n[0], n[1]) * Math.hypot(m[0], m[1]);
        fc.pre(!opposite && Math.abs(m[2]) < 0.999 && Math.abs(n[2]) < 0.999);
        const was = frameOn([0, 0, 0], n);
        const near = direction3(add3(m, scale3(aside, 1e-5)))!;
        const [one, other] = [m, near].map((to) => carriedFrame(was, frameOn([0, 0, 0], to)).x) as [Vec3, Vec3];
        expect(distance3(one, other)).toBeLessThan(1e-2);
      }),
    );
  });
});
