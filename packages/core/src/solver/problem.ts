/**
 * A generic nonlinear least-squares problem: find x with all residuals 0. Knows neither sketches nor joints.
 * All residuals are in millimetres, so that one tolerance fits them all.
 */
export interface Problem {
  /** Where the search starts, and where what is left free shall stay. */
  readonly initial: Float64Array;
  readonly blocks: readonly Block[];
  readonly substitutions: readonly Substitution[];
  /** How unwilling each unknown is to move where there is a choice; 1 if absent. Only ratios matter. */
  readonly weights?: Float64Array;
  /** About how large the model is, mm, where its unknowns do not tell. Tolerances are shares of it. */
  readonly size_mm?: number;
}

/** A bag of residuals over a few unknowns, with its analytic Jacobian. */
export interface Block {
  /** Who asked for it; comes back in reports. */
  readonly owner: string;
  readonly unknowns: readonly number[];
  readonly residuals: number;
  /**
   * @param p the values of `unknowns`, in their order
   * @param r receives `residuals` numbers (mm)
   * @param j receives the Jacobian, row-major: j[i * unknowns.length + k] = d r[i] / d p[k]
   */
  evaluate(p: Float64Array, r: Float64Array, j: Float64Array): void;
}

/** Stands for the constant 0 as partner in a substitution. */
export const GROUND = -1;

/** The linear relation x[a] - x[b] = offset, eliminated before solving. */
export interface Substitution {
  readonly owner: string;
  readonly a: number;
  readonly b: number;
  readonly offset: number;
}
