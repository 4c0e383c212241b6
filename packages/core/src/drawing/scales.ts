/** Scales of drawings (ISO 5455), paper to thing: 50:1 to 1:10000. */
const SCALES: readonly (readonly [paper: number, thing: number])[] = [
  ...[50, 20, 10, 5, 2].map((n) => [n, 1] as const),
  ...[1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000].map((n) => [1, n] as const),
];
export const SCALE_NAMES = SCALES.map(([paper, thing]) => `${paper}:${thing}`) as [string, ...string[]];

/** The factor of a scale by its name; 1 where there is none of that name. */
export function scaleFactor(name: string): number {
  const [paper, thing] = SCALES[SCALE_NAMES.indexOf(name)] ?? [1, 1];
  return paper / thing;
}

/** The largest scale of which `fits` holds; the smallest of all where none does. */
export const largestFitting = (fits: (factor: number) => boolean): string =>
  SCALE_NAMES.find((name) => fits(scaleFactor(name))) ?? SCALE_NAMES.at(-1)!;

/** A factor as a scale, also one that is no usual scale. */
export function scaleName(factor: number): string {
  const known = SCALE_NAMES.find((name) => Math.abs(scaleFactor(name) / factor - 1) < 1e-9);
  const rounded = (n: number) => Number(n.toFixed(2));
  return known ?? (factor > 1 ? `${rounded(factor)}:1` : `1:${rounded(1 / factor)}`);
}
