import { transformPoint, type Box3, type RigidTransform, type Vec3 } from '../math/index.ts';

/** Triangles that share their corners; three coordinates a corner, three corners a triangle, counter-clockwise from outside. */
export interface TriangleMesh {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
}

/** What a file of triangles holds. */
export interface MeshFile {
  readonly mesh: TriangleMesh;
  /** Millimetres for a unit of it; undefined where the file does not say. */
  readonly unit: number | undefined;
}

export const MESH_LIMITS = { triangles: 2_000_000, unpacked: 256 * 1024 ** 2, depth: 16, objects: 20_000 } as const;

/** A mesh with all its places times a factor, then moved. */
export function transformMesh(
  { positions, triangles }: TriangleMesh,
  factor: number,
  by: RigidTransform,
): TriangleMesh {
  const moved = new Float32Array(positions.length);
  for (let k = 0; k < positions.length; k += 3)
    moved.set(transformPoint(by, [factor * positions[k]!, factor * positions[k + 1]!, factor * positions[k + 2]!]), k);
  return { positions: moved, triangles };
}

/** What is told of a mesh. */
export interface MeshFacts {
  readonly triangles: number;
  readonly box: Box3;
  /** Edges at which it is open, or where more than two triangles meet. */
  readonly loose: number;
  /** Enclosed, mm^3; undefined where it is not closed. */
  readonly volume: number | undefined;
}

/** Measures a mesh that is not empty. */
export function meshFacts({ positions, triangles }: TriangleMesh): MeshFacts {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < positions.length; k++) {
    low[k % 3] = Math.min(low[k % 3]!, positions[k]!);
    high[k % 3] = Math.max(high[k % 3]!, positions[k]!);
  }
  const loose = looseEdges(triangles, positions.length / 3);
  return {
    triangles: triangles.length / 3,
    box: { low: low as unknown as Vec3, high: high as unknown as Vec3 },
    loose,
    volume: loose === 0 ? enclosedVolume({ positions, triangles }) : undefined,
  };
}

/** Edges that are not met once in either direction. */
function looseEdges(triangles: Uint32Array, corners: number): number {
  const met = new Map<number, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
      const key = Math.min(a, b) * corners + Math.max(a, b);
      // once this way and once the other comes to nothing; what is met oftener never does
      const before = met.get(key) ?? 0;
      const now = before + (a < b ? 1 : -1);
      if (now === 0) met.delete(key);
      else met.set(key, now);
    }
  return met.size;
}

/** The volume that closed triangles enclose, by the divergence theorem. */
export function enclosedVolume({ positions: p, triangles }: TriangleMesh): number {
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    sum +=
      p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
      p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
      p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
  }
  return sum / 6;
}
