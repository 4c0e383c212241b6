import { once, type Id } from '../records/index.ts';
import type { OtherReference } from '../references/index.ts';
import { stepKind, type Step } from '../steps/index.ts';
import { partAt, placedParts } from './placed.ts';
import type { Part, Project } from './schema.ts';

// Which parts take something from which.

/** The references of a step to things of other parts. */
export const othersOf = (step: Step): OtherReference[] =>
  (stepKind(step.kind).references?.(step) ?? []).flatMap(({ reference }) =>
    reference.to === 'other' ? [reference] : [],
  );

/** Does a part take something from where another is placed? */
export const looksAtOthers = ({ steps }: Part): boolean =>
  Object.values(steps).some((step) => othersOf(step).length > 0);

/** That a part takes something from another, and with which of its steps. */
export interface PartLink {
  readonly part: Id;
  readonly from: Id;
  readonly steps: readonly Id[];
}

/** Parts that a step takes something from, and where others are placed that it does too. */
const takenIn = once((step: Step) => ({
  parts: stepKind(step.kind).parts?.(step) ?? [],
  places: othersOf(step).map(({ at }) => at),
}));

/** The parts that a step takes something from. */
function sourcesOf(project: Project, step: Step): Id[] {
  const { assembly } = project;
  const { parts, places } = takenIn(step);
  const seen = assembly ? places.map((at) => partAt(project, assembly, at)) : [];
  return [...parts, ...seen].filter((id) => id !== undefined);
}

/** What each part takes from others, in the order of the parts. */
export function partLinks(project: Project): PartLink[] {
  const { parts, partOrder } = project;
  return partOrder.flatMap((part): PartLink[] => {
    const { steps, stepOrder } = parts[part]!;
    const taken = new Map<Id, Set<Id>>();
    for (const step of stepOrder)
      for (const from of sourcesOf(project, steps[step]!)) taken.set(from, (taken.get(from) ?? new Set()).add(step));
    return [...taken].map(([from, by]) => ({ part, from, steps: [...by] }));
  });
}

const takenBy = (links: readonly PartLink[], part: Id): Id[] =>
  links.filter((link) => link.part === part).map(({ from }) => from);

/** Parts that take from each other in a loop, the first of them again at the end; undefined where none do. */
export function loopOfParts(links: readonly PartLink[]): Id[] | undefined {
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

/** Something of each part that follows from that of the parts that it takes from: found once for each. */
function upwards<T>(links: readonly PartLink[], of: (part: Id, sources: readonly T[]) => T): (part: Id) => T {
  const known = new Map<Id, T>();
  const find = (part: Id): T => {
    if (!known.has(part)) known.set(part, of(part, takenBy(links, part).map(find)));
    return known.get(part)!;
  };
  return find;
}

/**
 * Parts in an order in which each comes after those that it takes from. Where one of them sees another where that is
 * placed, all that is placed comes with it: it may be joined by way of any of these.
 */
export function buildOrder(project: Project, wanted: readonly Id[]): Id[] {
  const links = partLinks(project);
  const all = new Set(wanted);
  // grows while it is gone through
  for (const part of all) {
    takenBy(links, part).forEach((from) => all.add(from));
    if (project.parts[part] && looksAtOthers(project.parts[part]))
      placedParts(project).forEach((other) => all.add(other));
  }
  const depth = upwards<number>(links, (_, sources) => Math.max(0, ...sources.map((one) => one + 1)));
  return [...all].sort((a, b) => depth(a) - depth(b));
}

/** The parts that another can take from without a loop: those that do not take from it themselves. */
export function takeable(project: Project, part: Id): Id[] {
  const reaches = upwards<boolean>(partLinks(project), (one, sources) => one === part || sources.includes(true));
  return project.partOrder.filter((one) => !reaches(one));
}
