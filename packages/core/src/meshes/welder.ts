import type { TriangleMesh } from './mesh.ts';

/** Takes triangles corner by corner and makes one corner of those at the very same place. */
export class Welder {
  private positions = new Float32Array(3 * 1024);
  private bits = new Int32Array(this.positions.buffer);
  private count = 0;
  /** Corners by their places: open addressing, twice as long as filled at least. */
  private table = new Int32Array(4096).fill(-1);
  private readonly indices: number[] = [];
  private readonly scratch = new Float32Array(3);
  private readonly scratchBits = new Int32Array(this.scratch.buffer);

  get triangles(): number {
    return this.indices.length / 3;
  }

  /** Takes a triangle by the indices of its corners; one without a width counts for nothing. */
  triangle(a: number, b: number, c: number): void {
    if (a !== b && b !== c && c !== a) this.indices.push(a, b, c);
  }

  /** The index of the corner at a place. */
  corner(x: number, y: number, z: number): number {
    // 0 and -0 are one place
    this.scratch[0] = x + 0;
    this.scratch[1] = y + 0;
    this.scratch[2] = z + 0;
    const [i, j, k] = this.scratchBits as unknown as [number, number, number];
    let slot = this.slotOf(i, j, k);
    for (let known = this.table[slot]!; known >= 0; known = this.table[slot]!) {
      const at = 3 * known;
      if (this.bits[at] === i && this.bits[at + 1] === j && this.bits[at + 2] === k) return known;
      slot = (slot + 1) & (this.table.length - 1);
    }
    this.table[slot] = this.count;
    if (3 * this.count === this.positions.length) this.grow();
    this.positions.set(this.scratch, 3 * this.count);
    this.count++;
    if (2 * this.count > this.table.length) this.spread();
    return this.count - 1;
  }

  mesh(): TriangleMesh {
    return { positions: this.positions.slice(0, 3 * this.count), triangles: Uint32Array.from(this.indices) };
  }

  private slotOf(i: number, j: number, k: number): number {
    let hash = Math.imul(i, 0x9e3779b1) ^ Math.imul(j, 0x85ebca6b) ^ Math.imul(k, 0xc2b2ae35);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    return (hash ^ (hash >>> 13)) & (this.table.length - 1);
  }

  private grow(): void {
    const larger = new Float32Array(2 * this.positions.length);
    larger.set(this.positions);
    this.positions = larger;
    this.bits = new Int32Array(larger.buffer);
  }

  private spread(): void {
    this.table = new Int32Array(2 * this.table.length).fill(-1);
    for (let n = 0; n < this.count; n++) {
      let slot = this.slotOf(this.bits[3 * n]!, this.bits[3 * n + 1]!, this.bits[3 * n + 2]!);
      while (this.table[slot]! >= 0) slot = (slot + 1) & (this.table.length - 1);
      this.table[slot] = n;
    }
  }
}
