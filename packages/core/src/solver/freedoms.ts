import { nullSpace, randomFrom, type NullSpace } from '../math/index.ts';
import type { Component, Subproblem } from './decomposition.ts';
import { minimise } from './levenberg.ts';
import { SubproblemEvaluator } from './evaluator.ts';
import { solvable, type Solution } from './solve.ts';

export interface Freedoms {
  readonly count: number;
  /** 1 for each unknown of the problem that can still move. */
  readonly loose: Uint8Array;
  /** What can move, component by component. */
  readonly groups: readonly FreeGroup[];
  /** Sets of owners that together tell something twice: each set could do with less. */
  readonly redundant: readonly (readonly string[])[];
  /** Sets of owners that leave more free in just this position than beside it: ways part here. */
  readonly parting: readonly (readonly string[])[];
}

/** Unknowns that hang together, and the directions in which they can move: a basis, over these unknowns only. */
export interface FreeGroup {
  readonly unknowns: readonly number[];
  readonly vectors: readonly Float64Array[];
}

/** A row counts as another again where it differs by less than this share. */
const RANK_TOLERANCE = 1e-7;
/** Of a motion, or of a combination of rows, what is below this share of its largest entry is rounding. */
const NOTHING = 1e-6;
/** So many witnesses are asked, so far away, in shares of the size. */
const WITNESSES = { count: 2, away: 1e-3 };

/**
 * The freedoms left at a fulfilled solution: unknowns less the generic rank of the Jacobian. Where the blocks are as
 * their structure promises, only the under-determined part needs a null space; elsewhere the whole component is looked
 * at, at witnesses near by (Michelucci, Foufou 2006), since the rank lies where the position is special.
 * @param tolerance of the rank, as `RANK_TOLERANCE`
 */
export function freedoms(solution: Solution, tolerance = RANK_TOLERANCE): Freedoms {
  const { system, components, y } = solution;
  const { column } = system.reduction;
  const behind: number[][] = Array.from({ length: system.columns }, () => []);
  column.forEach((c, unknown) => {
    if (c >= 0) behind[c]!.push(unknown);
  });
  const groups: FreeGroup[] = [];
  const loose = new Uint8Array(column.length);
  const redundant: (readonly string[])[] = solution.loops.map((loop) => loop.owners);
  const parting: string[][] = [];
  for (const component of components) {
    const { subproblem, revealed, at, isSpecial } = generic(solution, component, y, tolerance);
    if (isSpecial) parting.push([...new Set(component.all.rows.map((row) => system.owner(system.rows[row]!)))]);
    if (revealed.basis.length > 0) {
      const places = subproblem.columns.flatMap((c, k) => behind[c]!.map((unknown) => ({ unknown, k })));
      const vectors = revealed.basis.map((vector) => Float64Array.from(places, ({ k }) => vector[k]!));
      for (const vector of vectors) {
        const least = NOTHING * largestOf(vector);
        vector.forEach((entry, k) => Math.abs(entry) > least && (loose[places[k]!.unknown] = 1));
      }
      groups.push({ unknowns: places.map(({ unknown }) => unknown), vectors });
    }
    if (component.all.rows.length > component.all.columns.length - revealed.basis.length)
      redundant.push(...tellingTwice(solution, component.all, at));
  }
  return { count: groups.reduce((sum, { vectors }) => sum + vectors.length, 0), loose, groups, redundant, parting };
}

const largestOf = (vector: Float64Array): number => vector.reduce((most, entry) => Math.max(most, Math.abs(entry)), 0);

interface Revealed {
  readonly subproblem: Subproblem;
  readonly revealed: NullSpace;
  /** The place at which the rank was taken. */
  readonly at: Float64Array;
  /** Is the rank less where it is than beside that? */
  readonly isSpecial: boolean;
}

function generic(solution: Solution, component: Component, y: Float64Array, tolerance: number): Revealed {
  const { over, blocks, under, all } = component;
  const rank = (subproblem: Subproblem, at: Float64Array): NullSpace => {
    const evaluator = new SubproblemEvaluator(solution.system, subproblem);
    evaluator.evaluate(at);
    return nullSpace(evaluator.sparseRows(), subproblem.columns.length, tolerance);
  };
  const regular = [over, ...blocks].every(
    (subproblem) => subproblem.columns.length === 0 || rank(subproblem, y).rank === subproblem.columns.length,
  );
  const free = rank(under, y);
  if (regular && free.rank === under.rows.length) return { subproblem: under, revealed: free, at: y, isSpecial: false };
  let [best, at] = [rank(all, y), y];
  for (let seed = 1; seed <= WITNESSES.count && best.basis.length > 0; seed++) {
    const witness = nearby(solution, all, best, seed);
    if (!witness) continue;
    const there = rank(all, witness);
    if (there.rank > best.rank) [best, at] = [there, witness];
  }
  return { subproblem: all, revealed: best, at, isSpecial: at !== y };
}

/** A place a little along the null space where all relations hold again; undefined if it is not found. */
function nearby(solution: Solution, whole: Subproblem, at: NullSpace, seed: number): Float64Array | undefined {
  const { system, y, options, summary } = solution;
  const random = randomFrom(seed);
  const moved = Float64Array.from(y);
  const size = WITNESSES.away * summary.size_mm;
  for (const vector of at.basis) {
    const along = (size * (random() - 0.5)) / Math.max(largestOf(vector), 1);
    whole.columns.forEach((column, k) => (moved[column]! += along * vector[k]!));
  }
  const { termination } = minimise(
    solvable(system, whole, options),
    moved,
    system.reduction.weight,
    summary.tolerance_mm,
    options,
  );
  return termination === 'fulfilled' ? moved : undefined;
}

/** Combinations of rows that vanish: who has a share in one of them says nothing that the others do not say. */
function tellingTwice({ system }: Solution, whole: Subproblem, at: Float64Array): string[][] {
  const evaluator = new SubproblemEvaluator(system, whole);
  evaluator.evaluate(at);
  const transposed = Array.from({ length: whole.columns.length }, () => new Map<number, number>());
  evaluator.sparseRows().forEach((row, r) => row.forEach((entry, c) => transposed[c]!.set(r, entry)));
  return nullSpace(transposed, whole.rows.length, RANK_TOLERANCE).basis.map((combination) => {
    const least = NOTHING * largestOf(combination);
    const gradient = new Float64Array(system.reduction.column.length);
    const owners = new Set<string>();
    whole.rows.forEach((index, r) => {
      if (Math.abs(combination[r]!) <= least) return;
      const row = system.rows[index]!;
      owners.add(system.owner(row));
      system.addGradient(row, at, combination[r]!, gradient);
    });
    for (const owner of system.reduction.carriersOf(gradient)) owners.add(owner);
    return [...owners];
  });
}
