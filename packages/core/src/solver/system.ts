import { randomFrom } from '../math/index.ts';
import { sizeOf } from './options.ts';
import type { Block, Problem } from './problem.ts';
import type { Reduction } from './reduction.ts';

/** One residual of the reduced problem. */
export interface Row {
  readonly block: number;
  /** Which residual of its block. */
  readonly part: number;
  /** The columns on which it really depends. */
  readonly columns: readonly number[];
}

/** Where the structure is read: so far from the start, in shares of the size, that nothing cancels by chance. */
const NEARBY = [0.0037, 0.0053];
/** An entry of the Jacobian below this share of the largest of its row is rounding. */
const ABSENT = 1e-9;

/** The problem in reduced unknowns: rows, and their evaluation. */
export class System {
  readonly rows: readonly Row[];
  readonly columns: number;
  private readonly blocks: readonly Block[];
  private readonly scratch: readonly { p: Float64Array; r: Float64Array; j: Float64Array }[];

  constructor(
    problem: Problem,
    readonly reduction: Reduction,
  ) {
    this.blocks = problem.blocks;
    this.columns = reduction.columns;
    this.scratch = problem.blocks.map(({ unknowns, residuals }) => ({
      p: new Float64Array(unknowns.length),
      r: new Float64Array(residuals),
      j: new Float64Array(residuals * unknowns.length),
    }));
    this.rows = this.structure(sizeOf(problem.size_mm ?? 0, problem.initial));
  }

  owner = (row: Row): string => this.blocks[row.block]!.owner;

  /** Evaluates one block at y; residuals and Jacobian (by its own unknowns) stay in its scratch. */
  evaluate(block: number, y: Float64Array): { r: Float64Array; j: Float64Array } {
    const { unknowns } = this.blocks[block]!;
    const { p, r, j } = this.scratch[block]!;
    const { column, offset } = this.reduction;
    for (let k = 0; k < unknowns.length; k++) {
      const i = unknowns[k]!;
      const at = column[i]!;
      p[k] = (at < 0 ? 0 : y[at]!) + offset[i]!;
    }
    j.fill(0);
    this.blocks[block]!.evaluate(p, r, j);
    return { r, j };
  }

  /** Column of each unknown of a block; -1 for those that are held. */
  columnsOfBlock(block: number): readonly number[] {
    return this.blocks[block]!.unknowns.map((unknown) => this.reduction.column[unknown]!);
  }

  /** Adds `factor` times the derivatives of one residual by the unknowns of the problem, before any elimination. */
  addGradient(row: Row, y: Float64Array, factor: number, gradient: Float64Array): void {
    const { j } = this.evaluate(row.block, y);
    const { unknowns } = this.blocks[row.block]!;
    unknowns.forEach((unknown, k) => (gradient[unknown]! += factor * j[row.part * unknowns.length + k]!));
  }

  /** All residuals at a place, and their derivatives by the columns. */
  linearised(y: Float64Array): { readonly residuals: number[]; readonly rows: Float64Array[] } {
    const [residuals, rows]: [number[], Float64Array[]] = [[], []];
    this.blocks.forEach((block, b) => {
      const { r, j } = this.evaluate(b, y);
      const columns = this.columnsOfBlock(b);
      for (let part = 0; part < block.residuals; part++) {
        const row = new Float64Array(this.columns);
        columns.forEach((at, k) => at >= 0 && (row[at]! += j[part * columns.length + k]!));
        residuals.push(r[part]!);
        rows.push(row);
      }
    });
    return { residuals, rows };
  }

  largestResidual(y: Float64Array): number {
    let largest = 0;
    for (let b = 0; b < this.blocks.length; b++)
      for (const residual of this.evaluate(b, y).r) largest = Math.max(largest, Math.abs(residual));
    return largest;
  }

  /** Half the sum of the squares of all residuals, mm^2. */
  cost(y: Float64Array): number {
    let sum = 0;
    for (let b = 0; b < this.blocks.length; b++)
      for (const residual of this.evaluate(b, y).r) sum += residual * residual;
    return sum / 2;
  }

  /**
   * Reads which columns each row depends on at a generic place near by: after elimination entries may cancel for ever
   * (the length of a line that is kept horizontal does not depend on its height), and a matching must not use them.
   */
  private structure(size_mm: number): Row[] {
    const random = randomFrom(1);
    const places = NEARBY.map((share) => {
      const y = Float64Array.from(this.reduction.start);
      for (let i = 0; i < y.length; i++) y[i]! += share * size_mm * (random() - 0.5);
      return y;
    });
    return this.blocks.flatMap((block, b) => {
      const present = Array.from({ length: block.residuals }, () => new Set<number>());
      const columns = this.columnsOfBlock(b);
      for (const y of places) {
        const { j } = this.evaluate(b, y);
        for (let part = 0; part < block.residuals; part++) {
          const sums = new Map<number, number>();
          columns.forEach((at, k) => {
            if (at >= 0) sums.set(at, (sums.get(at) ?? 0) + j[part * columns.length + k]!);
          });
          let largest = 0;
          for (const sum of sums.values()) if (Math.abs(sum) > largest) largest = Math.abs(sum);
          for (const [at, sum] of sums) if (Math.abs(sum) > ABSENT * largest) present[part]!.add(at);
        }
      }
      return present.map((own, part) => ({ block: b, part, columns: [...own] }));
    });
  }
}
