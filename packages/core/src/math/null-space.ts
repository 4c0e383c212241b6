import { matrix, rankRevealing } from './matrix.ts';

/** Rows of a sparse matrix: column and entry, column and entry ... */
export type SparseRows = readonly ReadonlyMap<number, number>[];

export interface NullSpace {
  readonly rank: number;
  /** One vector for each free column, which has 1 there and 0 at the other free columns. */
  readonly basis: readonly Float64Array[];
}

/** A pivot is at least this share of the largest entry of its row: bounds the growth of rounding errors. */
const THRESHOLD = 0.2;
/** Rows that have shrunk below this share of the largest entry are left to the rank-revealing rest. */
const SAFE = 1e-3;

/**
 * Rank and null space of a sparse matrix. Safe pivots are eliminated sparsely, those of the shortest rows and columns
 * first (Markowitz 1957); what is left, dense or doubtful, goes to the QR factorisation with column pivoting, which
 * decides on the rank. Entries below `tolerance` x the largest one count as zero.
 */
export function nullSpace(rows: SparseRows, columns: number, tolerance: number): NullSpace {
  const elimination = new Elimination(rows, columns, tolerance);
  elimination.run();
  return elimination.finished();
}

interface Pivot {
  readonly column: number;
  readonly row: ReadonlyMap<number, number>;
}

class Elimination {
  private readonly rows: Map<number, number>[];
  private readonly holders: Set<number>[];
  private readonly live: Set<number>;
  private readonly pivots: Pivot[] = [];
  private readonly zero: number;
  private readonly safe: number;
  private readonly largest: number;

  constructor(
    rows: SparseRows,
    private readonly columns: number,
    private readonly tolerance: number,
  ) {
    this.rows = rows.map((row) => new Map(row));
    this.holders = Array.from({ length: columns }, () => new Set());
    let largest = 0;
    this.rows.forEach((row, r) =>
      row.forEach((entry, c) => {
        largest = Math.max(largest, Math.abs(entry));
        this.holders[c]!.add(r);
      }),
    );
    this.zero = tolerance * 1e-3 * (largest || 1);
    this.safe = SAFE * (largest || 1);
    this.live = new Set(this.rows.keys());
    this.largest = largest;
  }

  run(): void {
    // short rows first; a row whose turn comes again after it has grown goes to the end of the queue
    const queue = [...this.live].sort((a, b) => this.rows[a]!.size - this.rows[b]!.size);
    const deferred: number[] = [];
    for (let limit = 8; limit <= 64; limit *= 2) {
      for (const r of limit === 8 ? queue : deferred.splice(0)) {
        const column = this.rows[r]!.size <= limit ? this.pivotIn(r) : undefined;
        if (column === undefined) deferred.push(r);
        else this.eliminate(r, column);
      }
    }
  }

  /** The column of a safe pivot of this row that the fewest other rows have. */
  private pivotIn(r: number): number | undefined {
    let most = 0;
    for (const entry of this.rows[r]!.values()) most = Math.max(most, Math.abs(entry));
    if (most < this.safe) return undefined;
    let [best, fewest] = [undefined as number | undefined, Infinity];
    for (const [c, entry] of this.rows[r]!)
      if (Math.abs(entry) >= THRESHOLD * most && this.holders[c]!.size < fewest)
        [best, fewest] = [c, this.holders[c]!.size];
    return best;
  }

  private eliminate(r: number, column: number): void {
    const row = this.rows[r]!;
    const pivot = row.get(column)!;
    for (const c of row.keys()) this.holders[c]!.delete(r);
    for (const other of this.holders[column]!) {
      const target = this.rows[other]!;
      const factor = target.get(column)! / pivot;
      for (const [c, entry] of row) {
        const next = (target.get(c) ?? 0) - factor * entry;
        if (c === column || Math.abs(next) <= this.zero) {
          target.delete(c);
          if (c !== column) this.holders[c]!.delete(other);
        } else {
          target.set(c, next);
          this.holders[c]!.add(other);
        }
      }
    }
    this.holders[column]!.clear();
    this.live.delete(r);
    this.pivots.push({ column, row });
  }

  finished(): NullSpace {
    const taken = new Set(this.pivots.map(({ column }) => column));
    const rest = Array.from({ length: this.columns }, (_, c) => c).filter((c) => !taken.has(c));
    const left = [...this.live].filter((r) => this.rows[r]!.size > 0);
    const dense = matrix(left.length, rest.length);
    const place = new Map(rest.map((c, k) => [c, k]));
    left.forEach((r, i) => {
      for (const [c, entry] of this.rows[r]!) dense.data[i * rest.length + place.get(c)!] = entry;
    });
    const { rank, freeBasis } = rankRevealing(dense, this.tolerance, this.largest);
    const basis = freeBasis().map((vector) => {
      const full = new Float64Array(this.columns);
      rest.forEach((c, k) => (full[c] = vector[k]!));
      for (let k = this.pivots.length - 1; k >= 0; k--) {
        const { column, row } = this.pivots[k]!;
        let sum = 0;
        for (const [c, entry] of row) if (c !== column) sum -= entry * full[c]!;
        full[column] = sum / row.get(column)!;
      }
      return full;
    });
    return { rank: this.pivots.length + rank, basis };
  }
}
