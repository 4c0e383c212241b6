/**
 * Gives each triple of whole numbers (32 bits each) a number of its own, from 0 on in the order in which they come: open
 * addressing, at least twice as long as filled.
 */
export class TripleTable {
  private triples = new Int32Array(3 * 1024);
  private slots = new Int32Array(4096).fill(-1);
  private count = 0;

  get size(): number {
    return this.count;
  }

  /** The number of a triple; the present size where it is new. */
  numberOf(i: number, j: number, k: number): number {
    const [x, y, z] = [i | 0, j | 0, k | 0];
    const { triples, slots } = this;
    let slot = this.slotOf(x, y, z);
    for (let known = slots[slot]!; known >= 0; known = slots[slot]!) {
      const at = 3 * known;
      if (triples[at] === x && triples[at + 1] === y && triples[at + 2] === z) return known;
      slot = (slot + 1) & (slots.length - 1);
    }
    slots[slot] = this.count;
    this.add(x, y, z);
    return this.count - 1;
  }

  private add(x: number, y: number, z: number): void {
    if (3 * this.count === this.triples.length) {
      const larger = new Int32Array(2 * this.triples.length);
      larger.set(this.triples);
      this.triples = larger;
    }
    const at = 3 * this.count++;
    this.triples[at] = x;
    this.triples[at + 1] = y;
    this.triples[at + 2] = z;
    if (2 * this.count > this.slots.length) this.spread();
  }

  private slotOf(x: number, y: number, z: number): number {
    let hash = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    return (hash ^ (hash >>> 13)) & (this.slots.length - 1);
  }

  private spread(): void {
    this.slots = new Int32Array(2 * this.slots.length).fill(-1);
    for (let n = 0; n < this.count; n++) {
      let slot = this.slotOf(this.triples[3 * n]!, this.triples[3 * n + 1]!, this.triples[3 * n + 2]!);
      while (this.slots[slot]! >= 0) slot = (slot + 1) & (this.slots.length - 1);
      this.slots[slot] = n;
    }
  }
}
