import type { SparseRows } from '../math/index.ts';
import type { Subproblem } from './decomposition.ts';
import type { System } from './system.ts';

/** Residuals and sparse Jacobian of one subproblem of a system, all other columns held. Rows are kept one after the other. */
export class SubproblemEvaluator {
  readonly residuals: Float64Array;
  /** Row i has its entries at rowStart[i] .. rowStart[i + 1]. */
  readonly rowStart: Int32Array;
  /** Column of each entry, counted within the subproblem. */
  readonly columnOf: Int32Array;
  readonly entries: Float64Array;
  private readonly blocks: readonly { readonly block: number; readonly parts: readonly Part[] }[];

  constructor(
    private readonly system: System,
    readonly subproblem: Subproblem,
  ) {
    const place = new Map(subproblem.columns.map((column, k) => [column, k]));
    const rowStart = [0];
    const columnOf: number[] = [];
    const parts = new Map<number, Part[]>();
    subproblem.rows.forEach((index, at) => {
      const row = system.rows[index]!;
      const own = new Map<number, number>();
      const slots = system.columnsOfBlock(row.block).map((column) => {
        const k = column < 0 ? undefined : place.get(column);
        if (k === undefined) return -1;
        let slot = own.get(k);
        if (slot === undefined) {
          own.set(k, (slot = columnOf.length));
          columnOf.push(k);
        }
        return slot;
      });
      rowStart.push(columnOf.length);
      const part: Part = { at, part: row.part, slots: Int32Array.from(slots) };
      const list = parts.get(row.block);
      if (list) list.push(part);
      else parts.set(row.block, [part]);
    });
    this.rowStart = Int32Array.from(rowStart);
    this.columnOf = Int32Array.from(columnOf);
    this.entries = new Float64Array(columnOf.length);
    this.residuals = new Float64Array(subproblem.rows.length);
    this.blocks = [...parts].map(([block, list]) => ({ block, parts: list }));
  }

  get rows(): number {
    return this.subproblem.rows.length;
  }

  get columns(): number {
    return this.subproblem.columns.length;
  }

  /** Fills residuals and Jacobian at y; returns half the sum of squares (mm^2). */
  evaluate(y: Float64Array): number {
    const { entries, residuals } = this;
    entries.fill(0);
    let cost = 0;
    for (const { block, parts } of this.blocks) {
      const { r, j } = this.system.evaluate(block, y);
      for (const { at, part, slots } of parts) {
        residuals[at] = r[part]!;
        cost += r[part]! ** 2 / 2;
        const from = part * slots.length;
        for (let k = 0; k < slots.length; k++) if (slots[k]! >= 0) entries[slots[k]!]! += j[from + k]!;
      }
    }
    return cost;
  }

  get largest(): number {
    let largest = 0;
    for (const r of this.residuals) largest = Math.max(largest, Math.abs(r));
    return largest;
  }

  /** The Jacobian as rows of entries that are not 0. */
  sparseRows(): SparseRows {
    return Array.from({ length: this.rows }, (_, i) => {
      const row = new Map<number, number>();
      for (let p = this.rowStart[i]!; p < this.rowStart[i + 1]!; p++)
        if (this.entries[p] !== 0) row.set(this.columnOf[p]!, this.entries[p]!);
      return row;
    });
  }
}

/** One residual of a block: its row in the subproblem, and the slot of each of the block's unknowns, -1 for none. */
interface Part {
  readonly at: number;
  readonly part: number;
  readonly slots: Int32Array;
}
