/** What was refused: which kind of step, and with which word. */
export interface Refusal {
  readonly kind: string;
  readonly code: string;
  /** What the refusal names, as much or at another place, was built instead. */
  readonly isNamed?: boolean;
}

/** How one case ended. */
export interface Outcome {
  readonly seed: number;
  readonly refused: readonly Refusal[];
  /** Steps that were tried, by kind. */
  readonly tried: readonly string[];
  /** The law that does not hold, with what was found. */
  readonly broken?: { readonly law: string; readonly found: string };
  /** It took longer than a step may. */
  readonly isEndless?: boolean;
  /** What shows it, as a project or the like. */
  readonly shown?: string;
}

/** Thrown by laws. */
export class Broken extends Error {
  constructor(
    readonly law: string,
    readonly found: string,
  ) {
    super(`${law}: ${found}`);
  }
}

/** What an error says of the laws: everything that is thrown is a law broken. */
export const brokenBy = (error: unknown): { readonly law: string; readonly found: string } =>
  error instanceof Broken
    ? { law: error.law, found: error.found }
    : { law: 'nothing crashes', found: error instanceof Error ? (error.stack ?? error.message) : String(error) };

/** Two figures that have to be one, within a share of the larger. */
export function same(law: string, a: number, b: number, within: number): void {
  const far = Math.abs(a - b);
  if (!(far <= within * Math.max(Math.abs(a), Math.abs(b), 1e-9))) throw new Broken(law, `${a} and ${b}`);
}

/** Are two plain values the same, whatever the order of their keys? */
export const alike = (a: unknown, b: unknown): boolean => canonical(a) === canonical(b);

const canonical = (value: unknown): string =>
  JSON.stringify(value, (_, node: unknown) =>
    typeof node === 'object' && node !== null && !Array.isArray(node)
      ? Object.fromEntries(Object.entries(node).sort(([one], [other]) => (one < other ? -1 : 1)))
      : node,
  );
