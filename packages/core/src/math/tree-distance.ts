import { inverse, transformPoint, type RigidTransform } from './rigid-transform.ts';
import { awayFromTriangle, goesThrough, nearestOfTriangles, PACKED, type Nearest } from './triangle-distance.ts';
import { BOX, DEPTH, type TriangleTree } from './triangle-tree.ts';
import { distance3, type Vec3 } from './vector.ts';

interface NearestOptions {
  /** What is as near as this, mm, is told at once, though others may be nearer. */
  readonly enough?: number;
  /** Others may be nearer than what is told by this, mm: much less has to be looked at where skins run alongside. */
  readonly rough?: number;
  /** And by this share of it. */
  readonly share?: number;
}

/**
 * Where two skins come nearest, the second where it is moved; undefined where that is `upTo` or more. Places in the space of the
 * first. Pairs of boxes are looked into the nearest first, and not at all where they are further apart than what was
 * found. A skin that lies inside the other without touching it is as far away as their skins are.
 */
export function nearestOfTrees(
  first: TriangleTree,
  moved: MovedTree,
  upTo = Infinity,
  { enough = 0, rough = 0, share = 0 }: NearestOptions = {},
): Nearest | undefined {
  const { tree: second } = moved;
  if (first.isEmpty || second.isEmpty) return undefined;
  const [tried, best] = [new Float64Array(6), new Float64Array(6)];
  let limit = upTo;
  const near = 1 - share;
  /** Is that near enough? */
  const look = (k: number, l: number): boolean => {
    moved.place(l);
    const found = nearestOfTriangles(first.packed, PACKED * k, moved.packed, PACKED * l, limit, tried);
    if (found >= limit) return false;
    best.set(tried);
    limit = found;
    return limit <= enough;
  };
  const waiting = new Waiting();
  waiting.push(0, 0, moved.apart(first, 0, 0));
  while (waiting.pop()) {
    const { i, j } = waiting;
    if (waiting.apart >= limit * near - rough) continue;
    const [own, others] = [first.count[i]!, moved.count[j]!];
    if (own > 0 && others > 0) {
      const [begin, beyond] = [first.first[i]!, moved.first[j]!];
      for (let k = begin; k < begin + own; k++)
        for (let l = beyond; l < beyond + others; l++)
          if (look(first.order[k]!, second.order[l]!)) return nearestAt(limit, best);
      continue;
    }
    // the larger of the two is divided; the nearer pair is looked into first
    const isOwn = own === 0 && (others > 0 || first.sizeOf(i) >= second.sizeOf(j));
    const child = isOwn ? first.first[i]! : moved.first[j]!;
    const [a, b] = isOwn
      ? [moved.apart(first, child, j), moved.apart(first, child + 1, j)]
      : [moved.apart(first, i, child), moved.apart(first, i, child + 1)];
    const isFirstNearer = a <= b;
    for (let k = 0; k < 2; k++) {
      const n = (k === 0) === isFirstNearer ? 1 : 0;
      const apart = n === 0 ? a : b;
      const most = limit * near - rough;
      if (apart >= most) continue;
      // long and slanted triangles fill little of their boxes
      const isLeaf = isOwn ? others > 0 : own > 0;
      const isBeyond =
        isLeaf &&
        most < Infinity &&
        (isOwn ? moved.isBeyond(j, first, child + n, most) : isBeyondOf(first, i, moved, child + n, most));
      if (!isBeyond) waiting.push(isOwn ? child + n : i, isOwn ? j : child + n, apart);
    }
  }
  return limit < upTo ? nearestAt(limit, best) : undefined;
}

/** Are all triangles of a leaf further than so much from the ball round a box? */
function isBeyondOf(leafTree: TriangleTree, leaf: number, moved: MovedTree, node: number, most: number): boolean {
  moved.ballOf(node, BALL);
  const [begin, count] = [leafTree.first[leaf]!, leafTree.count[leaf]!];
  for (let k = begin; k < begin + count; k++)
    if (awayFromTriangle(BALL, leafTree.packed, PACKED * leafTree.order[k]!, FOOT) - BALL[3] < most) return false;
  return true;
}
const BALL: [number, number, number, number] = [0, 0, 0, 0];
const FOOT = new Float64Array(3);

const nearestAt = (distance: number, places: Float64Array): Nearest => ({
  distance,
  a: [places[0]!, places[1]!, places[2]!],
  b: [places[3]!, places[4]!, places[5]!],
});

