import type { z } from 'zod';
import type { Id } from '../../records/index.ts';
import { issue, IssueError } from '../../result/index.ts';
import { isSketch, type SketchStep, type Step } from '../../steps/index.ts';
import type { Part, Project } from '../schema.ts';

/** A named change of a project. `run` edits the draft (Immer) and returns the label for undo and the log. */
interface Command<I> {
  readonly schema: z.ZodType<I>;
  /** Done for the sake of what comes with it in one gesture: that is called by the rest. */
  readonly prepares?: true;
  run(draft: Project, input: I): string;
}

/** Gives the command its types from its schema. */
export const command = <S extends z.ZodType>(
  schema: S,
  run: (draft: Project, input: z.infer<S>) => string,
): Command<z.infer<S>> => ({
  schema: schema as z.ZodType<z.infer<S>>,
  run,
});

/** A command that makes what others in the same gesture use. */
export const preparing = <S extends z.ZodType>(...definition: Parameters<typeof command<S>>): Command<z.infer<S>> => ({
  ...command(...definition),
  prepares: true,
});

/** Ends a command that can not be done; nothing of it stays. */
export const refuse = (code: string, facts: Record<string, string | number | readonly string[]> = {}): never => {
  throw new IssueError(issue(code, facts));
};

/** The part of a draft; refuses one that is not there. */
export function partIn(draft: Project, id: Id): Part {
  return draft.parts[id] ?? refuse('part.unknown', { id });
}

/** A step of a part; refuses one that is not there, and parts that come from elsewhere. */
export function stepIn(draft: Project, part: Id, id: Id): Step {
  const { name, from, steps } = partIn(draft, part);
  if (from) refuse('part.brought', { name, project: from.design.name });
  return steps[id] ?? refuse('step.unknown', { id });
}

/** A sketch of a part; refuses any other step. */
export function sketchIn(draft: Project, part: Id, id: Id): SketchStep {
  const step = stepIn(draft, part, id);
  return isSketch(step) ? step : refuse('step.unknown', { id });
}

/** Adds a record under a new id. */
export function insert<T>(records: Record<Id, T>, id: Id, record: T): void {
  if (Object.hasOwn(records, id)) refuse('id.taken', { id });
  records[id] = record;
}
