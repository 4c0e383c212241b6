import { emptyProject, explain, loadProject, seedSieve, type Project } from '@helb/core';
import { Refusal } from './refusal.ts';
import { packedSync } from './snapshots.ts';
import { writtenSize } from './written-size.ts';

/** A document that may be kept, as it is kept. */
export interface CheckedDocument {
  readonly name: string;
  /** As text, bytes. */
  readonly size: number;
  readonly packed: Uint8Array;
}

/** What a new project begins with: one empty part, the demo, or a document of unknown origin. */
export function checkedDocument(from: { name: string } | { demo: true } | { document: unknown }): CheckedDocument {
  const document = documentFrom(from);
  return { name: document.name, size: writtenSize(document), packed: packedSync(document) };
}

function documentFrom(from: { name: string } | { demo: true } | { document: unknown }): Project {
  if ('demo' in from) return seedSieve();
  if ('name' in from)
    return {
      ...emptyProject(from.name),
      parts: { p1: { name: 'Part 1', colour: 0, steps: {}, stepOrder: [] } },
      partOrder: ['p1'],
    };
  const loaded = loadProject(from.document);
  if (!loaded.ok) throw new Refusal(422, explain(loaded.issue));
  return loaded.value;
}
