/**
 * Sparse Cholesky factorisation of a symmetric positive definite matrix of fixed structure: ordered by minimum degree and
 * analysed once, factored and solved many times (Davis, Direct Methods for Sparse Linear Systems, 2006, chapter 4).
 */
export class SparseCholesky {
  /** Where the entry of each given pair is to be added, in the order of the pairs. */
  readonly slotOf: Int32Array;
  /** The values of the upper triangle, by slot; to be filled before `factor`. */
  readonly values: Float64Array;
  readonly diagonal: Int32Array;
  private readonly place: Int32Array;
  private readonly columnStart: Int32Array;
  private readonly rowIndex: Int32Array;
  private readonly parent: Int32Array;
  private readonly factorStart: Int32Array;
  private readonly factorRow: Int32Array;
  private readonly factor_: Float64Array;
  private readonly order: Int32Array;

  /**
   * @param n order of the matrix
   * @param pairs entries (i, j) that can differ from 0, in any order, repetitions allowed; the diagonal is always there
   */
  constructor(
    readonly n: number,
    pairs: readonly (readonly [number, number])[],
  ) {
    this.place = placesOf(minimumDegree(n, pairs));
    const slots = new Map<number, number>();
    const columns: { row: number; slot: number }[][] = Array.from({ length: n }, () => []);
    const slot = (i: number, j: number): number => {
      const [p, q] = [this.place[i]!, this.place[j]!];
      const [row, column] = p < q ? [p, q] : [q, p];
      const key = column * n + row;
      let at = slots.get(key);
      if (at === undefined) {
        slots.set(key, (at = slots.size));
        columns[column]!.push({ row, slot: at });
      }
      return at;
    };
    this.diagonal = Int32Array.from({ length: n }, (_, i) => slot(i, i));
    this.slotOf = Int32Array.from(pairs, ([i, j]) => slot(i, j));
    this.values = new Float64Array(slots.size);
    this.columnStart = new Int32Array(n + 1);
    this.rowIndex = new Int32Array(slots.size);
    this.order = new Int32Array(slots.size);
    let at = 0;
    columns.forEach((entries, column) => {
      for (const { row, slot: own } of entries) {
        this.rowIndex[at] = row;
        this.order[at++] = own;
      }
      this.columnStart[column + 1] = at;
    });
    this.parent = this.eliminationTree();
    const counts = this.columnCounts();
    this.factorStart = new Int32Array(n + 1);
    for (let k = 0; k < n; k++) this.factorStart[k + 1] = this.factorStart[k]! + counts[k]!;
    this.factorRow = new Int32Array(this.factorStart[n]!);
    this.factor_ = new Float64Array(this.factorStart[n]!);
  }

  /** Entries of the factor: the measure of fill-in. */
  get size(): number {
    return this.factor_.length;
  }

  /** Factors the present values; false where the matrix is not positive definite. */
  factor(): boolean {
    const { n, columnStart, rowIndex, values, order, factorStart, factorRow, factor_: factor } = this;
    const next = Int32Array.from(factorStart.subarray(0, n));
    const x = new Float64Array(n);
    const stack = new Int32Array(n);
    const mark = new Int32Array(n).fill(-1);
    for (let k = 0; k < n; k++) {
      const top = this.reach(k, stack, mark);
      x[k] = 0;
      for (let p = columnStart[k]!; p < columnStart[k + 1]!; p++) x[rowIndex[p]!] = values[order[p]!]!;
      let d = x[k]!;
      x[k] = 0;
      for (let t = top; t < n; t++) {
        const i = stack[t]!;
        const lki = x[i]! / factor[factorStart[i]!]!;
        x[i] = 0;
        for (let p = factorStart[i]! + 1; p < next[i]!; p++) x[factorRow[p]!]! -= factor[p]! * lki;
        d -= lki * lki;
        const p = next[i]!++;
        factorRow[p] = k;
        factor[p] = lki;
      }
      if (!(d > 0)) return false;
      const p = next[k]!++;
      factorRow[p] = k;
      factor[p] = Math.sqrt(d);
    }
    return true;
  }

