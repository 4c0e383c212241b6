import { patchFields, type FieldChange } from './perform.ts';
import type { Project } from './schema.ts';

type Fields = Readonly<Record<string, unknown>>;
const isRecord = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * The field changes that lead from one project to another. Projects that come from each other share what did not change:
 * only what is not the same object is looked into, so that this costs as much as what has changed.
 */
export function differenceOf(before: Project, after: Project): FieldChange[] {
  const changes: FieldChange[] = [];
  const compare = (was: Fields, is: Fields, path: readonly string[]): void => {
    for (const key of Object.keys(was))
      if (!Object.hasOwn(is, key)) changes.push({ op: 'remove', path: [...path, key] });
    for (const [key, value] of Object.entries(is)) {
      const old = Object.hasOwn(was, key) ? was[key] : undefined;
      if (old === value) continue;
      if (isRecord(old) && isRecord(value)) compare(old, value, [...path, key]);
      else if (!isSameField(old, value)) changes.push({ op: 'set', path: [...path, key], value });
    }
  };
  compare(before, after, []);
  return changes;
}

/** Lists are fields: they are told whole, where they differ at all. */
const isSameField = (a: unknown, b: unknown): boolean =>
  Array.isArray(a) && Array.isArray(b) && JSON.stringify(a) === JSON.stringify(b);

/** Is all that two projects hold the same? */
export const sameProject = (a: Project, b: Project): boolean => a === b || differenceOf(a, b).length === 0;

/** A project after changes that lead from it to another sound one: they are not checked again. */
export const withDifference = (project: Project, changes: readonly FieldChange[]): Project =>
  patchFields(project, changes);
