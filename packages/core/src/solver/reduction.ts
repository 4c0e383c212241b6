import { GROUND, type Problem, type Substitution } from './problem.ts';

/** Of what flows through a link the share of the largest that is rounding. */
const NOTHING = 1e-6;

/** A loop of substitutions: harmless if it closes (`gap` 0), a clash if it does not. */
export interface Loop {
  readonly owners: readonly string[];
  /** By how much the loop fails to close, mm. */
  readonly gap: number;
}

/**
 * The unknowns after all linear substitutions are eliminated by a union-find with offsets:
 * x[i] = (column[i] < 0 ? 0 : y[column[i]]) + offset[i].
 */
export interface Reduction {
  readonly columns: number;
  readonly column: Int32Array;
  readonly offset: Float64Array;
  readonly start: Float64Array;
  /** Sum of the weights of the unknowns behind each column. */
  readonly weight: Float64Array;
  readonly loops: readonly Loop[];
  /**
   * Owners of the substitutions that carry a gradient over the unknowns, which vanishes in the reduced ones: what has to
   * be added to it so that it vanishes by itself.
   */
  carriersOf(gradient: Float64Array): string[];
}

/** The problem without the unknowns that substitutions make equal to others. */
export function reduce(problem: Problem): Reduction {
  const forest = new Forest(problem.initial.length);
  const loops = problem.substitutions.flatMap((substitution) => forest.join(substitution) ?? []);
  const n = problem.initial.length;
  const column = new Int32Array(n);
  const offset = new Float64Array(n);
  const columnOfRoot = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    const { root, distance } = forest.find(i);
    // relative to the ground node, whose own value is 0
    offset[i] = distance;
    if (root === forest.ground) {
      column[i] = -1;
      continue;
    }
    let at = columnOfRoot.get(root);
    if (at === undefined) columnOfRoot.set(root, (at = columnOfRoot.size));
    column[i] = at;
  }
  const structure = {
    columns: columnOfRoot.size,
    column,
    offset,
    loops,
    carriersOf: (gradient: Float64Array) => forest.carriersOf(gradient),
  };
  return { ...structure, ...startOf(structure, problem.initial, problem.weights) };
}

/** Where the columns start: the weighted mean of the places that the unknowns behind them ask for. */
export function startOf(
  { columns, column, offset }: Pick<Reduction, 'columns' | 'column' | 'offset'>,
  initial: Float64Array,
  weights: Float64Array | undefined,
): Pick<Reduction, 'start' | 'weight'> {
  const start = new Float64Array(columns);
  const weight = new Float64Array(columns);
  column.forEach((at, i) => {
    if (at < 0) return;
    const own = weights?.[i] ?? 1;
    start[at]! += own * (initial[i]! - offset[i]!);
    weight[at]! += own;
  });
  for (let at = 0; at < columns; at++) start[at]! /= weight[at]!;
  return { start, weight };
}

/** Writes the full unknowns for the reduced ones. */
export function expand(reduction: Reduction, y: Float64Array): Float64Array {
  const { column, offset } = reduction;
  return Float64Array.from(column, (at, i) => (at < 0 ? 0 : y[at]!) + offset[i]!);
}

/** Union-find with the distance to the parent, and the tree of substitutions for the explanation of loops. */
class Forest {
  readonly ground: number;
  private readonly parent: Int32Array;
  private readonly distance: Float64Array;
  private readonly edges = new Map<number, { to: number; owner: string }[]>();

  constructor(n: number) {
    this.ground = n;
    this.parent = Int32Array.from({ length: n + 1 }, (_, i) => i);
    this.distance = new Float64Array(n + 1);
  }

  /** The root of i and x[i] - x[root]; shortens the path on the way. */
  find(i: number): { root: number; distance: number } {
    const path: number[] = [];
    let root = i;
    while (this.parent[root] !== root) {
      path.push(root);
      root = this.parent[root]!;
    }
    let distance = 0;
    for (const node of path.reverse()) {
      distance += this.distance[node]!;
      this.distance[node] = distance;
      this.parent[node] = root;
    }
    return { root, distance };
  }

  /** Joins two unknowns; returns the loop if they were joined already. */
  join({ owner, a, b: partner, offset }: Substitution): Loop | undefined {
    const b = partner === GROUND ? this.ground : partner;
    const fromA = this.find(a);
    const fromB = this.find(b);
    if (fromA.root === fromB.root) {
      const gap = Math.abs(fromA.distance - fromB.distance - offset);
      return { owners: [...new Set([...this.path(a, b), owner])], gap };
    }
    this.link(a, b, owner);
    const ground = fromA.root === this.ground;
    const [child, root] = ground ? [fromB.root, fromA.root] : [fromA.root, fromB.root];
    const distance = offset + fromB.distance - fromA.distance;
    this.parent[child] = root;
    this.distance[child] = ground ? -distance : distance;
    return undefined;
  }

  private link(a: number, b: number, owner: string) {
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const list = this.edges.get(from);
      if (list) list.push({ to, owner });
      else this.edges.set(from, [{ to, owner }]);
    }
  }

  /** Each tree of substitutions drained from its leaves to its root: links through which something flows. */
  carriersOf(gradient: Float64Array): string[] {
    const most = gradient.reduce((largest, entry) => Math.max(largest, Math.abs(entry)), 0);
    const owners = new Set<string>();
    const seen = new Set<number>();
    // the ground first: what is held needs no further carrier
    for (const root of [this.ground, ...this.edges.keys()]) {
      if (seen.has(root)) continue;
      const visits: { node: number; from: number; owner: string }[] = [{ node: root, from: -1, owner: '' }];
      seen.add(root);
      for (const { node } of visits)
        for (const { to, owner } of this.edges.get(node) ?? []) {
          if (seen.has(to)) continue;
          seen.add(to);
          visits.push({ node: to, from: node, owner });
        }
      const flow = new Map<number, number>();
      for (const { node, from, owner } of visits.reverse()) {
        const amount = (flow.get(node) ?? 0) + (node === this.ground ? 0 : gradient[node]!);
        if (from < 0) continue;
        flow.set(from, (flow.get(from) ?? 0) + amount);
        if (Math.abs(amount) > NOTHING * most) owners.add(owner);
      }
    }
    return [...owners];
  }

  /** Owners of the substitutions on the way from a to b. */
  private path(a: number, b: number): string[] {
    const cameFrom = new Map<number, { from: number; owner: string } | undefined>([[a, undefined]]);
    const queue = [a];
    for (let at = queue.shift(); at !== undefined && at !== b; at = queue.shift())
      for (const edge of this.edges.get(at) ?? [])
        if (!cameFrom.has(edge.to)) {
          cameFrom.set(edge.to, { from: at, owner: edge.owner });
          queue.push(edge.to);
        }
    const owners: string[] = [];
    for (let step = cameFrom.get(b); step; step = cameFrom.get(step.from)) owners.push(step.owner);
    return owners.reverse();
  }
}
