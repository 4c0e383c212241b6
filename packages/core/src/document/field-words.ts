import type { Project } from './schema.ts';
import { valueAt } from './value-at.ts';

/** Words for a field of a project, by the names of the records that it lies in: "distance of Lid plate in Lid". */
export function fieldWords(project: Project, path: readonly string[]): string {
  const names = path
    .map((_, k) => valueAt(project, path.slice(0, k + 1)))
    .flatMap((node) => {
      const name = typeof node === 'object' && node !== null ? (node as { name?: unknown }).name : undefined;
      return typeof name === 'string' ? [name] : [];
    });
  const field = spaced(path.at(-1)!);
  // values are told by their keys
  const [own, ...around] = names.length > 0 ? names.reverse() : path.slice(0, -1).slice(-1);
  if (own === undefined) return field === 'name' ? 'name of the project' : field;
  return [`${field} of ${own}`, ...around].join(' in ');
}

/** "setBack" as it is said: "set back". */
const spaced = (key: string): string => key.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

/** A value as it is shown beside another; undefined for what has no short form. */
export function shownValue(value: unknown): string | undefined {
  if (value === undefined) return 'nothing';
  if (typeof value !== 'string' && typeof value !== 'number' && typeof value !== 'boolean') return undefined;
  return String(value).length > MOST_SHOWN ? undefined : `${value}`;
}
const MOST_SHOWN = 60;
