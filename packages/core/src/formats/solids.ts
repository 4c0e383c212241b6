import type { RigidTransform, Vec3 } from '../math/index.ts';
import { Welder, type TriangleMesh } from '../meshes/index.ts';
import type { BodyMesh } from '../kernel-port/index.ts';

/** A part as triangles, in mm, with all the places where it stands. */
export interface Solid {
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  /** Of its bodies. */
  readonly meshes: readonly Pick<BodyMesh, 'positions' | 'normals' | 'triangles'>[];
  readonly places: readonly { readonly name: string; readonly at: RigidTransform }[];
}

/** Meshes as one, of which the corners that several triangles share are there once: where faces meet they have the same coordinates. */
export function welded(meshes: Solid['meshes']): TriangleMesh {
  const welder = new Welder();
  for (const { positions: p, triangles } of meshes) {
    const corner = (k: number) => welder.corner(p[3 * k]!, p[3 * k + 1]!, p[3 * k + 2]!);
    for (let t = 0; t < triangles.length; t += 3)
      welder.triangle(corner(triangles[t]!), corner(triangles[t + 1]!), corner(triangles[t + 2]!));
  }
  return welder.mesh();
}

/** The corners of a mesh, one after the other. */
export const cornersOf = ({ positions }: TriangleMesh): Vec3[] =>
  Array.from({ length: positions.length / 3 }, (_, k) => [...positions.subarray(3 * k, 3 * k + 3)] as unknown as Vec3);

/** A number as short as single precision has it. */
export const short = (n: number): string => `${Number(n.toPrecision(8)) + 0}`;

/** Signs that mean something in XML. */
export const escapedXml = (words: string): string =>
  words.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);
