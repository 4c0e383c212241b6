import type { Vec3 } from '../../math/index.ts';

/** Nearer than this, mm or rad, two sizes are one: what is drawn in one line is meant to be in one line. */
const ONE = 1e-6;

interface Entry {
  readonly value: number;
  readonly index: number;
}

/** The numbers that tell a part, each once: what lies in one plane, or on one centre line, shares them. */
export class Unknowns {
  private readonly known = new Map<string, Entry[]>();
  /** How much each changes where all of the part is shifted by 1 mm along x, y and z. */
  readonly shifts: Vec3[] = [];
  /** Those that turn directions about the axes of the part. */
  readonly turns: (readonly [about: number, index: number])[] = [];

  get count(): number {
    return this.shifts.length;
  }

  /**
   * The unknown of a kind that has this value, made where there is none yet.
   * @param shift how much it changes where the part is shifted along x, y and z
   */
  at(kind: string, value: number, shift: Vec3 = [0, 0, 0]): number {
    const entries = this.known.get(kind) ?? [];
    this.known.set(kind, entries);
    const found = entries.find((entry) => Math.abs(entry.value - value) < ONE);
    if (found) return found.index;
    const index = this.count;
    this.shifts.push(shift);
    entries.push({ value, index });
    return index;
  }

  /** How many values of a kind there are. */
  countOf = (kind: string): number => this.known.get(kind)?.length ?? 0;

  turn(about: number, angle: number): number {
    const before = this.count;
    const index = this.at(`turn ${about}`, angle);
    if (index === before) this.turns.push([about, index]);
    return index;
  }
}
