import { randomFrom } from '@helb/core';

/** Choices that come out the same for the same seed. */
export class Chance {
  private readonly next: () => number;

  constructor(seed: number) {
    this.next = randomFrom(seed);
  }

  /** A number of a range, with so many decimals: what people type. */
  number(low: number, high: number, decimals = 2): number {
    return Number((low + (high - low) * this.next()).toFixed(decimals));
  }

  whole = (low: number, high: number): number => low + Math.floor((high - low + 1) * this.next());

  one = <T>(list: readonly T[]): T => list[Math.min(list.length - 1, Math.floor(list.length * this.next()))]!;

  happens = (share: number): boolean => this.next() < share;

  some<T>(list: readonly T[], most: number): T[] {
    const left = [...list];
    const found: T[] = [];
    const count = Math.min(most, left.length);
    while (found.length < count) found.push(...left.splice(Math.floor(left.length * this.next()), 1));
    return found;
  }
}
