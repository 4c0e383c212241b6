import type { Id } from '../records/index.ts';
import type { OtherReference } from '../references/index.ts';
import { stepKind, type Step } from '../steps/index.ts';
import { partAt, placedParts } from './placed.ts';
import type { Project } from './schema.ts';

// Which parts take something from which.

/** The references of a step to things of other parts. */
export const othersOf = (step: Step): OtherReference[] =>
  (stepKind(step.kind).references?.(step) ?? []).flatMap(({ reference }) =>
    reference.to === 'other' ? [reference] : [],
  );

/** That a part takes something from another, and with which of its steps. */
export interface PartLink {
  readonly part: Id;
  readonly from: Id;
  readonly steps: readonly Id[];
}

/** What each part takes from others that are placed, in the order of the parts. */
export function partLinks(project: Project): PartLink[] {
  const { assembly, parts, partOrder } = project;
  if (!assembly) return [];
  return partOrder.flatMap((part): PartLink[] => {
    const { steps, stepOrder } = parts[part]!;
    const taken = new Map<Id, Set<Id>>();
    for (const step of stepOrder)
      for (const { at } of othersOf(steps[step]!)) {
        const from = partAt(project, assembly, at);
        if (from !== undefined) taken.set(from, (taken.get(from) ?? new Set()).add(step));
      }
    return [...taken].map(([from, by]) => ({ part, from, steps: [...by] }));
  });
}

const takenBy = (links: readonly PartLink[], part: Id): Id[] =>
  links.filter((link) => link.part === part).map(({ from }) => from);

/** Parts that take from each other in a loop, the first of them again at the end; undefined where none do. */
export function loopOfParts(project: Project): Id[] | undefined {
  const links = partLinks(project);
  const cleared = new Set<Id>();
  const search = (part: Id, above: readonly Id[]): Id[] | undefined => {
    if (above.includes(part)) return [...above.slice(above.indexOf(part)), part];
    if (cleared.has(part)) return undefined;
    for (const from of takenBy(links, part)) {
      const loop = search(from, [...above, part]);
      if (loop) return loop;
    }
    cleared.add(part);
    return undefined;
  };
  for (const { part } of links) {
    const loop = search(part, []);
    if (loop) return loop;
  }
  return undefined;
}

/**
 * Parts in an order in which each comes after those that it takes from. Where one of them takes from another, all that is
 * placed comes with it: it may be joined by way of any of these.
 */
export function buildOrder(project: Project, wanted: readonly Id[]): Id[] {
  const links = partLinks(project);
  const takes = (part: Id): boolean => links.some((link) => link.part === part);
  if (!wanted.some(takes)) return [...wanted];
  const depth = (part: Id): number => Math.max(0, ...takenBy(links, part).map((from) => depth(from) + 1));
  const all = new Set([...placedParts(project), ...wanted]);
  return [...all].sort((a, b) => depth(a) - depth(b));
}
