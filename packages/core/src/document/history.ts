import type { Result } from '../result/index.ts';
import { fail } from '../result/index.ts';
import { applyChange, type FieldChange } from './perform.ts';
import { rebased } from './rebase.ts';
import type { Project } from './schema.ts';

/** An entry of the revision log, as undo sees it. Undoing and redoing are entries too: the log only grows. */
export interface LogEntry {
  readonly id: string;
  readonly kind: 'do' | 'undo' | 'redo';
  readonly label: string;
  /** The entry that is undone or redone. */
  readonly of?: string | undefined;
  readonly forward: readonly FieldChange[];
  readonly backward: readonly FieldChange[];
}

export interface Stacks {
  /** What can be undone, the latest last. */
  readonly undo: readonly LogEntry[];
  /** What can be redone, the latest undone last. */
  readonly redo: readonly LogEntry[];
}

/** The undo and redo stacks after a log: a pure function, so that they survive reloads. */
export function stacksOf(log: readonly LogEntry[]): Stacks {
  return log.reduce(pushed, { undo: [], redo: [] });
}

export function pushed({ undo, redo }: Stacks, entry: LogEntry): Stacks {
  if (entry.kind === 'do') return { undo: [...undo, entry], redo: [] };
  const [from, to] = entry.kind === 'undo' ? [undo, redo] : [redo, undo];
  const moved = from.find((other) => other.id === entry.of);
  if (!moved) return { undo, redo };
  const rest = from.filter((other) => other !== moved);
  return entry.kind === 'undo' ? { undo: rest, redo: [...to, moved] } : { undo: [...to, moved], redo: rest };
}

/** The log entry that undoes or redoes the top of a stack; fails where the records are gone meanwhile. */
export function reversal(
  project: Project,
  stacks: Stacks,
  kind: 'undo' | 'redo',
  id: string,
): Result<{ readonly project: Project; readonly entry: LogEntry }> {
  const target = stacks[kind].at(-1);
  if (!target) return fail(`history.${kind}`);
  const { forward: done, backward: undone } = target;
  const opposite = kind === 'undo' ? { forward: undone, backward: done } : { forward: done, backward: undone };
  // others may have changed the same lists meanwhile
  const { forward, backward } = rebased(opposite, project);
  const next = applyChange(project, forward);
  if (!next.ok) return next;
  return {
    ok: true,
    value: { project: next.value, entry: { id, kind, label: target.label, of: target.id, forward, backward } },
  };
}
