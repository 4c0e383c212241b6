import type { TriangleMesh } from '../meshes/index.ts';

/**
 * Binary STL (3D Systems, 1989): 80 bytes of header, a count, then 50 bytes a triangle, little-endian, mm.
 * The format has no units; slicers take millimetres.
 */
export function writeStl(meshes: readonly TriangleMesh[], title: string): Uint8Array {
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

function normalOf([a, b, c]: readonly Float32Array[]): readonly number[] {
  const [u, v] = [b!, c!].map((corner) => [0, 1, 2].map((k) => corner[k]! - a![k]!)) as [number[], number[]];
  const normal = [0, 1, 2].map((k) => u[(k + 1) % 3]! * v[(k + 2) % 3]! - u[(k + 2) % 3]! * v[(k + 1) % 3]!);
  const length = Math.hypot(...normal) || 1;
  return normal.map((n) => n / length);
}
