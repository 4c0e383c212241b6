/** One figure of a bench. */
export interface Figure {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  /** What the same work costs at the very least, measured in the same run; absent for plain sizes. */
  readonly floor: number | null;
  readonly ratio: number | null;
  /** The aim in words, and whether it is met; a figure without an aim is for watching. */
  readonly aim: string;
  readonly met: boolean | null;
}

export interface Family {
  readonly name: string;
  readonly run: () => Figure[] | Promise<Figure[]>;
}

export function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** The value below which this share of all lies. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
}

const WARM_UP = 4;

/** Times of one piece of work in ms, after warming up. */
export function timed(runs: number, work: (k: number) => unknown): number[] {
  const times: number[] = [];
  for (let k = 0; k < runs + WARM_UP; k++) {
    const start = performance.now();
    work(k);
    if (k >= WARM_UP) times.push(performance.now() - start);
  }
  return times;
}

/**
 * Median times of several pieces of work in ms, done by turns, so that a busy moment of the machine and the warming up of
 * the compiler meet them all alike.
 */
export async function timedByTurns(runs: number, works: readonly ((k: number) => unknown)[]): Promise<number[]> {
  const times: number[][] = works.map(() => []);
  for (let k = -WARM_UP; k < runs; k++)
    for (const [w, work] of works.entries()) {
      const start = performance.now();
      await work(k + WARM_UP);
      if (k >= 0) times[w]!.push(performance.now() - start);
    }
  return times.map(median);
}
