import type { Vec3 } from '../math/index.ts';
import { squareOn } from './shell.ts';

/** A stretch of a segment, as shares of it. */
export type Interval = readonly [from: number, to: number];

/** Numbers kept of a triangle: three half planes (x, y, 1), its plane (x, y, 1 -> height), its greatest height. */
const KEPT = 13;
/** Triangles as steep as this cover next to nothing, and their heights can not be told from single precision. */
const STEEP = 2e-3;

/**
 * What hides: the triangles that are turned to an eye far above, in a grid over its plane. Each triangle hides just that
 * stretch of a segment that lies within it and beneath it; no samples are taken (as Appel 1967, over triangles).
 */
export class OccluderGrid {
  private readonly kept: Float64Array;
  private readonly starts: Uint32Array;
  private readonly entries: Uint32Array;
  private readonly stamps: Uint32Array;
  private stamp = 0;
  private readonly columns: number;
  private readonly rows: number;
  private readonly cell: number;
  private readonly low: readonly [number, number];
  /** Beneath by less than this, mm, a segment lies on a triangle. */
  private readonly beneath: number;
  private readonly count: number;

  /** @param points x, y, z of each; z to the eye. @param triangles three points each, all that there are */
  constructor(points: Float64Array, triangles: Uint32Array, size: number) {
    this.beneath = 1e-4 * size;
    const within = 1e-7 * size;
    this.kept = new Float64Array((triangles.length / 3) * KEPT);
    const corners = new Float64Array((triangles.length / 3) * 6);
    let count = 0;
    const [lowest, highest] = [
      [Infinity, Infinity],
      [-Infinity, -Infinity],
    ] as [[number, number], [number, number]];
    for (let k = 0; k < triangles.length; k += 3) {
      if (!this.keep(points, triangles, k, count, within)) continue;
      for (let i = 0; i < 3; i++)
        for (const axis of [0, 1] as const) {
          const c = points[3 * triangles[k + i]! + axis]!;
          corners[6 * count + 2 * i + axis] = c;
          lowest[axis] = Math.min(lowest[axis], c);
          highest[axis] = Math.max(highest[axis], c);
        }
      count++;
    }
    this.count = count;
    this.low = count > 0 ? lowest : [0, 0];
    const [width, height] = count > 0 ? [highest[0] - lowest[0], highest[1] - lowest[1]] : [1, 1];
    this.cell = Math.max(Math.sqrt((width * height) / Math.max(count, 1)) * 1.5, Math.max(width, height) / 500, 1e-9);
    this.columns = Math.floor(width / this.cell) + 1;
    this.rows = Math.floor(height / this.cell) + 1;
    [this.starts, this.entries] = this.grid(corners, count);
    this.stamps = new Uint32Array(count);
  }

  /** The stretches of a segment that something hides, in no order; they may overlap. */
  hidden(a: Vec3, b: Vec3): Interval[] {
    const found: Interval[] = [];
    if (this.count === 0) return found;
    this.stamp++;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const lowest = Math.min(a[2], b[2]) + this.beneath;
    const [fromRow, toRow] = [this.row(Math.min(a[1], b[1])), this.row(Math.max(a[1], b[1]))];
    for (let row = fromRow; row <= toRow; row++) {
      const [y0, y1] = [this.low[1] + row * this.cell, this.low[1] + (row + 1) * this.cell];
      let [p, q] = [0, 1];
      if (Math.abs(dy) > 1e-12) {
        const [s, t] = [(y0 - a[1]) / dy, (y1 - a[1]) / dy];
        p = Math.max(0, Math.min(s, t));
        q = Math.min(1, Math.max(s, t));
      }
      const [x0, x1] = [a[0] + p * dx, a[0] + q * dx];
      const [first, last] = [this.column(Math.min(x0, x1) - 1e-9), this.column(Math.max(x0, x1) + 1e-9)];
      for (let cell = row * this.columns + first; cell <= row * this.columns + last; cell++)
        for (let k = this.starts[cell]!; k < this.starts[cell + 1]!; k++) {
          const triangle = this.entries[k]!;
          if (this.stamps[triangle] === this.stamp) continue;
          this.stamps[triangle] = this.stamp;
          if (this.kept[triangle * KEPT + 12]! <= lowest) continue;
          const stretch = this.behind(triangle * KEPT, a, b);
          if (!stretch) continue;
          if (stretch[0] === 0 && stretch[1] === 1) return [stretch];
          found.push(stretch);
        }
    }
    return found;
  }

  private behind(k: number, a: Vec3, b: Vec3): Interval | undefined {
    const { kept } = this;
    let from = 0;
    let to = 1;
    for (let i = 0; i < 4; i++) {
      const n = k + 3 * i;
      let p = kept[n]! * a[0] + kept[n + 1]! * a[1] + kept[n + 2]!;
      let q = kept[n]! * b[0] + kept[n + 1]! * b[1] + kept[n + 2]!;
      if (i === 3) {
        // the fourth is the plane: its height over that of the segment
        p -= a[2] + this.beneath;
        q -= b[2] + this.beneath;
      }
      if (p < 0 && q < 0) return undefined;
      if (p < 0) from = Math.max(from, p / (p - q));
      else if (q < 0) to = Math.min(to, p / (p - q));
      if (from >= to) return undefined;
    }
    return [from, to];
  }

