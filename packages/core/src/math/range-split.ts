import { inner, norm, subtract } from './orthonormal.ts';

/** What linear equations leave free, and the shortest vector that fulfils them. */
interface RangeSplit {
  readonly rank: number;
  /** An orthonormal basis of what the equations leave free. */
  readonly free: readonly Float64Array[];
  /** The shortest vector for which the rows come to these values, as far as they can: what is told twice counts once. */
  particular(values: ArrayLike<number>): Float64Array;
}

/**
 * Splits a space in what rows tell and what they leave, by Gram-Schmidt with pivoting, twice (Daniel, Gragg, Kaufman, Stewart
 * 1976): the rows that stand out most first, until the others are shorter than `tolerance` x the longest.
 */
export function rangeSplit(rows: readonly Float64Array[], columns: number, tolerance = 1e-9): RangeSplit {
  const rests = rows.map((row) => Float64Array.from(row));
  const told: { readonly unit: Float64Array; readonly row: number }[] = [];
  const squares = rests.map((row) => inner(row, row));
  const longest = Math.sqrt(Math.max(0, ...squares));
  const open = new Set(rests.keys());
  while (told.length < columns && open.size > 0) {
    let row = -1;
    for (const k of open) if (row < 0 || squares[k]! > squares[row]!) row = k;
    const rest = rests[row]!;
    for (const { unit } of told) subtract(rest, unit, inner(rest, unit));
    const length = norm(rest);
    if (length <= tolerance * longest || length === 0) break;
    open.delete(row);
    const unit = rest.map((c) => c / length);
    told.push({ unit, row });
    for (const k of open) {
      const by = inner(rests[k]!, unit);
      if (by === 0) continue;
      subtract(rests[k]!, unit, by);
      squares[k] = inner(rests[k]!, rests[k]!);
    }
  }
  return {
    rank: told.length,
    free: complement(
      told.map(({ unit }) => unit),
      columns,
    ),
    particular(values) {
      const sum = new Float64Array(columns);
      // forward: each unit brings its row to its value, and leaves those before it
      for (const { unit, row } of told) {
        const by = (values[row]! - inner(rows[row]!, sum)) / inner(rows[row]!, unit);
        for (let k = 0; k < columns; k++) sum[k]! += by * unit[k]!;
      }
      return sum;
    },
  };
}

/** An orthonormal basis of what is square to an orthonormal one: the axes that stick out most, made square. */
function complement(basis: readonly Float64Array[], columns: number): Float64Array[] {
  const rests = Array.from({ length: columns }, (_, k) => {
    const axis = new Float64Array(columns);
    axis[k] = 1;
    for (const unit of basis) subtract(axis, unit, unit[k]!);
    return axis;
  });
  const open = new Set(rests.keys());
  const free: Float64Array[] = [];
  while (basis.length + free.length < columns) {
    let best = -1;
    for (const k of open) if (best < 0 || norm(rests[k]!) > norm(rests[best]!)) best = k;
    open.delete(best);
    const rest = rests[best]!;
    for (let pass = 0; pass < 2; pass++)
      for (const unit of [...basis, ...free]) subtract(rest, unit, inner(rest, unit));
    const length = norm(rest);
    const unit = rest.map((c) => c / length);
    free.push(unit);
    for (const k of open) subtract(rests[k]!, unit, inner(rests[k]!, unit));
  }
  return free;
}
