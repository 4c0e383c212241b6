/** Dense row-major matrices in typed arrays, for the small blocks of the solver. */
interface Matrix {
  readonly rows: number;
  readonly columns: number;
  readonly data: Float64Array;
}

/** A matrix of zeros. */
export const matrix = (rows: number, columns: number): Matrix => ({
  rows,
  columns,
  data: new Float64Array(rows * columns),
});

/**
 * Cholesky factorisation in place of the lower triangle of a symmetric n x n matrix.
 * Returns false where the matrix is not positive definite (the data is then spoiled).
 */
export function choleskyInPlace(a: Float64Array, n: number): boolean {
  for (let j = 0; j < n; j++) {
    let diagonal = a[j * n + j]!;
    for (let k = 0; k < j; k++) diagonal -= a[j * n + k]! ** 2;
    if (!(diagonal > 0)) return false;
    const root = Math.sqrt(diagonal);
    a[j * n + j] = root;
    for (let i = j + 1; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      a[i * n + j] = sum / root;
    }
  }
  return true;
}

/** Solves L L^T x = b in place of b, with L from `choleskyInPlace`. */
export function choleskySolve(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= l[i * n + k]! * b[k]!;
    b[i] = sum / l[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let k = i + 1; k < n; k++) sum -= l[k * n + i]! * b[k]!;
    b[i] = sum / l[i * n + i]!;
  }
}

interface RankRevealing {
  readonly rank: number;
  /** Column order: the first `rank` entries are the pivot columns. */
  readonly order: Int32Array;
  /** A basis of the null space: each vector has 1 at one of the free columns and 0 at the others. */
  freeBasis(): Float64Array[];
}

/**
 * Rank and null space by Householder QR with column pivoting (Businger, Golub 1965): A P = Q R.
 * Entries of R below `tolerance` x the largest pivot, or x `scale` where that is more, count as zero (Chan 1987).
 */
export function rankRevealing(a: Matrix, tolerance = 1e-9, scale = 0): RankRevealing {
  const { rows: m, columns: n } = a;
  const r = Float64Array.from(a.data);
  const order = Int32Array.from({ length: n }, (_, i) => i);
  const norms = new Float64Array(n);
  for (let j = 0; j < n; j++) for (let i = 0; i < m; i++) norms[j]! += r[i * n + j]! ** 2;
  const steps = Math.min(m, n);
  let rank = 0;
  let largest = scale;
  for (let k = 0; k < steps; k++) {
    let pivot = k;
    for (let j = k + 1; j < n; j++) if (norms[j]! > norms[pivot]!) pivot = j;
    swapColumns(r, m, n, k, pivot, norms, order);
    let norm = 0;
    for (let i = k; i < m; i++) norm += r[i * n + k]! ** 2;
    norm = Math.sqrt(norm);
    largest = Math.max(largest, norm);
    if (norm <= tolerance * largest || norm === 0) break;
    reflect(r, m, n, k, norm);
    for (let j = k + 1; j < n; j++) {
      norms[j] = 0;
      for (let i = k + 1; i < m; i++) norms[j]! += r[i * n + j]! ** 2;
    }
    rank++;
  }
  return { rank, order, freeBasis: () => freeBasisOf(r, n, rank, order) };
}

function swapColumns(
  r: Float64Array,
  m: number,
  n: number,
  a: number,
  b: number,
  norms: Float64Array,
  order: Int32Array,
) {
  if (a === b) return;
  for (let i = 0; i < m; i++) {
    const kept = r[i * n + a]!;
    r[i * n + a] = r[i * n + b]!;
    r[i * n + b] = kept;
  }
  [norms[a], norms[b]] = [norms[b]!, norms[a]!];
  [order[a], order[b]] = [order[b]!, order[a]!];
}

/** One Householder reflection that clears column k below its diagonal. */
function reflect(r: Float64Array, m: number, n: number, k: number, norm: number) {
  const alpha = r[k * n + k]! > 0 ? -norm : norm;
  const v = new Float64Array(m);
  for (let i = k; i < m; i++) v[i] = r[i * n + k]!;
  v[k]! -= alpha;
  let vv = 0;
  for (let i = k; i < m; i++) vv += v[i]! ** 2;
  if (vv === 0) return;
  for (let j = k; j < n; j++) {
    let dot = 0;
    for (let i = k; i < m; i++) dot += v[i]! * r[i * n + j]!;
    const factor = (2 * dot) / vv;
    for (let i = k; i < m; i++) r[i * n + j]! -= factor * v[i]!;
  }
}

/** Null vectors from R: back substitution for each free column. */
function freeBasisOf(r: Float64Array, n: number, rank: number, order: Int32Array): Float64Array[] {
  const basis: Float64Array[] = [];
  for (let free = rank; free < n; free++) {
    const y = new Float64Array(n);
    y[free] = 1;
    for (let i = rank - 1; i >= 0; i--) {
      let sum = -r[i * n + free]!;
      for (let j = i + 1; j < rank; j++) sum -= r[i * n + j]! * y[j]!;
      y[i] = sum / r[i * n + i]!;
    }
    const vector = new Float64Array(n);
    for (let j = 0; j < n; j++) vector[order[j]!] = y[j]!;
    basis.push(vector);
  }
  return basis;
}
