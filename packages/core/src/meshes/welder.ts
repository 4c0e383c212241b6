import { TripleTable } from '../math/index.ts';
import type { TriangleMesh } from './mesh.ts';

/** Takes triangles corner by corner and makes one corner of those at the very same place. */
export class Welder {
  private readonly table = new TripleTable();
  private readonly places: number[] = [];
  private readonly indices: number[] = [];
  private readonly single = new Float32Array(3);
  private readonly bits = new Int32Array(this.single.buffer);

  get triangles(): number {
    return this.indices.length / 3;
  }

  /** Takes a triangle by the indices of its corners; one without a width counts for nothing. */
  triangle(a: number, b: number, c: number): void {
    if (a !== b && b !== c && c !== a) this.indices.push(a, b, c);
  }

  /** The index of the corner at a place, in single precision. */
  corner(x: number, y: number, z: number): number {
    // 0 and -0 are one place
    this.single[0] = x + 0;
    this.single[1] = y + 0;
    this.single[2] = z + 0;
    const before = this.table.size;
    const corner = this.table.numberOf(this.bits[0]!, this.bits[1]!, this.bits[2]!);
    if (corner === before) this.places.push(this.single[0], this.single[1], this.single[2]);
    return corner;
  }

  mesh(): TriangleMesh {
    return { positions: Float32Array.from(this.places), triangles: Uint32Array.from(this.indices) };
  }
}
