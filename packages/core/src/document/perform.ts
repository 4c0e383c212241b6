import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer';
import { attempt, fail, issue, IssueError, ok, type Result } from '../result/index.ts';
import { checkProject } from './check.ts';
import { COMMANDS, type CommandName, type Inputs } from './commands/index.ts';
import { misfitOf } from './parse-changed.ts';
import { projectSchema, type Project } from './schema.ts';
import { valueAt } from './value-at.ts';

enablePatches();

/** One command with its input; a gesture may be several, undone together. */
export type Action = { [K in CommandName]: { readonly command: K; readonly input: Inputs[K] } }[CommandName];

/** A field of a record set to a value, or taken away. Lists are fields: they are replaced whole, never by index. */
export interface FieldChange {
  readonly op: 'set' | 'remove';
  readonly path: readonly string[];
  readonly value?: unknown;
}

/** The effect of a gesture on a project, with its inverse; name and input stay beside it for labels and the log. */
interface Change {
  readonly label: string;
  readonly actions: readonly Action[];
  readonly forward: readonly FieldChange[];
  readonly backward: readonly FieldChange[];
}

interface Performed {
  readonly project: Project;
  readonly change: Change;
}

/**
 * Runs a gesture on a project: pure, all or nothing. Asked without using the result, it answers whether the gesture is
 * possible and why not.
 */
export function perform(project: Project, actions: readonly Action[]): Result<Performed> {
  return attempt(() => {
    const labels: string[] = [];
    const [next, patches, inverse] = produceWithPatches(project, (draft: Project) => {
      for (const action of actions) labels.push(runCommand(draft, action));
    });
    const wrong = checkProject(next);
    if (wrong) throw new IssueError(wrong);
    const main = actions.findIndex(({ command }) => !COMMANDS[command].prepares);
    const change: Change = {
      label: labels[Math.max(main, 0)] ?? 'Nothing',
      actions,
      forward: fieldChanges(patches, next, project),
      backward: fieldChanges([...inverse], project, next),
    };
    return { project: next, change };
  });
}

function runCommand(draft: Project, action: Action): string {
  const command = COMMANDS[action.command];
  const input = command.schema.safeParse(action.input);
  if (!input.success) {
    const [wrong] = input.error.issues;
    throw new IssueError(
      issue('command.input', { command: action.command, path: wrong!.path.join('.'), reason: wrong!.message }),
    );
  }
  return (command.run as (draft: Project, input: unknown) => string)(draft, input.data);
}

/** Immer's patches by field: where a path enters a list, the list as a whole is the field. */
function fieldChanges(patches: readonly Patch[], after: Project, before: Project): FieldChange[] {
  const changes = new Map<string, FieldChange>();
  for (const patch of patches) {
    const path = fieldPath(patch.path, after, before);
    const whole = path.length < patch.path.length;
    const value: unknown = whole ? valueAt(after, path) : patch.value;
    const change: FieldChange = patch.op === 'remove' && !whole ? { op: 'remove', path } : { op: 'set', path, value };
    // of two changes of one field the later stands, in the later one's place
    const key = JSON.stringify(path);
    changes.delete(key);
    changes.set(key, change);
  }
  return [...changes.values()];
}

function fieldPath(path: readonly (string | number)[], after: Project, before: Project): string[] {
  for (let length = 1; length < path.length; length++) {
    const head = path.slice(0, length).map(String);
    if (Array.isArray(valueAt(after, head) ?? valueAt(before, head))) return head;
  }
  return path.map(String);
}

/**
 * Applies field changes to a sound project that may have moved on since they were made. Fails with change.gone where a record
 * that they change is not there any more, and where the result would not be a sound project.
 */
export function applyChange(project: Project, changes: readonly FieldChange[]): Result<Project> {
  for (const { path } of changes)
    if (path.length === 0 || path.some((key) => key === '__proto__' || key === 'constructor' || key === 'prototype'))
      return fail('change.path', { path: path.join('.') });
  const patched = attempt(() => patchFields(project, changes));
  if (!patched.ok) return patched;
  const misfit = misfitOf(projectSchema, patched.value, project);
  if (misfit) return fail('change.invalid', { path: misfit.path.join('.'), reason: misfit.reason });
  const wrong = checkProject(patched.value);
  return wrong ? { ok: false, issue: wrong } : ok(patched.value);
}

/** Records are made before what lies in them and removed after; each parent must be there when its field is set. */
export function patchFields(project: Project, changes: readonly FieldChange[]): Project {
  let patched = project;
  for (const { op, path, value } of changes) {
    const parent = valueAt(patched, path.slice(0, -1));
    if (typeof parent !== 'object' || parent === null)
      throw new IssueError(issue('change.gone', { path: path.join('.') }));
    if (op === 'remove' && !Object.hasOwn(parent, path.at(-1)!)) continue;
    patched = applyPatches(patched, [
      op === 'remove' ? { op, path: [...path] } : { op: 'add', path: [...path], value },
    ]);
  }
  return patched;
}
