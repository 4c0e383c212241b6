import { fieldWords, shownValue, valueAt, type FieldChange, type LogEntry, type Project } from '@helb/core';

/** A field that was set in two windows, with both values: one of them stands, the other can be taken. */
export interface Clash {
  readonly path: readonly string[];
  readonly words: string;
  /** What this window has set, and what another one has. */
  readonly ours: FieldChange;
  readonly theirs: FieldChange;
  readonly stands: 'ours' | 'theirs';
}

/** What this window has set last in each field, by its path. */
type OwnFields = ReadonlyMap<string, FieldChange>;

export const fieldKey = (path: readonly string[]): string => JSON.stringify(path);

/** What these entries set last, by its path. */
export const fieldsOf = (entries: readonly LogEntry[]): OwnFields =>
  new Map(entries.flatMap(({ forward }) => forward.map((change) => [fieldKey(change.path), change] as const)));

/**
 * Fields that somebody else has set to something else than this window has.
 * @param project as it is now, for the names
 * @param stands what is set now
 */
export function clashesOf(
  project: Project,
  own: OwnFields,
  theirs: readonly FieldChange[],
  stands: Clash['stands'],
): Clash[] {
  return theirs.flatMap((change) => {
    const ours = own.get(fieldKey(change.path));
    // lists are merged: both keep what they added
    const isList = Array.isArray(ours?.value) || Array.isArray(change.value);
    if (!ours || isList || isSame(ours, change)) return [];
    return [{ path: change.path, words: fieldWords(project, change.path), ours, theirs: change, stands }];
  });
}

const isSame = (a: FieldChange, b: FieldChange): boolean =>
  a.op === b.op && JSON.stringify(a.value) === JSON.stringify(b.value);

/** The entry that takes the other value. */
export function taking(project: Project, clash: Clash, id: string): LogEntry {
  const taken = clash.stands === 'ours' ? clash.theirs : clash.ours;
  const value = valueAt(project, clash.path);
  const back: FieldChange =
    value === undefined ? { op: 'remove', path: clash.path } : { op: 'set', path: clash.path, value };
  return { id, kind: 'do', label: `Take the other ${clash.words}`, forward: [taken], backward: [back] };
}

/** A clash as a person reads it. */
export function clashWords({ words, ours, theirs, stands }: Clash): { readonly told: string; readonly take: string } {
  const [here, there] = [ours, theirs].map(({ op, value }) => (op === 'remove' ? 'nothing' : shownValue(value)));
  const values = here !== undefined && there !== undefined ? `: ${here} here, ${there} in another window` : '';
  const told = `The ${words} was set in two windows${values}. ${stands === 'ours' ? 'Yours' : 'Theirs'} stands.`;
  const other = stands === 'ours' ? there : here;
  return { told, take: other === undefined ? 'take the other' : `take ${other}` };
}
