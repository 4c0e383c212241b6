import fc from 'fast-check';
import {
  choleskyInPlace,
  choleskySolve,
  matrix,
  randomFrom,
  rankRevealing,
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

test('a product of m x k and k x n has rank min(m, k, n), and its null space is orthonormal and annihilated', () => {
  fc.assert(
    fc.property(size, size, size, seed, (m, k, n, s) => {
      const a = product(m, k, n, randomFrom(s));
      const { rank, nullSpace } = rankRevealing(a);
      expect(rank).toBe(Math.min(m, k, n));
      expect(nullSpace).toHaveLength(n - rank);
      nullSpace.forEach((v, p) => {
        for (let i = 0; i < m; i++) {
          let dot = 0;
          for (let j = 0; j < n; j++) dot += a.data[i * n + j]! * v[j]!;
          expect(Math.abs(dot)).toBeLessThan(1e-8);
        }
        nullSpace.forEach((w, q) => {
          const dot = v.reduce((sum, entry, j) => sum + entry * w[j]!, 0);
          expect(dot).toBeCloseTo(p === q ? 1 : 0, 9);
        });
      });
    }),
  );
});

test('the zero matrix has rank 0 and a full null space', () => {
  expect(rankRevealing(matrix(3, 4))).toMatchObject({ rank: 0, nullSpace: { length: 4 } });
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
