import { issue, partLinks, type Id, type Issue, type Project } from '@helb/core';
import type { PartModel } from './model.ts';

/**
 * Parts that are not as they are told, each with the reason: a step of theirs fails, or they take something from a part that
 * is not as it is told. What is shown of them is the last that was good.
 */
export function troubles(project: Project, models: Iterable<PartModel>): Map<Id, Issue> {
  const broken = new Map<Id, Issue>();
  for (const { id, steps } of models) {
    const failed = steps.find(({ state }) => state === 'failed');
    const { name, from } = project.parts[id]!;
    const step = failed && (from ? from.design.parts[from.part] : project.parts[id])?.steps[failed.id]?.name;
    if (failed) broken.set(id, issue('part.broken', { part: name, step: step ?? failed.id }));
  }
  const links = partLinks(project);
  // grows while it is gone through
  for (const from of broken.keys())
    for (const { part } of links.filter((link) => link.from === from))
      if (!broken.has(part))
        broken.set(part, issue('part.built-on', { part: project.parts[part]!.name, from: project.parts[from]!.name }));
  return broken;
}
