/**
 * Below this share of its length a row says nothing that others do not say; rows shorter than 1 are measured by that: an
 * unknown that counts changes a size by about as much as itself.
 */
const NOTHING = 1e-5;

/** Rows that say something of their own, and what others say by them (Gram and Schmidt, twice, after Kahan and Parlett). */
export class Span {
  private readonly basis: Float64Array[] = [];
  /** Each vector of the basis as a sum of the rows that were taken. */
  private readonly made: Float64Array[] = [];

  constructor(private readonly count: number) {}

  copy(): Span {
    const other = new Span(this.count);
    other.basis.push(...this.basis);
    other.made.push(...this.made);
    return other;
  }

  get rank(): number {
    return this.basis.length;
  }

  /** Takes a row if it says something new. */
  add(row: Float64Array): boolean {
    const { rest, shares, length } = this.without(row);
    const left = Math.hypot(...rest);
    if (this.rank >= this.count || left < NOTHING * Math.max(length, 1)) return false;
    const made = new Float64Array(this.count);
    shares.forEach((share, k) => this.made[k]!.forEach((m, i) => (made[i]! -= share * m)));
    made[this.rank] = 1;
    this.basis.push(rest.map((entry) => entry / left));
    this.made.push(made.map((entry) => entry / left));
    return true;
  }

  says(row: Float64Array): boolean {
    const { rest, length } = this.without(row);
    return Math.hypot(...rest) < NOTHING * Math.max(length, 1);
  }

  /** The rows that were taken, by number, of which another is the sum. */
  sumOf(row: Float64Array): number[] {
    const { shares } = this.without(row);
    const sum = new Float64Array(this.count);
    shares.forEach((share, k) => this.made[k]!.forEach((m, i) => (sum[i]! += share * m)));
    const largest = sum.reduce((most, entry) => Math.max(most, Math.abs(entry)), 0);
    return [...sum.keys()].filter((k) => Math.abs(sum[k]!) > 1e-6 * largest);
  }

  /** What moves one unknown and is not held: 0 where it is. */
  freedomOf(unknown: number): number {
    const row = new Float64Array(this.count);
    row[unknown] = 1;
    return Math.hypot(...this.without(row).rest);
  }

  private without(row: Float64Array): { rest: Float64Array; shares: Float64Array; length: number } {
    const rest = Float64Array.from(row);
    const shares = new Float64Array(this.rank);
    for (let round = 0; round < 2; round++)
      this.basis.forEach((one, k) => {
        let share = 0;
        for (let i = 0; i < rest.length; i++) share += one[i]! * rest[i]!;
        if (share === 0) return;
        for (let i = 0; i < rest.length; i++) rest[i]! -= share * one[i]!;
        shares[k]! += share;
      });
    return { rest, shares, length: Math.hypot(...row) };
  }
}
