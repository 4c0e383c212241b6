import { norm, type Gradient } from '../../math/index.ts';

/**
 * Below this share of its length a row says nothing that others do not say; rows shorter than 1 are measured by that: an
 * unknown that counts changes a size by about as much as itself.
 */
const NOTHING = 1e-5;

/** A row without what is said already. */
interface Rest {
  readonly rest: Float64Array;
  /** How much of each vector of the basis was in it. */
  readonly shares: Float64Array;
  /** How long the row was, and what is left of it. */
  readonly length: number;
  readonly left: number;
}

/** Rows that say something of their own, and what others say by them (Gram and Schmidt, twice, after Kahan and Parlett). */
export class Span {
  /** Sizes tell few unknowns each: most vectors are nearly empty. */
  private readonly basis: Gradient[] = [];
  /** Of each row that was taken what it shares with the basis before it, and what was left of it. */
  private readonly taken: Pick<Rest, 'shares' | 'left'>[] = [];

  constructor(private readonly count: number) {}

  copy(): Span {
    const other = new Span(this.count);
    other.basis.push(...this.basis);
    other.taken.push(...this.taken);
    return other;
  }

  get rank(): number {
    return this.basis.length;
  }

  /** Takes a row if it says something new. */
  add(row: Gradient): boolean {
    if (this.rank >= this.count) return false;
    const { rest, shares, length, left } = this.without(row);
    if (left < NOTHING * Math.max(length, 1)) return false;
    this.basis.push(sparse(rest, left));
    this.taken.push({ shares, left });
    return true;
  }

  says(row: Gradient): boolean {
    if (this.rank >= this.count) return true;
    const { length, left } = this.without(row);
    return left < NOTHING * Math.max(length, 1);
  }

  /** The rows that were taken, by number, of which another is the sum. */
  sumOf(row: Gradient): number[] {
    const { shares } = this.without(row);
    // from vectors of the basis back to the rows that they were made of, the last first
    const sum = new Float64Array(this.rank);
    for (let k = this.rank - 1; k >= 0; k--) {
      const { shares: before, left } = this.taken[k]!;
      sum[k] = shares[k]! / left;
      for (let j = 0; j < k; j++) shares[j]! -= sum[k]! * before[j]!;
    }
    const largest = sum.reduce((most, entry) => Math.max(most, Math.abs(entry)), 0);
    return [...sum.keys()].filter((k) => Math.abs(sum[k]!) > 1e-6 * largest);
  }

  /** How much of an unknown is not held: 0 where it is, 1 where nothing says anything of it. */
  freedomOf(unknown: number): number {
    return this.without({ at: [unknown], by: [1] }).left;
  }

  private without({ at, by }: Gradient): Rest {
    const rest = new Float64Array(this.count);
    at.forEach((unknown, k) => (rest[unknown] = by[k]!));
    const shares = new Float64Array(this.rank);
    const length = norm(rest);
    for (let round = 0; round < 2; round++)
      for (let k = 0; k < this.rank; k++) {
        const { at, by } = this.basis[k]!;
        let share = 0;
        for (let i = 0; i < at.length; i++) share += by[i]! * rest[at[i]!]!;
        if (share === 0) continue;
        for (let i = 0; i < at.length; i++) rest[at[i]!]! -= share * by[i]!;
        shares[k]! += share;
      }
    return { rest, shares, length, left: norm(rest) };
  }
}

/** @param length by which it is divided */
function sparse(row: Float64Array, length: number): Gradient {
  const at: number[] = [];
  // what rounding has left counts as nothing
  for (let i = 0; i < row.length; i++) if (Math.abs(row[i]!) > 1e-14 * length) at.push(i);
  return { at, by: at.map((i) => row[i]! / length) };
}
