import type { Id } from '../records/index.ts';
import type { Part, Project } from './schema.ts';

/** A part as it is drawn, here or in the project that it comes from; what it is called and made of is told here. */
export function drawnPart(project: Project, id: Id): Part | undefined {
  const part = project.parts[id];
  const drawn = part?.from && drawnPart(part.from.design, part.from.part);
  return part && drawn ? { ...part, steps: drawn.steps, stepOrder: drawn.stepOrder } : part;
}
