import Papa from 'papaparse';
import type { Action, Project, Value, Variant } from '../document/index.ts';
import { nameIssue, parse, tidyName, valueScope } from '../expressions/index.ts';
import type { Id } from '../records/index.ts';
import { fail, issue, ok, type Issue, type Result, type Words } from '../result/index.ts';
import { formatQuantity } from '../units/index.ts';

// The named values as a table for a spreadsheet (CSV, RFC 4180), and back with what is different.

const LIMIT = { bytes: 2 * 1024 * 1024, rows: 1000 };
const COLUMNS = ['name', 'expression', 'comes to', 'note', 'group'] as const;
/** The column of a variant: no name of a variant can be taken for another column. */
const columnOf = (variant: string): string => `as ${variant}`;
/** What a column was when the table was written: tells a change here from a change there. */
const wasOf = (column: string): string => `was ${column}`;

/** One line a value; a column for each variant, empty where it is as in the project itself. */
export function writeValueTable(project: Project): string {
  const scope = valueScope(Object.values(project.values), project.unit);
  const variants = Object.values(variantsIn(project));
  const rows = project.valueOrder.map((id) => {
    const { name, expression, note = '', group = '' } = project.values[id]!;
    const result = scope.lookup(name);
    const comesTo = result.ok ? formatQuantity(result.value, project.unit, 6) : '';
    const varied = variants.map(({ values }) => values[id] ?? '');
    return [name, expression, comesTo, note, group, ...varied, expression, ...varied];
  });
  const columns = variants.map(({ name }) => columnOf(name));
  const was = ['expression', ...columns].map(wasOf);
  return Papa.unparse([[...COLUMNS, ...columns, ...was], ...rows], { escapeFormulae: true });
}

/** The variants by their ids, in their order. */
const variantsIn = ({ variants = {}, variantOrder = [] }: Project): Readonly<Record<Id, Variant>> =>
  Object.fromEntries(variantOrder.map((id) => [id, variants[id]!]));

/** A difference between a table and the project, and what would take it over. */
export interface TableChange {
  readonly value: string;
  /** What of it, by its column: "expression", "note", "group", or "as school". */
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
  const { data, meta } = Papa.parse<Row>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim(),
    transform: (cell) => cell.trim().replace(/^'(?=[=+\-@])/, ''),
  });
  const columns = meta.fields ?? [];
  if (!columns.includes('name') || !columns.includes('expression')) return fail('table.columns');
  if (data.length > LIMIT.rows) return fail('table.rows', { most: LIMIT.rows });
  const varied = Object.values(variantsIn(project)).map(({ name }) => columnOf(name));
  const known = new Set<string>([...COLUMNS, ...varied, ...['expression', ...varied].map(wasOf)]);
  const reader = new Reader(project, newId);
  data.forEach((row) => reader.row(row));
  return ok({
    changes: reader.changes,
    absent: Object.values(project.values).flatMap(({ name }) => (reader.seen.has(name) ? [] : [name])),
    ignored: columns.filter((column) => column !== '' && !known.has(column)),
  });
}

type Row = Readonly<Record<string, string>>;

class Reader {
  readonly changes: TableChange[] = [];
  readonly seen = new Set<string>();
  private readonly byName: ReadonlyMap<string, readonly [Id, Value]>;

  constructor(
    private readonly project: Project,
    private readonly newId: () => Id,
  ) {
    this.byName = new Map(Object.entries(project.values).map(([id, value]) => [value.name, [id, value] as const]));
  }

  row(row: Row): void {
    const value = tidyName(row['name'] ?? '');
    if (this.seen.has(value)) return this.wrong(value, 'name', value, issue('table.twice', { name: value }));
    this.seen.add(value);
    const known = this.byName.get(value);
    const id = known?.[0] ?? this.newId();
    const has = known?.[1];
    if (!has && !this.isNew(value, id, row)) return;
    const changed = (of: string, here: string, action: (there: string) => Action) =>
      this.compare(row, { value, of, here }, action);
    if (has)
      changed('expression', has.expression, (expression) => ({ command: 'value.set', input: { id, expression } }));
    changed('note', has?.note ?? '', (note) => ({ command: 'value.note', input: { id, note: note.slice(0, 200) } }));
    changed('group', has?.group ?? '', (group) => ({
      command: 'value.group',
      input: { id, ...(group ? { group: group.slice(0, 60) } : {}) },
    }));
    for (const [variant, { name, values }] of Object.entries(variantsIn(this.project)))
      changed(columnOf(name), values[id] ?? '', (expression) => ({
        command: 'variant.set',
        input: { id: variant, value: id, ...(expression ? { expression } : {}) },
      }));
  }

  private isNew(value: string, id: Id, { expression = '' }: Row): boolean {
    const wrong = nameIssue(value, []) ?? unreadable(expression);
    const change = { value, of: 'expression', here: '', there: expression };
    if (wrong) this.wrong(value, 'expression', expression, wrong);
    else
      this.changes.push({
        ...change,
        kind: 'new',
        actions: [{ command: 'value.add', input: { id, name: value, expression } }],
      });
    return !wrong;
  }

  /** Notes what a column says otherwise; what was changed here only is no difference of the table. */
  private compare(row: Row, at: Pick<TableChange, 'value' | 'of' | 'here'>, action: (there: string) => Action): void {
    const there = row[at.of];
    // an expression was never empty: a table that was written by hand does not say
    const was = at.of === 'expression' ? row[wasOf(at.of)] || undefined : row[wasOf(at.of)];
    if (there === undefined || there === at.here || there === was) return;
    const isText = at.of === 'note' || at.of === 'group';
    const wrong = isText || (there === '' && at.of !== 'expression') ? undefined : unreadable(there);
    if (wrong) return this.wrong(at.value, at.of, there, wrong);
    const both = was !== undefined && was !== at.here;
    this.changes.push({ ...at, there, kind: both ? 'both' : 'changed', actions: [action(there)] });
  }

  private wrong(value: string, of: string, there: string, trouble: Issue): void {
    this.changes.push({ value, of, kind: 'wrong', here: '', there, issue: trouble, actions: [] });
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
