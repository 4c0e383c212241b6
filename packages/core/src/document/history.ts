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
  /** The window in which it was made: each undoes its own steps. */
  readonly by?: string | undefined;
  readonly forward: readonly FieldChange[];
  readonly backward: readonly FieldChange[];
}

export interface Stacks {
  /** What can be undone, the latest last. */
  readonly undo: readonly LogEntry[];
  /** What can be redone, the latest undone last. */
  readonly redo: readonly LogEntry[];
}

/**
 * The undo and redo stacks after a log: a pure function, so that they survive reloads.
 * @param isOwn entries that are there to be undone; those of others are passed
 */
export function stacksOf<E extends LogEntry>(log: readonly E[], isOwn: (entry: E) => boolean = () => true): Stacks {
  return log.reduce<Stacks>((stacks, entry) => (isOwn(entry) ? pushed : passed)(stacks, entry), { undo: [], redo: [] });
}

/** The stacks after what somebody else did: what they have undone or redone is not there to be undone again. */
export function passed({ undo, redo }: Stacks, { kind, of }: LogEntry): Stacks {
  if (kind === 'do') return { undo, redo };
  const others = (entries: readonly LogEntry[]) => entries.filter(({ id }) => id !== of);
  return { undo: others(undo), redo: others(redo) };
}

/** The stacks after one's own entry. */
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
