/** Two points that belong together, by their numbers. */
export type Pair = readonly [number, number];

/** Pairs of points end to end; where more than two meet, lines end. */
export function endToEnd(pairs: readonly Pair[]): number[][] {
  const at = new Map<number, Pair[]>();
  for (const pair of pairs) for (const point of pair) at.set(point, [...(at.get(point) ?? []), pair]);
  const used = new Set<Pair>();
  const walk = (from: number, first: Pair): number[] => {
    const line = [from];
    for (let pair: Pair | undefined = first; pair;) {
      used.add(pair);
      const next: number = pair[0] === line.at(-1) ? pair[1] : pair[0];
      line.push(next);
      const on: readonly Pair[] = at.get(next)!;
      pair = on.length === 2 ? on.find((other) => !used.has(other)) : undefined;
    }
    return line;
  };
  const open = [...at].filter(([, on]) => on.length !== 2);
  const lines = open.flatMap(([point, on]) => on.flatMap((pair) => (used.has(pair) ? [] : [walk(point, pair)])));
  return [...lines, ...pairs.flatMap((pair) => (used.has(pair) ? [] : [walk(pair[0], pair)]))];
}
