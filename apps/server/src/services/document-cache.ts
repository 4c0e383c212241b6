import type { Project } from '@helb/core';
import { LRUCache } from 'lru-cache';
import { writtenSize } from './written-size.ts';

interface Entry {
  readonly revision: number;
  readonly document: Project;
}

/** The latest document of projects that were used last, so that a save does not replay the log; bounded by their bytes. */
export class DocumentCache {
  private readonly entries: LRUCache<string, Entry>;

  /** @param most bytes of all documents as text */
  constructor(most: number) {
    this.entries = new LRUCache({ maxSize: most, sizeCalculation: ({ document }) => writtenSize(document) });
  }

  get(id: string, revision: number): Project | undefined {
    const entry = this.entries.get(id);
    return entry?.revision === revision ? entry.document : undefined;
  }

  put(id: string, revision: number, document: Project): void {
    this.entries.set(id, { revision, document });
  }

  forget(id: string): void {
    this.entries.delete(id);
  }
}