/**
 * Two places of two skins that are each the nearest to the other, the second moved, begun from a place of the first: skins are
 * nowhere further apart than that, but may be nearer elsewhere.
 */
export function alternatelyNearest(
  first: TriangleTree,
  second: TriangleTree,
  transform: RigidTransform,
  from: Vec3,
): Nearest | undefined {
  const back = inverse(transform);
  let best: Nearest | undefined;
  let a = from;
  for (let k = 0; k < ALTERNATELY; k++) {
    const there = nearestTriangle(second, transformPoint(back, a));
    if (!there) return undefined;
    const b = transformPoint(transform, there.foot);
    a = nearestTriangle(first, b)!.foot;
    best = { distance: distance3(a, b), a, b };
  }
  return best;
}
const ALTERNATELY = 3;

/** Every two triangles whose leaves are so near; the second of them is in its place then. */
function eachNear(
  first: TriangleTree,
  second: TriangleTree,
  transform: RigidTransform,
  within: number,
  each: (k: number, l: number, moved: MovedTree) => void,
): void {
  const moved = new MovedTree(second, transform);
  const waiting = new Waiting();
  waiting.push(0, 0, 0);
  while (waiting.pop()) {
    const { i, j } = waiting;
    if (moved.apart(first, i, j) > within) continue;
    const [own, others] = [first.count[i]!, moved.count[j]!];
    if (own > 0 && others > 0) {
      const [begin, beyond] = [first.first[i]!, moved.first[j]!];
      for (let k = begin; k < begin + own; k++)
        for (let l = beyond; l < beyond + others; l++) {
          moved.place(second.order[l]!);
          each(first.order[k]!, second.order[l]!, moved);
        }
      continue;
    }
    const isOwn = own === 0 && (others > 0 || first.sizeOf(i) >= second.sizeOf(j));
    for (const n of [0, 1]) waiting.push(isOwn ? first.first[i]! + n : i, isOwn ? j : moved.first[j]! + n, 0);
  }
}

/** The triangle of a skin that is nearest to a place, and where on it; undefined of an empty skin. */
export function nearestTriangle(
  tree: TriangleTree,
  place: Vec3,
): { readonly k: number; readonly foot: Vec3 } | undefined {
  if (tree.isEmpty) return undefined;
  const tried = new Float64Array(3);
  let best = -1;
  let foot: Vec3 = place;
  let limit = Infinity;
  const waiting = new Waiting();
  waiting.push(0, 0, 0);
  while (waiting.pop()) {
    const { i: node } = waiting;
    if (waiting.apart >= limit) continue;
    const [count, begin] = [tree.count[node]!, tree.first[node]!];
    for (let k = begin; k < begin + count; k++) {
      const found = awayFromTriangle(place, tree.packed, PACKED * tree.order[k]!, tried);
      if (found >= limit) continue;
      best = tree.order[k]!;
      limit = found;
      foot = [tried[0]!, tried[1]!, tried[2]!];
    }
    if (count > 0) continue;
    const [a, b] = [tree.away(begin, place), tree.away(begin + 1, place)];
    waiting.push(begin + (a <= b ? 1 : 0), 0, Math.max(a, b));
    waiting.push(begin + (a <= b ? 0 : 1), 0, Math.min(a, b));
  }
  return { k: best, foot };
}

/**
 * Does an edge of the one skin go through the other, by more than so much on both sides, the second moved? Skins that only
 * touch do not, as far as they are meshes of the same fineness.
 */
export function skinsCross(first: TriangleTree, second: TriangleTree, transform: RigidTransform, by: number): boolean {
  if (first.isEmpty || second.isEmpty) return false;
  let found = false;
  eachNear(first, second, transform, 0, (k, l, moved) => {
    found ||= goesThrough(first.packed, PACKED * k, moved.packed, PACKED * l, by);
  });
  return found;
}

/** Pairs of nodes that are still to be looked into, the last first. */
class Waiting {
  private readonly nodes = new Uint32Array(8 * DEPTH);
  private readonly distances = new Float64Array(4 * DEPTH);
  private depth = 0;
  /** What was taken out last. */
  i = 0;
  j = 0;
  apart = 0;

  push(i: number, j: number, apart: number): void {
    this.nodes[2 * this.depth] = i;
    this.nodes[2 * this.depth + 1] = j;
    this.distances[this.depth++] = apart;
  }

