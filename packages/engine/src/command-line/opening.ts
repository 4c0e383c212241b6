import { readFile } from 'node:fs/promises';
import {
  explain,
  fail,
  ok,
  parseProject,
  perform,
  variantNamed,
  variantOf,
  type Id,
  type Issue,
  type Project,
  type Result,
} from '@helb/core';
import { EXIT, type Surroundings } from './surroundings.ts';

/** The project of a file; the exit code where it can't be read, told on the error stream. */
export async function readProject(file: string, world: Surroundings): Promise<Project | number> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    world.complain(`${file} can't be read: ${(error as Error).message}`);
    return EXIT.unreadable;
  }
  const project = parseProject(text);
  if (project.ok) return project.value;
  world.complain(`${file}: ${explain(project.issue)}`);
  return EXIT.unreadable;
}

/** The project of a file in a variant, with values set; the exit code where that fails, told on the error stream. */
export async function openProject(
  file: string,
  sets: readonly string[],
  variant: string | undefined,
  world: Surroundings,
): Promise<{ readonly project: Project; readonly id: Id | undefined } | number> {
  const project = await readProject(file, world);
  if (typeof project === 'number') return project;
  const refused = (issue: Issue) => {
    world.complain(explain(issue));
    return EXIT.usage;
  };
  const id = variant === undefined ? ok(undefined) : variantNamed(project, variant);
  if (!id.ok) return refused(id.issue);
  const changed = sets.reduce<Result<Project>>(
    (current, entry) => (current.ok ? withValue(current.value, entry) : current),
    ok(variantOf(project, id.value)),
  );
  return changed.ok ? { project: changed.value, id: id.value } : refused(changed.issue);
}

function withValue(project: Project, entry: string): Result<Project> {
  const at = entry.indexOf('=');
  const [name, expression] = [entry.slice(0, at).trim(), entry.slice(at + 1).trim()];
  const id = project.valueOrder.find((candidate) => project.values[candidate]!.name === name);
  if (at < 0 || id === undefined) return fail('value.unknown', { name: at < 0 ? entry : name, near: '' });
  const done = perform(project, [{ command: 'value.set', input: { id, expression } }]);
  return done.ok ? ok(done.value.project) : done;
}
