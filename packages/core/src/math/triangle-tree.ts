import { PACKED } from './triangle-distance.ts';
import { dot3, type Vec3 } from './vector.ts';

/** Triangles in a leaf. */
const LEAF = 4;
/** Low and high corners of a box. */
export const BOX = 6;
/** Places at which a box may be divided along each side. */
const BINS = 8;
/** Levels of the tree at most. */
export const DEPTH = 40;
/** Boxes are larger by this share of the whole: a ray along a side of one is not lost by rounding. */
const PAD = 1e-9;
/** A ray through the edge of two triangles meets one of them, whatever rounding says. */
const EDGE = 1e-9;

/** No face of a part is likely to lie along it. */
const ASKEW: Vec3 = [0.5387, 0.2653, 0.7996];

interface Hit {
  readonly distance: number;
  /** Which triangle, by its place in the list. */
  readonly triangle: number;
}

/**
 * Triangles in a tree of boxes: finds what a ray meets first without looking at all of them. Boxes are divided where rays
 * are expected to have least to do (the surface area heuristic: MacDonald, Booth 1990, in bins: Wald 2007).
 */
export class TriangleTree {
  /** Triangles in the order of the leaves. */
  readonly order: Uint32Array;
  /** The triangles: of each a corner and the two edges from it. */
  readonly packed: Float64Array;
  /** Of each node the box round it; that of 0 holds all. */
  readonly boxes: Float64Array;
  /** Of each node the first of its two children, which lie side by side; of a leaf its first triangle in the order. */
  readonly first: Uint32Array;
  /** Of a leaf how many triangles it has; 0 of other nodes. */
  readonly count: Uint32Array;
  private nodes = 1;
  private readonly pad: number;
  /** Two boxes, for trying where to divide. */
  private readonly parts = new Float64Array(2 * BOX);
  /** Nodes that are still to be looked into, and how far away they are. */
  private readonly waiting = new Uint32Array(2 * DEPTH);
  private readonly distances = new Float64Array(2 * DEPTH);

  /**
   * @param positions x, y, z of each corner
   * @param triangles three corners each, counter-clockwise seen from outside
   */
  constructor(positions: Float32Array, triangles: Uint32Array) {
    const count = triangles.length / 3;
    this.order = Uint32Array.from({ length: count }, (_, k) => k);
    this.packed = new Float64Array(PACKED * count);
    for (let k = 0; k < count; k++)
      for (let axis = 0; axis < 3; axis++) {
        const [a, b, c] = [0, 1, 2].map((n) => positions[3 * triangles[3 * k + n]! + axis]!) as [
          number,
          number,
          number,
        ];
        this.packed[PACKED * k + axis] = a;
        this.packed[PACKED * k + 3 + axis] = b - a;
        this.packed[PACKED * k + 6 + axis] = c - a;
      }
    this.boxes = new Float64Array(BOX * 2 * Math.max(1, count));
    this.first = new Uint32Array(2 * Math.max(1, count));
    this.count = new Uint32Array(2 * Math.max(1, count));
    this.pad = PAD * positions.reduce((most, c) => Math.max(most, Math.abs(c)), 0);
    if (count > 0) this.build(0, 0, count, 0);
  }

  /**
   * What a ray meets first, from either side; undefined if nothing. The nearer box of two is looked into first. Written
   * without small arrays, as `entry` and `meets` are: it is called for every place of a skin.
   */
  firstHit(from: Vec3, along: Vec3): Hit | undefined {
    const { waiting, distances, first, count, order } = this;
    let depth = 0;
    let nearest = Infinity;
    let found = -1;
    if (order.length > 0) {
      waiting[0] = 0;
      distances[depth++] = this.entry(0, from, along);
    }
    while (depth > 0) {
      const node = waiting[--depth]!;
      if (distances[depth]! >= nearest) continue;
      const begin = first[node]!;
      if (count[node]! > 0) {
        for (let k = begin; k < begin + count[node]!; k++) {
          const distance = this.meets(order[k]!, from, along);
          if (distance >= nearest) continue;
          nearest = distance;
          found = order[k]!;
        }
        continue;
      }
      const a = this.entry(begin, from, along);
      const b = this.entry(begin + 1, from, along);
      const far = a <= b ? 1 : 0;
      if (Math.max(a, b) < nearest) {
        waiting[depth] = begin + far;
        distances[depth++] = Math.max(a, b);
      }
      waiting[depth] = begin + 1 - far;
      distances[depth++] = Math.min(a, b);
    }
    return found < 0 ? undefined : { distance: nearest, triangle: found };
  }

