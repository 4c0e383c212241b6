import type { Movement } from '../math/index.ts';
import type { BodyMesh } from '../kernel-port/index.ts';

/** A part as triangles, in mm, with all the places where it stands. */
export interface Solid {
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  /** Of its bodies. */
  readonly meshes: readonly Pick<BodyMesh, 'positions' | 'normals' | 'triangles'>[];
  readonly places: readonly { readonly name: string; readonly at: Movement }[];
}

/** Corners that several triangles share, each once: where faces meet they have the same coordinates. */
export function welded(meshes: Solid['meshes']): {
  readonly corners: readonly number[][];
  readonly triangles: number[];
} {
  const corners: number[][] = [];
  const known = new Map<string, number>();
  const triangles: number[] = [];
  for (const { positions, triangles: of } of meshes) {
    const own = new Map<number, number>();
    const corner = (k: number): number => {
      const seen = own.get(k);
      if (seen !== undefined) return seen;
      const place = [...positions.subarray(3 * k, 3 * k + 3)];
      const key = place.join(' ');
      const index = known.get(key) ?? corners.push(place) - 1;
      known.set(key, index);
      own.set(k, index);
      return index;
    };
    for (let t = 0; t < of.length; t += 3) {
      const [a, b, c] = [corner(of[t]!), corner(of[t + 1]!), corner(of[t + 2]!)];
      // triangles without a width fall to a line
      if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
    }
  }
  return { corners, triangles };
}

/** A number as short as single precision has it. */
export const short = (n: number): string => `${Number(n.toPrecision(8)) + 0}`;

/** Signs that mean something in XML. */
export const escapedXml = (words: string): string =>
  words.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);
