import type { Project } from '@helb/core';

const MOST = 50;

/** The latest document of recently used projects, so that a save does not replay the log. */
export class DocumentCache {
  private readonly entries = new Map<string, { revision: number; document: Project }>();

  get(id: string, revision: number): Project | undefined {
    const entry = this.entries.get(id);
    return entry?.revision === revision ? entry.document : undefined;
  }

  put(id: string, revision: number, document: Project): void {
    this.entries.delete(id);
    this.entries.set(id, { revision, document });
    if (this.entries.size > MOST) this.entries.delete(this.entries.keys().next().value!);
  }

  forget(id: string): void {
    this.entries.delete(id);
  }
}