  /** Does a place lie inside, where the skin is closed? What a ray from it meets first looks the same way as the ray. */
  encloses(at: Vec3): boolean {
    const hit = this.firstHit(at, ASKEW);
    return hit !== undefined && dot3(this.normal(hit.triangle), ASKEW) > 0;
  }

  get isEmpty(): boolean {
    return this.order.length === 0;
  }

  /** The box of a node; that of 0 holds all. */
  box(node: number): { readonly low: Vec3; readonly high: Vec3 } {
    const b = this.boxes;
    const at = BOX * node;
    return { low: [b[at]!, b[at + 1]!, b[at + 2]!], high: [b[at + 3]!, b[at + 4]!, b[at + 5]!] };
  }

  /** The longest side of the box of a node. */
  sizeOf(node: number): number {
    const b = this.boxes;
    const at = BOX * node;
    return Math.max(b[at + 3]! - b[at]!, b[at + 4]! - b[at + 1]!, b[at + 5]! - b[at + 2]!);
  }

  /** How far a place is from the box of a node; 0 inside. */
  away(node: number, place: Vec3): number {
    const b = this.boxes;
    const at = BOX * node;
    const x = Math.max(0, b[at]! - place[0], place[0] - b[at + 3]!);
    const y = Math.max(0, b[at + 1]! - place[1], place[1] - b[at + 4]!);
    const z = Math.max(0, b[at + 2]! - place[2], place[2] - b[at + 5]!);
    return Math.sqrt(x * x + y * y + z * z);
  }

  /** The three corners of a triangle. */
  triangle(triangle: number): readonly [Vec3, Vec3, Vec3] {
    const c = this.packed;
    const at = PACKED * triangle;
    const [x, y, z] = [c[at]!, c[at + 1]!, c[at + 2]!];
    return [
      [x, y, z],
      [x + c[at + 3]!, y + c[at + 4]!, z + c[at + 5]!],
      [x + c[at + 6]!, y + c[at + 7]!, z + c[at + 8]!],
    ];
  }

  /** The outward normal of a triangle, as long as twice its area. */
  normal(triangle: number): Vec3 {
    const at = PACKED * triangle;
    const [ux, uy, uz, vx, vy, vz] = this.packed.subarray(at + 3, at + PACKED) as unknown as readonly [
      ...Vec3,
      ...Vec3,
    ];
    return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  }

  private build(node: number, low: number, high: number, depth: number): void {
    this.boxes.set(this.boxOf(low, high), BOX * node);
    const middle = high - low > LEAF && depth < DEPTH ? this.divided(low, high) : low;
    if (middle === low || middle === high) {
      this.first[node] = low;
      this.count[node] = high - low;
      return;
    }
    const children = this.nodes;
    this.nodes += 2;
    this.first[node] = children;
    this.build(children, low, middle, depth + 1);
    this.build(children + 1, middle, high, depth + 1);
  }

  private boxOf(low: number, high: number): Float64Array {
    const { packed, order, pad } = this;
    const box = new Float64Array(BOX).fill(Infinity, 0, 3).fill(-Infinity, 3);
    for (let k = low; k < high; k++)
      for (let axis = 0; axis < 3; axis++) {
        const at = PACKED * order[k]! + axis;
        const a = packed[at]!;
        const b = a + packed[at + 3]!;
        const c = a + packed[at + 6]!;
        box[axis] = Math.min(box[axis]!, a - pad, b - pad, c - pad);
        box[3 + axis] = Math.max(box[3 + axis]!, a + pad, b + pad, c + pad);
      }
    return box;
  }

  private middleOf(triangle: number, axis: number): number {
    const at = PACKED * triangle + axis;
    return this.packed[at]! + (this.packed[at + 3]! + this.packed[at + 6]!) / 3;
  }

