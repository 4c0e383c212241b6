import { movedBy, type Movement, type Vec3 } from '../math/index.ts';
import type { BodyMesh } from '../kernel-port/index.ts';

type Triangles = Pick<BodyMesh, 'positions' | 'triangles'>;

/**
 * Binary STL (3D Systems, 1989): 80 bytes of header, a count, then 50 bytes a triangle, little-endian, mm.
 * The format has no units; slicers take millimetres.
 */
export function writeStl(meshes: readonly Triangles[], title: string): Uint8Array {
  const count = meshes.reduce((sum, mesh) => sum + mesh.triangles.length / 3, 0);
  const bytes = new Uint8Array(84 + 50 * count);
  // a header must not begin with "solid", which marks the text form
  bytes.set([...`Helb, mm: ${title}`.slice(0, 80)].map((char) => (char < '\u0080' ? char.charCodeAt(0) : 63)));
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  let at = 84;
  for (const { positions, triangles } of meshes)
    for (let t = 0; t < triangles.length; t += 3) {
      const corners = [0, 1, 2].map((k) => positions.subarray(3 * triangles[t + k]!, 3 * triangles[t + k]! + 3));
      [normalOf(corners), ...corners].forEach((vector, k) => {
        for (let c = 0; c < 3; c++) view.setFloat32(at + 12 * k + 4 * c, vector[c]!, true);
      });
      at += 50;
    }
  return bytes;
}

/** Triangles where they stand. */
export function movedTriangles({ positions, triangles }: Triangles, at: Movement): Triangles {
  const moved = new Float32Array(positions.length);
  for (let k = 0; k < positions.length; k += 3)
    moved.set(movedBy(at, [...positions.subarray(k, k + 3)] as unknown as Vec3), k);
  return { positions: moved, triangles };
}

function normalOf([a, b, c]: readonly Float32Array[]): readonly number[] {
  const [u, v] = [b!, c!].map((corner) => [0, 1, 2].map((k) => corner[k]! - a![k]!)) as [number[], number[]];
  const normal = [0, 1, 2].map((k) => u[(k + 1) % 3]! * v[(k + 2) % 3]! - u[(k + 2) % 3]! * v[(k + 1) % 3]!);
  const length = Math.hypot(...normal) || 1;
  return normal.map((n) => n / length);
}

/** Volume enclosed by the triangles of a binary STL file (mm^3), by the divergence theorem; undefined if it is not one. */
export function stlVolume(bytes: Uint8Array): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 84) return undefined;
  const count = view.getUint32(80, true);
  if (bytes.length !== 84 + 50 * count) return undefined;
  let volume = 0;
  for (let t = 0; t < count; t++) {
    const c = Array.from({ length: 9 }, (_, k) => view.getFloat32(84 + 50 * t + 12 + 4 * k, true));
    volume +=
      (c[0]! * (c[4]! * c[8]! - c[5]! * c[7]!) +
        c[1]! * (c[5]! * c[6]! - c[3]! * c[8]!) +
        c[2]! * (c[3]! * c[7]! - c[4]! * c[6]!)) /
      6;
  }
  return volume;
}
