// Cubic splines through values at ways, component by component (de Boor 1978, IV).

/** Where something is, or how it changes: of as many numbers as all others that it is used with. */
type Tuple = readonly number[];

/** The slopes at both ends; without curvature where none is told. */
export type EndSlopes = readonly [first: Tuple | undefined, last: Tuple | undefined];

const mixed = (a: Tuple, b: Tuple, p: number, q: number): Tuple => a.map((c, k) => p * c + q * b[k]!);

/** Control points of the spline as Bezier spans: one for each value, and two between them. */
export function spansThrough<T extends Tuple>(values: readonly T[], ways: readonly number[], ends: EndSlopes): T[] {
  const slopes = slopesThrough(values, ways, ends);
  return values.flatMap((value, k): T[] => {
    if (k === values.length - 1) return [value];
    const third = (ways[k + 1]! - ways[k]!) / 3;
    return [
      value,
      mixed(value, slopes[k]!, 1, third),
      mixed(values[k + 1]!, slopes[k + 1]!, 1, -third),
    ] as unknown as T[];
  });
}

/** Tridiagonal, solved by elimination. */
function slopesThrough(values: readonly Tuple[], ways: readonly number[], [first, last]: EndSlopes): Tuple[] {
  const end = values.length - 1;
  const chord = (k: number): Tuple => mixed(values[k + 1]!, values[k]!, 1 / step(k), -1 / step(k));
  const step = (k: number) => ways[k + 1]! - ways[k]!;
  const ZERO: Tuple = values[0]!.map(() => 0);
  const rows = values.map((_, k): { low: number; main: number; high: number; right: Tuple } => {
    if (k === 0)
      return first
        ? { low: 0, main: 1, high: 0, right: first }
        : { low: 0, main: 2, high: 1, right: mixed(chord(0), ZERO, 3, 0) };
    if (k === end)
      return last
        ? { low: 0, main: 1, high: 0, right: last }
        : { low: 1, main: 2, high: 0, right: mixed(chord(end - 1), ZERO, 3, 0) };
    const [before, after] = [step(k - 1), step(k)];
    return {
      low: after,
      main: 2 * (before + after),
      high: before,
      right: mixed(chord(k - 1), chord(k), 3 * after, 3 * before),
    };
  });
  for (let k = 1; k <= end; k++) {
    const [row, above] = [rows[k]!, rows[k - 1]!];
    const share = row.low / above.main;
    rows[k] = { ...row, main: row.main - share * above.high, right: mixed(row.right, above.right, 1, -share) };
  }
  const slopes: Tuple[] = [];
  for (let k = end; k >= 0; k--) {
    const { main, high, right } = rows[k]!;
    slopes[k] = mixed(right, slopes[k + 1] ?? ZERO, 1 / main, -high / main);
  }
  return slopes;
}

/**
 * Poles of the spline through values at equal steps, as a B-spline of simple knots within: two more than values. The slopes at
 * its ends are those of the quartics through five values there, so that it is as exact there as between.
 * @param values five or more
 */
export function polesThrough<T extends Tuple>(values: readonly T[]): T[] {
  const slope = (five: readonly T[]) =>
    ONE_SIDED.reduce(
      (sum: Tuple, by, k) => mixed(sum, five[k]!, 1, by),
      five[0]!.map(() => 0),
    );
  const last = values.length - 1;
  const ways = values.map((_, k) => k);
  const spans = spansThrough(values, ways, [slope(values), mixed(slope(values.toReversed()), values[0]!, -1, 0)]);
  const within = Array.from(
    { length: last - 1 },
    (_, k) => mixed(spans[3 * k + 2]!, spans[3 * k + 1]!, 2, -1) as unknown as T,
  );
  return [spans[0]!, spans[1]!, ...within, spans[3 * last - 1]!, spans[3 * last]!];
}
/** The derivative at the first of five values at equal steps. */
const ONE_SIDED = [-25 / 12, 4, -3, 4 / 3, -1 / 4];