  /** Sorts a stretch of the order in two and tells where the second begins; at an end where it is better left whole. */
  private divided(low: number, high: number): number {
    let best = { cost: (high - low) * areaOf(this.boxOf(low, high)), axis: -1, limit: 0 };
    for (let axis = 0; axis < 3; axis++) {
      const middles = Array.from(this.order.subarray(low, high), (triangle) => this.middleOf(triangle, axis));
      const least = middles.reduce((a, b) => Math.min(a, b), Infinity);
      const most = middles.reduce((a, b) => Math.max(a, b), -Infinity);
      if (most - least <= 2 * this.pad) continue;
      for (let bin = 1; bin < BINS; bin++) {
        const limit = least + ((most - least) * bin) / BINS;
        const cost = this.costOf(low, high, axis, limit);
        if (cost < best.cost) best = { cost, axis, limit };
      }
    }
    if (best.axis < 0) return low;
    const stretch = Array.from(this.order.subarray(low, high));
    const before = stretch.filter((triangle) => this.middleOf(triangle, best.axis) < best.limit);
    const after = stretch.filter((triangle) => this.middleOf(triangle, best.axis) >= best.limit);
    this.order.set([...before, ...after], low);
    return low + before.length;
  }

  /** How much a ray has to look at in both parts, by their areas. */
  private costOf(low: number, high: number, axis: number, limit: number): number {
    const { packed, order, parts } = this;
    parts.fill(Infinity, 0, 3).fill(-Infinity, 3, 6).fill(Infinity, 6, 9).fill(-Infinity, 9, 12);
    let before = 0;
    for (let k = low; k < high; k++) {
      const triangle = order[k]!;
      const part = this.middleOf(triangle, axis) < limit ? 0 : BOX;
      if (part === 0) before++;
      for (let n = 0; n < 3; n++) {
        const at = PACKED * triangle + n;
        const a = packed[at]!;
        const b = a + packed[at + 3]!;
        const c = a + packed[at + 6]!;
        parts[part + n] = Math.min(parts[part + n]!, a, b, c);
        parts[part + 3 + n] = Math.max(parts[part + 3 + n]!, a, b, c);
      }
    }
    if (before === 0 || before === high - low) return Infinity;
    return before * areaOf(parts.subarray(0, BOX)) + (high - low - before) * areaOf(parts.subarray(BOX));
  }

  /** How far it is to a box; Infinity where the ray passes it. */
  private entry(node: number, from: Vec3, along: Vec3): number {
    const at = BOX * node;
    let near = 0;
    let far = Infinity;
    for (let axis = 0; axis < 3; axis++) {
      const low = this.boxes[at + axis]! - from[axis]!;
      const high = this.boxes[at + 3 + axis]! - from[axis]!;
      const speed = along[axis]!;
      if (speed === 0) {
        if (low > 0 || high < 0) return Infinity;
        continue;
      }
      near = Math.max(near, (speed > 0 ? low : high) / speed);
      far = Math.min(far, (speed > 0 ? high : low) / speed);
    }
    return near <= far ? near : Infinity;
  }

  /** How far it is to a triangle; Infinity where the ray passes it (Moeller, Trumbore 1997). */
  private meets(triangle: number, from: Vec3, along: Vec3): number {
    const c = this.packed;
    const at = PACKED * triangle;
    const ux = c[at + 3]!;
    const uy = c[at + 4]!;
    const uz = c[at + 5]!;
    const vx = c[at + 6]!;
    const vy = c[at + 7]!;
    const vz = c[at + 8]!;
    const px = along[1] * vz - along[2] * vy;
    const py = along[2] * vx - along[0] * vz;
    const pz = along[0] * vy - along[1] * vx;
    const volume = ux * px + uy * py + uz * pz;
    if (volume === 0) return Infinity;
    const x = from[0] - c[at]!;
    const y = from[1] - c[at + 1]!;
    const z = from[2] - c[at + 2]!;
    const s = (x * px + y * py + z * pz) / volume;
    if (s < -EDGE || s > 1 + EDGE) return Infinity;
    const qx = y * uz - z * uy;
    const qy = z * ux - x * uz;
    const qz = x * uy - y * ux;
    const t = (along[0] * qx + along[1] * qy + along[2] * qz) / volume;
    if (t < -EDGE || s + t > 1 + EDGE) return Infinity;
    const distance = (vx * qx + vy * qy + vz * qz) / volume;
    return distance > 0 ? distance : Infinity;
  }
}

/** Half the surface of a box. */
function areaOf(box: Float64Array): number {
  const x = box[3]! - box[0]!;
  const y = box[4]! - box[1]!;
  const z = box[5]! - box[2]!;
  return x * y + y * z + z * x;
}
