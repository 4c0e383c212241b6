import { TripleTable, type Vec3 } from '../math/index.ts';
import type { BodyMesh } from '../kernel-port/index.ts';
import { once } from '../records/index.ts';

/**
 * A mesh as one closed skin: the patches of its faces sewn together along their edges, with who meets whom. It knows
 * nothing of eyes, so it is made once for a body.
 */
export interface Shell {
  /** x, y, z of its points, mm. */
  readonly points: Float64Array;
  /** Three points a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  /** The face that each triangle lies on, by its place in the mesh. */
  readonly faceOf: Uint32Array;
  /** Pairs of triangles that meet: two points, two triangles each. */
  readonly meetings: Uint32Array;
  /** The points along each edge of the body, one after the other. */
  readonly lines: ReadonlyMap<string, readonly number[]>;
  /** The edge of the body that two points next to each other lie on, by `pairOf` them. */
  readonly lineAt: ReadonlyMap<number, string>;
}

/** Square to a triangle, to the side from which it is seen counter-clockwise; twice as long as its area. @param k where its points begin */
export function squareOn(points: Float64Array, triangles: Uint32Array, k: number): Vec3 {
  const [p, q, r] = [3 * triangles[k]!, 3 * triangles[k + 1]!, 3 * triangles[k + 2]!];
  const [ux, uy, uz] = [points[q]! - points[p]!, points[q + 1]! - points[p + 1]!, points[q + 2]! - points[p + 2]!];
  const [vx, vy, vz] = [points[r]! - points[p]!, points[r + 1]! - points[p + 1]!, points[r + 2]! - points[p + 2]!];
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

/** Two points in any order, as one number. */
export const pairOf = (a: number, b: number): number => Math.min(a, b) * MOST_POINTS + Math.max(a, b);
const MOST_POINTS = 2 ** 26;

/** Nearer than this, mm, points of two patches are one: far above what single precision leaves, far below any triangle. */
const SEWN = 1e-4;
/** So that no size that people choose lies where the last digit of it decides. */
const SHIFT = 0.3819660113;

export const shellOf = once(sewn);

function sewn({ positions, triangles: corners, faces, edgePoints, edges }: BodyMesh): Shell {
  const points: number[] = [];
  const table = new TripleTable();
  const cell = (c: number): number => Math.floor(c / SEWN + SHIFT);
  const pointAt = (of: Float32Array, k: number): number => {
    const [x, y, z] = [of[3 * k]!, of[3 * k + 1]!, of[3 * k + 2]!];
    const before = table.size;
    const point = table.numberOf(cell(x), cell(y), cell(z));
    if (point === before) points.push(x, y, z);
    return point;
  };
  const moved = Uint32Array.from({ length: positions.length / 3 }, (_, k) => pointAt(positions, k));
  const triangles = corners.map((corner) => moved[corner]!);
  const faceOf = new Uint32Array(triangles.length / 3);
  faces.forEach(({ start, count }, face) => faceOf.fill(face, start / 3, (start + count) / 3));
  const lines = new Map(
    edges.map(({ name, start, count }) => {
      const line: number[] = [];
      for (let k = start; k < start + count; k++) {
        const point = pointAt(edgePoints, k);
        if (line.at(-1) !== point) line.push(point);
      }
      return [name, line] as const;
    }),
  );
  const lineAt = new Map<number, string>();
  for (const [name, line] of lines)
    for (let k = 1; k < line.length; k++) lineAt.set(pairOf(line[k - 1]!, line[k]!), name);
  return { points: Float64Array.from(points), triangles, faceOf, meetings: meetingsOf(triangles), lines, lineAt };
}

/** Pairs of triangles that go along two points one the one way, one the other. */
function meetingsOf(triangles: Uint32Array): Uint32Array {
  const pairs = new TripleTable();
  // the side that waits for another, of each pair of points; sides are told by the corner that they begin at
  const waiting: number[] = [];
  const found: number[] = [];
  for (let k = 0; k < triangles.length; k++) {
    const [a, b] = [triangles[k]!, triangles[k % 3 === 2 ? k - 2 : k + 1]!];
    if (a === b) continue;
    const pair = pairs.numberOf(Math.min(a, b), Math.max(a, b), 0);
    const other = waiting[pair] ?? -1;
    if (other < 0 || triangles[other] === a) waiting[pair] = k;
    else {
      found.push(a, b, Math.floor(k / 3), Math.floor(other / 3));
      waiting[pair] = -1;
    }
  }
  return Uint32Array.from(found);
}