  /** Keeps what `behind` needs of a triangle; false where it is turned away or seen edge-on. */
  private keep(points: Float64Array, triangles: Uint32Array, k: number, at: number, within: number): boolean {
    const [nx, ny, nz] = squareOn(points, triangles, k);
    if (nz <= STEEP * Math.hypot(nx, ny, nz) || nz < 1e-12) return false;
    const corners = [3 * triangles[k]!, 3 * triangles[k + 1]!, 3 * triangles[k + 2]!] as const;
    const [x, y, z] = [points[corners[0]]!, points[corners[0] + 1]!, points[corners[0] + 2]!];
    const { kept } = this;
    const n = at * KEPT;
    for (let i = 0; i < 3; i++) {
      const [from, to] = [corners[i]!, corners[(i + 1) % 3]!];
      const [ex, ey] = [points[to]! - points[from]!, points[to + 1]! - points[from + 1]!];
      const length = Math.hypot(ex, ey);
      const [a, b] = [-ey / length, ex / length];
      kept[n + 3 * i] = a;
      kept[n + 3 * i + 1] = b;
      kept[n + 3 * i + 2] = within - a * points[from]! - b * points[from + 1]!;
    }
    kept[n + 9] = -nx / nz;
    kept[n + 10] = -ny / nz;
    kept[n + 11] = z + (nx * x + ny * y) / nz;
    kept[n + 12] = Math.max(...corners.map((corner) => points[corner + 2]!));
    return true;
  }

  private readonly row = (y: number): number =>
    Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.low[1]) / this.cell)));
  private readonly column = (x: number): number =>
    Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.low[0]) / this.cell)));

  /** Which triangles lie in which cell: where the entries of each cell begin, and the entries. */
  private grid(corners: Float64Array, count: number): [starts: Uint32Array, entries: Uint32Array] {
    // stretches of cells side by side: a triangle, its first cell, its last
    const stretches: number[] = [];
    const across = (k: number, row: number, from: number, to: number) => {
      const begin = row * this.columns;
      stretches.push(k, begin + this.column(from - EDGE * this.cell), begin + this.column(to + EDGE * this.cell));
    };
    for (let k = 0; k < count; k++) {
      const c = 6 * k;
      const low = Math.min(corners[c + 1]!, corners[c + 3]!, corners[c + 5]!);
      const high = Math.max(corners[c + 1]!, corners[c + 3]!, corners[c + 5]!);
      const [first, last] = [this.row(low), this.row(high)];
      if (first === last) {
        // most lie in one row: in all cells between their sides
        const left = Math.min(corners[c]!, corners[c + 2]!, corners[c + 4]!);
        across(k, first, left, Math.max(corners[c]!, corners[c + 2]!, corners[c + 4]!));
      } else
        for (let row = first; row <= last; row++) {
          const y = this.low[1] + row * this.cell;
          const [from, to] = spanOf(corners, c, y - EDGE * this.cell, y + (1 + EDGE) * this.cell);
          across(k, row, from, to);
        }
    }
    const starts = new Uint32Array(this.columns * this.rows + 1);
    for (let i = 0; i < stretches.length; i += 3)
      for (let cell = stretches[i + 1]!; cell <= stretches[i + 2]!; cell++) starts[cell + 1]!++;
    for (let k = 1; k < starts.length; k++) starts[k]! += starts[k - 1]!;
    const next = starts.slice();
    const entries = new Uint32Array(starts.at(-1)!);
    for (let i = 0; i < stretches.length; i += 3)
      for (let cell = stretches[i + 1]!; cell <= stretches[i + 2]!; cell++) entries[next[cell]!++] = stretches[i]!;
    return [starts, entries];
  }
}
/** What lies so near to a cell, as a share of it, lies in it. */
const EDGE = 1e-3;

/** From where to where a triangle reaches between two heights; slim ones that lean lie in few cells of their boxes. */
function spanOf(corners: Float64Array, c: number, y0: number, y1: number): [from: number, to: number] {
  let from = Infinity;
  let to = -Infinity;
  for (let i = 0; i < 3; i++) {
    const j = (i + 1) % 3;
    const x = corners[c + 2 * i]!;
    const y = corners[c + 2 * i + 1]!;
    const dx = corners[c + 2 * j]! - x;
    const dy = corners[c + 2 * j + 1]! - y;
    let s = 0;
    let t = 1;
    if (Math.abs(dy) > 1e-12) {
      const a = (y0 - y) / dy;
      const b = (y1 - y) / dy;
      s = Math.max(0, Math.min(a, b));
      t = Math.min(1, Math.max(a, b));
    }
    if (s > t || (dy === 0 && (y < y0 || y > y1))) continue;
    from = Math.min(from, x + s * dx, x + t * dx);
    to = Math.max(to, x + s * dx, x + t * dx);
  }
  return [from, to];
}
