import type { FieldChange } from './perform.ts';
import type { Project } from './schema.ts';
import { valueAt } from './value-at.ts';

interface BothWays {
  readonly forward: readonly FieldChange[];
  readonly backward: readonly FieldChange[];
}

/**
 * A change made on one project, to be applied to another: its lists are merged with what has come meanwhile, so that two
 * people who each add something keep both. Fields other than lists are taken as they are: the later one stands.
 */
export function rebased<C extends BothWays>(change: C, onto: Project): C {
  const before = new Map(change.backward.map(({ path, value }) => [path.join('/'), value]));
  const lists = new Map<string, { merged: readonly string[]; theirs: readonly string[] }>();
  for (const { path, value } of change.forward) {
    const key = path.join('/');
    const [base, theirs] = [before.get(key), valueAt(onto, path)];
    if (isList(base) && isList(value) && isList(theirs))
      lists.set(key, { merged: mergeLists(base, value, theirs), theirs });
  }
  if (lists.size === 0) return change;
  const replaced = (changes: readonly FieldChange[], which: 'merged' | 'theirs') =>
    changes.map((entry) => {
      const list = lists.get(entry.path.join('/'));
      return list ? { ...entry, value: list[which] } : entry;
    });
  return { ...change, forward: replaced(change.forward, 'merged'), backward: replaced(change.backward, 'theirs') };
}

const isList = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.every((entry) => typeof entry === 'string');

/**
 * Three-way merge of two orders of ids: what either removed is gone, what either added is there, behind the one it was
 * put behind. Where `mine` moved entries its order stands.
 */
export function mergeLists(base: readonly string[], mine: readonly string[], theirs: readonly string[]): string[] {
  const common = (list: readonly string[], others: readonly string[]) => list.filter((id) => others.includes(id));
  const moved = common(base, mine).join() !== common(mine, base).join();
  const alive = (id: string) =>
    (mine.includes(id) && theirs.includes(id)) || (!base.includes(id) && (mine.includes(id) || theirs.includes(id)));
  const [leading, other] = moved ? [mine, theirs] : [theirs, mine];
  const merged = leading.filter(alive);
  other.forEach((id, k) => {
    if (merged.includes(id) || !alive(id)) return;
    const behind = other.slice(0, k).findLast((earlier) => merged.includes(earlier));
    merged.splice(behind === undefined ? 0 : merged.indexOf(behind) + 1, 0, id);
  });
  return merged;
}