  /** Solves in place of b, after `factor`. */
  solve(b: Float64Array): void {
    const { n, place, factorStart, factorRow, factor_: factor } = this;
    const x = new Float64Array(n);
    for (let i = 0; i < n; i++) x[place[i]!] = b[i]!;
    for (let j = 0; j < n; j++) {
      x[j]! /= factor[factorStart[j]!]!;
      for (let p = factorStart[j]! + 1; p < factorStart[j + 1]!; p++) x[factorRow[p]!]! -= factor[p]! * x[j]!;
    }
    for (let j = n - 1; j >= 0; j--) {
      for (let p = factorStart[j]! + 1; p < factorStart[j + 1]!; p++) x[j]! -= factor[p]! * x[factorRow[p]!]!;
      x[j]! /= factor[factorStart[j]!]!;
    }
    for (let i = 0; i < n; i++) b[i] = x[place[i]!]!;
  }

  private eliminationTree(): Int32Array {
    const { n, columnStart, rowIndex } = this;
    const parent = new Int32Array(n).fill(-1);
    const ancestor = new Int32Array(n).fill(-1);
    for (let k = 0; k < n; k++)
      for (let p = columnStart[k]!; p < columnStart[k + 1]!; p++)
        for (let i = rowIndex[p]!; i !== -1 && i < k;) {
          const up = ancestor[i]!;
          ancestor[i] = k;
          if (up === -1) parent[i] = k;
          i = up;
        }
    return parent;
  }

  /** Columns that row k of the factor has entries in, in topological order, at the end of the stack. */
  private reach(k: number, stack: Int32Array, mark: Int32Array): number {
    const { n, columnStart, rowIndex, parent } = this;
    let top = n;
    mark[k] = k;
    for (let p = columnStart[k]!; p < columnStart[k + 1]!; p++) {
      let length = 0;
      for (let i = rowIndex[p]!; mark[i] !== k; i = parent[i]!) {
        stack[length++] = i;
        mark[i] = k;
      }
      while (length > 0) stack[--top] = stack[--length]!;
    }
    return top;
  }

  private columnCounts(): Int32Array {
    const counts = new Int32Array(this.n).fill(1);
    const stack = new Int32Array(this.n);
    const mark = new Int32Array(this.n).fill(-1);
    for (let k = 0; k < this.n; k++) for (let t = this.reach(k, stack, mark); t < this.n; t++) counts[stack[t]!]!++;
    return counts;
  }
}

const placesOf = (order: Int32Array): Int32Array => {
  const place = new Int32Array(order.length);
  order.forEach((vertex, k) => (place[vertex] = k));
  return place;
};

/** Elimination order by least degree, the plain form of Tinney's second scheme (1967): enough for some thousand unknowns. */
function minimumDegree(n: number, pairs: readonly (readonly [number, number])[]): Int32Array {
  const neighbours: Set<number>[] = Array.from({ length: n }, () => new Set());
  for (const [i, j] of pairs)
    if (i !== j) {
      neighbours[i]!.add(j);
      neighbours[j]!.add(i);
    }
  const order = new Int32Array(n);
  const buckets: Set<number>[] = [];
  const bucket = (degree: number) => (buckets[degree] ??= new Set());
  neighbours.forEach((set, i) => bucket(set.size).add(i));
  for (let k = 0; k < n; k++) {
    const degree = buckets.findIndex((set) => set !== undefined && set.size > 0);
    const vertex = buckets[degree]!.values().next().value!;
    buckets[degree]!.delete(vertex);
    order[k] = vertex;
    const around = [...neighbours[vertex]!];
    for (const i of around) {
      const own = neighbours[i]!;
      bucket(own.size).delete(i);
      own.delete(vertex);
      for (const j of around) if (j !== i) own.add(j);
      bucket(own.size).add(i);
    }
    neighbours[vertex]!.clear();
  }
  return order;
}
