/** How a problem is solved; what is not told is as in `DEFAULT_OPTIONS`. */
export interface SolverOptions {
  /** Residuals up to this share of the size of the model count as fulfilled: the tolerance, in mm, is both multiplied. */
  readonly accuracy: number;
  /**
   * Once the largest residual of a subproblem is within this share of the tolerance its iteration ends: the next one starts
   * from there, so that what is left must not add up.
   */
  readonly margin: number;
  /** Where no step improves any more, a residual within this share of the tolerance is as good as rounding allows. */
  readonly rounding: number;
  /** Steps that are tried in one subproblem at most. */
  readonly maxIterations: number;
  /** The damping of steps: where it starts and how far it goes; a step that improves divides it by `factor`, others multiply. */
  readonly damping: { readonly initial: number; readonly min: number; readonly max: number; readonly factor: number };
  /** From this many columns on a subproblem is factored sparsely. */
  readonly sparseFrom: number;
  /**
   * `in-order`: each component block by block, as Dulmage and Mendelsohn order them, together only where that fails.
   * `together`: what hangs together at once. For problems that by their structure tell more than there is to tell, as
   * mechanisms in space do: solved block by block, what they leave free would not follow what comes after it.
   */
  readonly strategy: 'in-order' | 'together';
}

const DEFAULT_OPTIONS: SolverOptions = {
  accuracy: 1e-11,
  margin: 1e-3,
  rounding: 0.1,
  maxIterations: 60,
  damping: { initial: 1e-8, min: 1e-13, max: 1e8, factor: 10 },
  sparseFrom: 48,
  strategy: 'in-order',
};

/** A model that is smaller counts as so large, mm: all of it may begin in one place and grow. */
const SMALLEST_MODEL_mm = 10;

/** How large a model is, mm: as it says, or as far as its unknowns reach where it begins (where it ends it may have run away). */
export const sizeOf = (given_mm: number, initial: Float64Array): number =>
  initial.reduce((most, entry) => Math.max(most, Math.abs(entry)), Math.max(given_mm, SMALLEST_MODEL_mm));

/** Throws a RangeError that names the option, its value and what it must be: a fault of the program. */
export function checkedOptions(given: Partial<SolverOptions>): SolverOptions {
  const options = { ...DEFAULT_OPTIONS, ...given };
  const { accuracy, margin, rounding, maxIterations, damping, sparseFrom } = options;
  const must = (holds: boolean, rule: string) => {
    if (!holds) throw new RangeError(`Solver: ${rule}`);
  };
  must(accuracy > 0 && accuracy < 1, `accuracy is ${accuracy} and must lie in (0, 1)`);
  must(margin > 0 && margin <= 1, `margin is ${margin} and must lie in (0, 1]`);
  must(rounding > 0 && rounding <= 1, `rounding is ${rounding} and must lie in (0, 1]`);
  must(
    Number.isInteger(maxIterations) && maxIterations > 0,
    `maxIterations is ${maxIterations} and must be 1 at least`,
  );
  must(
    damping.min > 0 && damping.min <= damping.initial && damping.initial <= damping.max && damping.factor > 1,
    `damping must have 0 < min <= initial <= max and a factor over 1`,
  );
  must(sparseFrom > 0, `sparseFrom is ${sparseFrom} and must be greater than 0`);
  return options;
}

/**
 * Why an iteration ended.
 * - `fulfilled`: all residuals within the tolerance. What is returned is a solution.
 * - `stalled`: no step improves any more, at a residual beyond the tolerance: a clash, or a place that is singular.
 * - `limit`: as many steps were tried as are allowed. What is returned is the best that was found.
 * - `not-finite`: the equations gave no numbers where it started. Nothing was moved.
 */
export type Termination = 'fulfilled' | 'stalled' | 'limit' | 'not-finite';

/** What solving one problem took. */
export interface SolverSummary {
  /** How large the model was where it began, mm, and up to which residual it counted as fulfilled. */
  readonly size_mm: number;
  readonly tolerance_mm: number;
  /** The worst of all subproblems; `stalled` also where substitutions do not close. */
  readonly termination: Termination;
  /** Steps that were tried, over all subproblems. */
  readonly iterations: number;
  /** Half the sum of the squares of all residuals, mm^2, before and after. */
  readonly initialCost: number;
  readonly finalCost: number;
  readonly subproblems: number;
  /** Components that were solved in order in vain, and then together. */
  readonly fallbacks: number;
}
