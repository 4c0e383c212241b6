import type { Row } from './system.ts';

/** A subproblem of the problem: row and column indices of the system. */
export interface Subproblem {
  readonly rows: readonly number[];
  readonly columns: readonly number[];
}

/**
 * One connected component, ordered so that each subproblem needs only the columns of subproblems before it:
 * over-determined first, then the well-determined blocks in their order, then the under-determined.
 */
export interface Component {
  readonly over: Subproblem;
  readonly blocks: readonly Subproblem[];
  readonly under: Subproblem;
  readonly all: Subproblem;
}

/** Connected components, each split by Dulmage and Mendelsohn (1958). Columns without rows come as under-determined. */
export function decompose(rows: readonly Row[], columns: number): Component[] {
  return components(rows, columns).map((whole) => split(whole, rows));
}

function components(rows: readonly Row[], columns: number): Subproblem[] {
  const rowsOf: number[][] = Array.from({ length: columns }, () => []);
  rows.forEach((row, r) => row.columns.forEach((c) => rowsOf[c]!.push(r)));
  const seenRow = new Uint8Array(rows.length);
  const seenColumn = new Uint8Array(columns);
  const found: Subproblem[] = [];
  for (let first = 0; first < columns; first++) {
    if (seenColumn[first]) continue;
    const subproblem = { rows: [] as number[], columns: [first] };
    seenColumn[first] = 1;
    for (let at = 0; at < subproblem.columns.length; at++)
      for (const r of rowsOf[subproblem.columns[at]!]!) {
        if (seenRow[r]) continue;
        seenRow[r] = 1;
        subproblem.rows.push(r);
        for (const c of rows[r]!.columns) {
          if (seenColumn[c]) continue;
          seenColumn[c] = 1;
          subproblem.columns.push(c);
        }
      }
    found.push(subproblem);
  }
  const constant = rows.flatMap((row, r) => (row.columns.length === 0 ? [r] : []));
  if (constant.length > 0) found.push({ rows: constant, columns: [] });
  return found;
}

function split(whole: Subproblem, rows: readonly Row[]): Component {
  const { rowOf, columnOf } = matching(whole, rows);
  const rowsOf = new Map<number, number[]>(whole.columns.map((c) => [c, []]));
  for (const r of whole.rows) for (const c of rows[r]!.columns) rowsOf.get(c)!.push(r);

  const under = reach(
    whole.columns.filter((c) => !rowOf.has(c)),
    (c) => rowsOf.get(c)!,
    (r) => columnOf.get(r),
  );
  const over = reach(
    whole.rows.filter((r) => !columnOf.has(r)),
    (r) => rows[r]!.columns,
    (c) => rowOf.get(c),
  );
  const rest = whole.rows.filter((r) => !under.others.has(r) && !over.own.has(r));
  return {
    all: whole,
    over: { rows: [...over.own], columns: [...over.others] },
    blocks: strongBlocks(rest, rows, rowOf, columnOf),
    under: { rows: [...under.others], columns: [...under.own] },
  };
}

/** Maximum matching of rows and columns by shortest augmenting paths, after a greedy start. */
function matching(whole: Subproblem, rows: readonly Row[]) {
  const rowOf = new Map<number, number>();
  const columnOf = new Map<number, number>();
  for (const r of whole.rows) {
    const free = rows[r]!.columns.find((c) => !rowOf.has(c));
    if (free !== undefined) {
      rowOf.set(free, r);
      columnOf.set(r, free);
    }
  }
  for (const start of whole.rows) if (!columnOf.has(start)) augment(start, rows, rowOf, columnOf);
  return { rowOf, columnOf };
}

function augment(start: number, rows: readonly Row[], rowOf: Map<number, number>, columnOf: Map<number, number>) {
  const reachedFrom = new Map<number, number>();
  const queue = [start];
  for (let at = 0; at < queue.length; at++) {
    const r = queue[at]!;
    for (const c of rows[r]!.columns) {
      if (reachedFrom.has(c)) continue;
      reachedFrom.set(c, r);
      const holder = rowOf.get(c);
      if (holder !== undefined) {
        queue.push(holder);
        continue;
      }
      for (let column: number | undefined = c; column !== undefined;) {
        const row: number = reachedFrom.get(column)!;
        const previous: number | undefined = row === start ? undefined : columnOf.get(row);
        rowOf.set(column, row);
        columnOf.set(row, column);
        column = previous;
      }
      return;
    }
  }
}

/** Alternating reach from the unmatched of one side: its own side and the matched other side. */
function reach(
  unmatched: number[],
  neighbours: (own: number) => readonly number[],
  mate: (other: number) => number | undefined,
) {
  const own = new Set(unmatched);
  const others = new Set<number>();
  const queue = [...unmatched];
  for (let at = 0; at < queue.length; at++)
    for (const other of neighbours(queue[at]!)) {
      if (others.has(other)) continue;
      others.add(other);
      const next = mate(other);
      if (next !== undefined && !own.has(next)) {
        own.add(next);
        queue.push(next);
      }
    }
  return { own, others };
}

/** Strongly connected blocks of the well-determined part (Tarjan 1972), iterative; each block after those it needs. */
function strongBlocks(
  nodes: readonly number[],
  rows: readonly Row[],
  rowOf: ReadonlyMap<number, number>,
  columnOf: ReadonlyMap<number, number>,
): Subproblem[] {
  const inside = new Set(nodes);
  const index = new Map<number, number>();
  const low = new Map<number, number>();
  const onStack = new Set<number>();
  const stack: number[] = [];
  const found: Subproblem[] = [];
  const needs = (r: number): number[] =>
    rows[r]!.columns.map((c) => rowOf.get(c)!).filter((next) => inside.has(next) && next !== r);

  for (const root of nodes) {
    if (index.has(root)) continue;
    const calls: { row: number; rest: number[] }[] = [];
    const open = (row: number) => {
      index.set(row, index.size);
      low.set(row, index.get(row)!);
      stack.push(row);
      onStack.add(row);
      calls.push({ row, rest: needs(row) });
    };
    open(root);
    while (calls.length > 0) {
      const { row, rest } = calls.at(-1)!;
      const next = rest.pop();
      if (next !== undefined) {
        if (!index.has(next)) open(next);
        else if (onStack.has(next)) low.set(row, Math.min(low.get(row)!, index.get(next)!));
        continue;
      }
      calls.pop();
      const caller = calls.at(-1);
      if (caller) low.set(caller.row, Math.min(low.get(caller.row)!, low.get(row)!));
      if (low.get(row) !== index.get(row)) continue;
      const members = stack.splice(stack.indexOf(row));
      members.forEach((member) => onStack.delete(member));
      found.push({ rows: members, columns: members.map((member) => columnOf.get(member)!) });
    }
  }
  return found;
}
