import { emptyProject, explain, loadProject, seedSieve, type Project } from '@helb/core';
import { Refusal } from './refusal.ts';

/** A document that may be kept, with its text. */
export interface CheckedDocument {
  readonly document: Pick<Project, 'name'>;
  readonly text: string;
}

/** What a new project begins with: one empty part, the demo, or a document of unknown origin. */
export function checkedDocument(from: { name: string } | { demo: true } | { document: unknown }): CheckedDocument {
  const document = documentFrom(from);
  return { document: { name: document.name }, text: JSON.stringify(document) };
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