  pop(): boolean {
    if (this.depth === 0) return false;
    this.depth--;
    this.i = this.nodes[2 * this.depth]!;
    this.j = this.nodes[2 * this.depth + 1]!;
    this.apart = this.distances[this.depth]!;
    return true;
  }
}

/** A tree where it is moved: boxes and triangles are brought there as they are asked for, each once. */
export class MovedTree {
  /** As those of the tree; a triangle is there when it was placed. */
  readonly packed: Float64Array;
  readonly count: Uint32Array;
  readonly first: Uint32Array;
  private readonly boxes: Float64Array;
  private readonly isPlaced: Uint8Array;
  private readonly isBoxed: Uint8Array;

  constructor(
    readonly tree: TriangleTree,
    private readonly transform: RigidTransform,
  ) {
    this.packed = new Float64Array(tree.packed.length);
    this.boxes = new Float64Array(tree.boxes.length);
    this.isPlaced = new Uint8Array(tree.packed.length / PACKED);
    this.isBoxed = new Uint8Array(tree.boxes.length / BOX);
    [this.count, this.first] = [tree.count, tree.first];
  }

  /** Brings a triangle to its place. */
  place(k: number): void {
    if (this.isPlaced[k]) return;
    this.isPlaced[k] = 1;
    const { tree, packed, transform } = this;
    const at = PACKED * k;
    for (let r = 0; r < 3; r++) {
      const [a, b, c, d] = transform[r]!;
      for (let n = 0; n < PACKED; n += 3)
        packed[at + n + r] =
          a * tree.packed[at + n]! + b * tree.packed[at + n + 1]! + c * tree.packed[at + n + 2]! + (n === 0 ? d : 0);
    }
  }

  /** The ball round the box of a node: its middle and its radius. */
  ballOf(node: number, ball: [number, number, number, number]): void {
    if (!this.isBoxed[node]) this.box(node);
    const at = BOX * node;
    ballRound(this.boxes, at, ball);
    // the box of the tree itself is the tighter one
    const own = this.tree.boxes;
    ball[3] = Math.hypot(own[at + 3]! - own[at]!, own[at + 4]! - own[at + 1]!, own[at + 5]! - own[at + 2]!) / 2;
  }

  /** Are all triangles of a leaf further than so much from the ball round a box of another tree? */
  isBeyond(leaf: number, other: TriangleTree, node: number, most: number): boolean {
    ballRound(other.boxes, BOX * node, BALL);
    const { first, count, tree } = this;
    for (let k = first[leaf]!; k < first[leaf]! + count[leaf]!; k++) {
      this.place(tree.order[k]!);
      if (awayFromTriangle(BALL, this.packed, PACKED * tree.order[k]!, FOOT) - BALL[3] < most) return false;
    }
    return true;
  }

  /** How far the box of a node of another tree is from that of a node of this. */
  apart(other: TriangleTree, i: number, j: number): number {
    if (!this.isBoxed[j]) this.box(j);
    const [a, b] = [other.boxes, this.boxes];
    const [m, n] = [BOX * i, BOX * j];
    const x = Math.max(0, a[m]! - b[n + 3]!, b[n]! - a[m + 3]!);
    const y = Math.max(0, a[m + 1]! - b[n + 4]!, b[n + 1]! - a[m + 4]!);
    const z = Math.max(0, a[m + 2]! - b[n + 5]!, b[n + 2]! - a[m + 5]!);
    return Math.sqrt(x * x + y * y + z * z);
  }

  private box(node: number): void {
    this.isBoxed[node] = 1;
    const { boxes, transform } = this;
    const own = this.tree.boxes;
    const at = BOX * node;
    for (let r = 0; r < 3; r++) {
      const row = transform[r]!;
      let [middle, half] = [row[3], 0];
      for (let c = 0; c < 3; c++) {
        const [low, high] = [own[at + c]!, own[at + 3 + c]!];
        middle += (row[c]! * (low + high)) / 2;
        half += (Math.abs(row[c]!) * (high - low)) / 2;
      }
      boxes[at + r] = middle - half;
      boxes[at + 3 + r] = middle + half;
    }
  }
}

/** The ball round a box. */
function ballRound(boxes: Float64Array, at: number, ball: [number, number, number, number]): void {
  let square = 0;
  for (let axis = 0; axis < 3; axis++) {
    const low = boxes[at + axis]!;
    const high = boxes[at + 3 + axis]!;
    ball[axis] = (low + high) / 2;
    square += (high - low) ** 2;
  }
  ball[3] = Math.sqrt(square) / 2;
}
