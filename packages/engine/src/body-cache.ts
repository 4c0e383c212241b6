import type { BodyHandle, Issue, Kernel } from '@helb/core';

interface Entry {
  readonly id: number;
  readonly bodies: readonly BodyHandle[];
  /** Of all steps up to it, with what went into them: the same in any run, where handles and ids are not. */
  readonly digest: string;
  /** What was done by another way. */
  readonly detours: readonly Issue[];
}

/**
 * Bodies by what they were made from, least recently used first to go. Keys are whole strings, so that no two inputs can
 * be taken for each other. A body may be in several entries (a new body beside untouched ones): it is released with the last.
 */
export class BodyCache {
  private readonly entries = new Map<string, Entry>();
  private readonly uses = new Map<BodyHandle, number>();
  private nextId = 1;

  /** @param most how many entries are kept; @param memory bound on the kernel's memory, bytes */
  constructor(
    private readonly kernel: Kernel,
    private readonly most = 400,
    private readonly memory = 1.2e9,
  ) {}

  get(key: string): Entry | undefined {
    const entry = this.entries.get(key);
    if (!entry) return undefined;
    this.entries.delete(key);
    this.entries.set(key, entry);
    return entry;
  }

  put(key: string, digest: string, bodies: readonly BodyHandle[], detours: readonly Issue[] = []): Entry {
    const entry = { id: this.nextId++, digest, bodies, detours };
    bodies.forEach((body) => this.uses.set(body, (this.uses.get(body) ?? 0) + 1));
    this.entries.set(key, entry);
    return entry;
  }

  /** Lets the oldest entries go until the bounds hold, but none of `inUse`. Returns the bodies released. */
  trim(inUse: ReadonlySet<string>): BodyHandle[] {
    const released: BodyHandle[] = [];
    for (const [key, entry] of this.entries) {
      const crowded = this.entries.size > this.most || this.kernel.memory() > this.memory;
      if (!crowded) break;
      if (inUse.has(key)) continue;
      this.entries.delete(key);
      released.push(...entry.bodies.filter((body) => this.drop(body)));
    }
    return released;
  }

  /** Forgets all, without letting go of anything: what held it is gone. */
  clear(): void {
    this.entries.clear();
    this.uses.clear();
  }

  private drop(body: BodyHandle): boolean {
    const left = this.uses.get(body)! - 1;
    if (left > 0) {
      this.uses.set(body, left);
      return false;
    }
    this.uses.delete(body);
    this.kernel.release(body);
    return true;
  }
}
