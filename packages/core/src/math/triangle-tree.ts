import { cross3, dot3, sub3, type Vec3 } from './vector.ts';

/** Triangles in a leaf. */
const LEAF = 4;
/** Low and high corners of a box, three numbers each. */
const BOX = 6;

export interface Hit {
  readonly distance: number;
  /** Which triangle, by its place in the list. */
  readonly triangle: number;
}

/**
 * Triangles in a tree of boxes, halved at the median along their longest side (Kay, Kajiya 1986): finds what a ray meets
 * first without looking at all of them.
 */
export class TriangleTree {
  /** Triangles in the order of the leaves. */
  private readonly order: Uint32Array;
  private readonly boxes: Float64Array;
  private readonly middles: Float64Array;

  /**
   * @param positions x, y, z of each corner
   * @param triangles three corners each, counter-clockwise seen from outside
   */
  constructor(
    private readonly positions: Float32Array,
    private readonly triangles: Uint32Array,
  ) {
    const count = triangles.length / 3;
    this.order = Uint32Array.from({ length: count }, (_, k) => k);
    this.middles = Float64Array.from({ length: 3 * count }, (_, n) => this.middle(Math.floor(n / 3), n % 3));
    // a heap: the children of node k are 2k + 1 and 2k + 2
    this.boxes = new Float64Array(BOX * 2 ** (1 + Math.ceil(Math.log2(Math.max(1, count / LEAF))) + 1));
    if (count > 0) this.build(0, 0, count);
  }

  /** What a ray meets first, from either side; undefined if nothing. */
  firstHit(from: Vec3, along: Vec3): Hit | undefined {
    const inverse: Vec3 = [1 / along[0], 1 / along[1], 1 / along[2]];
    let best: Hit | undefined;
    const visit = (node: number, low: number, high: number): void => {
      if (this.entry(node, from, inverse) >= (best?.distance ?? Infinity)) return;
      if (high - low <= LEAF) {
        for (let k = low; k < high; k++) {
          const triangle = this.order[k]!;
          const distance = this.meets(triangle, from, along);
          if (distance < (best?.distance ?? Infinity)) best = { distance, triangle };
        }
        return;
      }
      const middle = (low + high) >> 1;
      const [first, second] = [2 * node + 1, 2 * node + 2];
      // the nearer child first: it may spare the other one
      if (this.entry(first, from, inverse) <= this.entry(second, from, inverse)) {
        visit(first, low, middle);
        visit(second, middle, high);
      } else {
        visit(second, middle, high);
        visit(first, low, middle);
      }
    };
    if (this.order.length > 0) visit(0, 0, this.order.length);
    return best;
  }

  /** The outward normal of a triangle, as long as twice its area. */
  normal(triangle: number): Vec3 {
    const [a, b, c] = [0, 1, 2].map((n) => this.corner(triangle, n)) as [Vec3, Vec3, Vec3];
    return cross3(sub3(b, a), sub3(c, a));
  }

  private build(node: number, low: number, high: number): void {
    const box = this.boxes.subarray(BOX * node, BOX * (node + 1));
    box.fill(Infinity, 0, 3).fill(-Infinity, 3);
    for (let k = low; k < high; k++)
      for (let n = 0; n < 3; n++) {
        const corner = this.corner(this.order[k]!, n);
        for (let axis = 0; axis < 3; axis++) {
          box[axis] = Math.min(box[axis]!, corner[axis]!);
          box[3 + axis] = Math.max(box[3 + axis]!, corner[axis]!);
        }
      }
    if (high - low <= LEAF) return;
    const sizes = [0, 1, 2].map((axis) => box[3 + axis]! - box[axis]!);
    const axis = sizes.indexOf(Math.max(...sizes));
    const middle = (low + high) >> 1;
    const sorted = this.order.subarray(low, high);
    sorted.sort((a, b) => this.middles[3 * a + axis]! - this.middles[3 * b + axis]!);
    this.build(2 * node + 1, low, middle);
    this.build(2 * node + 2, middle, high);
  }

  private corner(triangle: number, n: number): Vec3 {
    const at = 3 * this.triangles[3 * triangle + n]!;
    return [this.positions[at]!, this.positions[at + 1]!, this.positions[at + 2]!];
  }

  private middle(triangle: number, axis: number): number {
    return [0, 1, 2].reduce((sum, n) => sum + this.corner(triangle, n)[axis]! / 3, 0);
  }

  /** How far it is to a box; Infinity where the ray passes it. */
  private entry(node: number, from: Vec3, inverse: Vec3): number {
    let [near, far] = [0, Infinity];
    for (let axis = 0; axis < 3; axis++) {
      const a = (this.boxes[BOX * node + axis]! - from[axis]!) * inverse[axis]!;
      const b = (this.boxes[BOX * node + 3 + axis]! - from[axis]!) * inverse[axis]!;
      // 0 times Infinity: along a side of the box, which counts as within
      if (Number.isNaN(a) || Number.isNaN(b)) continue;
      near = Math.max(near, Math.min(a, b));
      far = Math.min(far, Math.max(a, b));
    }
    return near <= far ? near : Infinity;
  }

  /** How far it is to a triangle; Infinity where the ray passes it (Moeller, Trumbore 1997). */
  private meets(triangle: number, from: Vec3, along: Vec3): number {
    const a = this.corner(triangle, 0);
    const [u, v] = [sub3(this.corner(triangle, 1), a), sub3(this.corner(triangle, 2), a)];
    const p = cross3(along, v);
    const volume = dot3(u, p);
    if (volume === 0) return Infinity;
    const out = sub3(from, a);
    const q = cross3(out, u);
    const [s, t, distance] = [dot3(out, p) / volume, dot3(along, q) / volume, dot3(v, q) / volume];
    const within = s >= -EDGE && t >= -EDGE && s + t <= 1 + EDGE;
    return within && distance > 0 ? distance : Infinity;
  }
}
/** A ray through the edge of two triangles meets one of them, whatever rounding says. */
const EDGE = 1e-9;
