import {
  differences,
  explain,
  broughtFrom,
  perform,
  variantNamed,
  writeProject,
  type Action,
  type Id,
  type Origin,
  type Project,
} from '@helb/core';
import { readProject } from './opening.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

interface BringOptions {
  readonly file: string;
  readonly from?: string | undefined;
  readonly part?: string | undefined;
  readonly variant?: string | undefined;
}

/**
 * Brings a part of the project in another file into a project file. Where it was brought from there before it is taken as
 * it is now, and what is otherwise is printed.
 */
export async function bring({ file, from, part, variant }: BringOptions, world: Surroundings): Promise<number> {
  const refused = (words: string): number => {
    world.complain(words);
    return EXIT.usage;
  };
  if (from === undefined || part === undefined)
    return refused('Say which part of which project: --from OTHER --part NAME.');
  const project = await readProject(file, world);
  if (typeof project === 'number') return project;
  const document = await readProject(from, world);
  if (typeof document === 'number') return document;
  const wanted = document.partOrder.find((id) => document.parts[id]!.name === part);
  if (wanted === undefined) {
    const known = document.partOrder.map((id) => document.parts[id]!.name).join(', ');
    return refused(`There is no part "${part}" in ${from}. The parts are: ${known || 'none'}.`);
  }
  const shown = variant === undefined ? undefined : variantNamed(document, variant);
  if (shown && !shown.ok) return refused(explain(shown.issue));
  const origin = broughtFrom({ revision: 0, document }, wanted, shown?.value);
  const here = project.partOrder.find((id) => isFrom(project.parts[id]!.from, origin));
  const done = perform(project, [bringing(project, here, origin)]);
  if (!done.ok) return refused(explain(done.issue));
  const apart = here === undefined ? [] : differences(project.parts[here]!.from!, origin);
  for (const words of apart) world.print(words);
  if (here !== undefined && apart.length === 0) world.print('Nothing is otherwise.');
  return written(file, writeProject(done.value.project), '', world);
}

/** Is a part brought from a file with a project of this name? */
const isFrom = (from: Origin | undefined, { part, variant, design }: Origin): boolean =>
  from !== undefined &&
  from.project === undefined &&
  from.part === part &&
  from.variant === variant &&
  from.design.name === design.name;

function bringing({ parts }: Project, here: Id | undefined, from: Origin): Action {
  if (here !== undefined) return { command: 'part.update', input: { id: here, from } };
  let count = Object.keys(parts).length + 1;
  while (parts[`p${count}`]) count++;
  return { command: 'part.bring', input: { id: `p${count}`, from } };
}
