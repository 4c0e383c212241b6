import { boxCorners, distance3, fail, locate, ok, type Id, type Project, type Scope } from '@helb/core';
import { assemble, emptyAssembly, type Assembled, type Assembly } from '@helb/core/assembly';
import type { Model } from './model.ts';
import type { Site } from './site.ts';

/** The parts that are placed as they were built, and how they come together. */
export interface AssembledModel {
  readonly model: Model;
  readonly assembled: Assembled;
}

/** Every part that is placed, in groups too, once each, in the order of the parts. */
export function placedParts({ assembly, groups = {}, partOrder }: Project): Id[] {
  const found = new Set<Id>();
  const look = ({ placements }: Pick<Assembly, 'placements'>): void => {
    for (const { of } of Object.values(placements)) {
      if ('part' in of) found.add(of.part);
      else if (groups[of.group]) look(groups[of.group]!);
    }
  };
  if (assembly) look(assembly);
  return partOrder.filter((id) => found.has(id));
}

/** Brings built parts together. */
export function assembledFrom(
  { assembly = emptyAssembly(), groups = {} }: Project,
  model: Model,
  sites: ReadonlyMap<Id, Site>,
  scope: Scope,
): Assembled {
  return assemble(assembly, {
    scope,
    groups,
    find(part, reference) {
      const site = sites.get(part);
      if (!site) return fail('part.unknown', { id: part });
      const match = locate(reference, 'shape', site);
      return match.ok ? ok(match.value.thing) : match;
    },
    sizeOf(part) {
      const boxes = model.parts.find(({ id }) => id === part)?.bodies.map(({ measures }) => measures.box_mm) ?? [];
      const corners = boxes.flatMap(boxCorners);
      return corners.reduce((most, corner) => Math.max(most, distance3(corner, corners[0]!)), 0);
    },
  });
}
