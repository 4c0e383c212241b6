import { fail, locate, ok, type Id, type Project, type Scope, type World } from '@helb/core';
import { assemble, emptyAssembly, type Assembled, type Surroundings } from '@helb/core/assembly';
import type { Model } from './model.ts';

/** The parts that are placed as they were built, and how they come together. */
export interface AssembledModel {
  readonly model: Model;
  readonly assembled: Assembled;
}

/** A part as it is built, or as far as it is, and how large it is. */
export interface Sited extends World {
  /** The diagonal of its box, mm; 0 without a body. */
  readonly size: number;
}

/** Brings built parts together. */
export const assembledFrom = (project: Project, sites: ReadonlyMap<Id, Sited>, scope: Scope): Assembled =>
  assemble(project.assembly ?? emptyAssembly(), surroundingsOf(project, sites, scope));

export const surroundingsOf = (
  { groups = {} }: Project,
  sites: ReadonlyMap<Id, Sited>,
  scope: Scope,
): Surroundings => ({
  scope,
  groups,
  find(part, reference) {
    const site = sites.get(part);
    if (!site) return fail('part.unknown', { id: part });
    const match = locate(reference, 'shape', site);
    return match.ok ? ok(match.value.thing) : match;
  },
  sizeOf: (part) => sites.get(part)?.size ?? 0,
});
