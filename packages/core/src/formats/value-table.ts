import Papa from 'papaparse';
import { basisOf, type Action, type Project, type Value } from '../document/index.ts';
import { nameIssue, parse, tidyName, valueScope } from '../expressions/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Issue, type Result, type Words } from '../result/index.ts';
import { formatQuantity } from '../units/index.ts';

// The named values as a table for a spreadsheet (CSV, RFC 4180), and back with what is different.

const LIMIT = { bytes: 2 * 1024 * 1024, rows: 1000 };
const COLUMNS = ['name', 'expression', 'comes to', 'note', 'group'] as const;
/** What the expression was when the table was written: tells a change here from a change there. */
const WAS = 'was';

/** One line a value; a column for each variant, empty where it is as in the project itself. */
export function writeValueTable(project: Project): string {
  const scope = valueScope(Object.values(project.values), project.unit);
  const variants = (project.variantOrder ?? []).map((id) => project.variants![id]!);
  const rows = project.valueOrder.map((id) => {
    const { name, expression, note = '', group = '' } = project.values[id]!;
    const result = scope.lookup(name);
    const comesTo = result.ok ? formatQuantity(result.value, project.unit, 6) : '';
    return [name, expression, comesTo, note, group, ...variants.map(({ values }) => values[id] ?? ''), expression];
  });
  return Papa.unparse([[...COLUMNS, ...variants.map(({ name }) => name), WAS], ...rows], { escapeFormulae: true });
}

/** A difference between a table and the project, and what would take it over. */
export interface TableChange {
  readonly value: string;
  /** What of it: "expression", "note", "group", or the name of a variant. */
  readonly of: string;
  readonly kind: 'new' | 'changed' | 'both' | 'wrong';
  readonly here: string;
  readonly there: string;
  /** Why it can not be taken over; of kind `wrong`. */
  readonly issue?: Issue;
  readonly actions: readonly Action[];
}

export interface TableReading {
  readonly changes: readonly TableChange[];
  /** Values that are not in the table; they stay as they are. */
  readonly absent: readonly string[];
  /** Columns that mean nothing here. */
  readonly ignored: readonly string[];
}

/** What a table says otherwise than the project. Fails where it is no such table. */
export function readValueTable(text: string, project: Project, newId: () => Id): Result<TableReading> {
  if (text.length > LIMIT.bytes) return fail('table.large', { most: LIMIT.bytes / 1024 ** 2 });
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim(),
    transform: (cell) => cell.trim().replace(/^'(?=[=+\-@])/, ''),
  });
  const columns = meta.fields ?? [];
  if (!columns.includes('name') || !columns.includes('expression')) return fail('table.columns');
  if (data.length > LIMIT.rows) return fail('table.rows', { most: LIMIT.rows });
  const variants = (project.variantOrder ?? []).map((id) => ({ id, name: project.variants![id]!.name }));
  const known = new Set<string>([...COLUMNS, WAS, ...variants.map(({ name }) => name)]);
  const reader = new Reader(project, variants, newId);
  data.forEach((row) => reader.row(row));
  return ok({
    changes: reader.changes,
    absent: Object.values(project.values).flatMap(({ name }) => (reader.seen.has(name) ? [] : [name])),
    ignored: columns.filter((column) => column !== '' && !known.has(column)),
  });
}

class Reader {
  readonly changes: TableChange[] = [];
  readonly seen = new Set<string>();
  private readonly byName: ReadonlyMap<string, readonly [Id, Value]>;

  constructor(
    private readonly project: Project,
    private readonly variants: readonly { readonly id: Id; readonly name: string }[],
    private readonly newId: () => Id,
  ) {
    this.byName = new Map(Object.entries(project.values).map(([id, value]) => [value.name, [id, value] as const]));
  }

  row(row: Readonly<Record<string, string>>): void {
    const name = tidyName(row['name'] ?? '');
    if (this.seen.has(name)) return this.wrong(name, 'name', name, fail('table.twice', { name }).issue);
    this.seen.add(name);
    const found = this.byName.get(name);
    const id = found?.[0] ?? this.newId();
    if (!found && !this.isNew(name, id, row)) return;
    const value = found?.[1];
    if (value) this.expression(id, value, row);
    for (const field of ['note', 'group'] as const) {
      const there = row[field];
      if (there === undefined || there === (value?.[field] ?? '')) continue;
      const action: Action =
        field === 'note'
          ? { command: 'value.note', input: { id, note: there.slice(0, 200) } }
          : { command: 'value.group', input: { id, ...(there ? { group: there.slice(0, 60) } : {}) } };
      this.changes.push({
        value: name,
        of: field,
        kind: 'changed',
        here: value?.[field] ?? '',
        there,
        actions: [action],
      });
    }
    for (const variant of this.variants) this.varied(id, name, variant, row[variant.name]);
  }

  private isNew(name: string, id: Id, { expression = '' }: Readonly<Record<string, string>>): boolean {
    const issue = nameIssue(name, []) ?? unreadable(expression);
    if (issue) this.wrong(name, 'expression', expression, issue);
    else
      this.changes.push({
        value: name,
        of: 'expression',
        kind: 'new',
        here: '',
        there: expression,
        actions: [{ command: 'value.add', input: { id, name, expression } }],
      });
    return !issue;
  }

  private expression(id: Id, { name, expression: here }: Value, row: Readonly<Record<string, string>>): void {
    const there = row['expression'] ?? '';
    const was = row[WAS];
    // what was changed here only is no difference of the table
    if (there === here || there === was) return;
    const issue = unreadable(there);
    if (issue) return this.wrong(name, 'expression', there, issue);
    const both = was !== undefined && was !== '' && was !== here;
    this.changes.push({
      value: name,
      of: 'expression',
      kind: both ? 'both' : 'changed',
      here,
      there,
      actions: [{ command: 'value.set', input: { id, expression: there } }],
    });
  }

  private varied(id: Id, value: string, variant: { id: Id; name: string }, there: string | undefined): void {
    const here = this.project.variants![variant.id]!.values[id] ?? '';
    if (there === undefined || there === here) return;
    const issue = there === '' ? undefined : unreadable(there);
    if (issue) return this.wrong(value, variant.name, there, issue);
    const expression = there === '' ? {} : { expression: there };
    this.changes.push({
      value,
      of: variant.name,
      kind: 'changed',
      here: here || `as ${basisOf(this.project)}`,
      there: there || `as ${basisOf(this.project)}`,
      actions: [{ command: 'variant.set', input: { id: variant.id, value: id, ...expression } }],
    });
  }

  private wrong(value: string, of: string, there: string, issue: Issue): void {
    this.changes.push({ value, of, kind: 'wrong', here: '', there, issue, actions: [] });
  }
}

function unreadable(expression: string): Issue | undefined {
  const parsed = parse(expression);
  return parsed.ok ? undefined : parsed.issue;
}

export const tableWords: Words = {
  'table.columns': () => 'This is no table of values: its first line has to name the columns "name" and "expression".',
  'table.rows': (f) => `The table has more than ${f['most']} lines.`,
  'table.large': (f) => `The table is larger than ${f['most']} MB.`,
  'table.twice': (f) => `"${f['name']}" stands in the table twice.`,
};
