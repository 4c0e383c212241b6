import type { Project } from '@helb/core';
import { writtenSize } from './written-size.ts';

interface Entry {
  readonly revision: number;
  readonly document: Project;
  readonly size: number;
}

/** The latest document of projects that were used last, so that a save does not replay the log; bounded by their bytes. */
export class DocumentCache {
  private readonly entries = new Map<string, Entry>();
  private size = 0;

  /** @param most bytes of all documents as text */
  constructor(private readonly most: number) {}

  get(id: string, revision: number): Project | undefined {
    const entry = this.entries.get(id);
    if (entry?.revision !== revision) return undefined;
    // used now: last in the order
    this.entries.delete(id);
    this.entries.set(id, entry);
    return entry.document;
  }

  put(id: string, revision: number, document: Project): void {
    this.forget(id);
    const entry = { revision, document, size: writtenSize(document) };
    this.entries.set(id, entry);
    this.size += entry.size;
    for (const [other] of this.entries) {
      if (this.size <= this.most || other === id) break;
      this.forget(other);
    }
  }

  forget(id: string): void {
    this.size -= this.entries.get(id)?.size ?? 0;
    this.entries.delete(id);
  }
}
