import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ASSEMBLY_RELATIONS, JOINTS } from '../assembly/index.ts';
import { MARK_NAMES, markTitle, type Mark } from '../drawing/index.ts';
import { entityKind, entitySchema, RELATION_NAMES, relationKind } from '../sketch/index.ts';
import { STEP_NAMES, stepKind } from '../steps/index.ts';

const ROOT = join(import.meta.dirname, '../../../..');
const page = readFileSync(join(ROOT, 'docs/glossary.md'), 'utf8');

interface Row {
  readonly word: string;
  readonly code: readonly string[];
}

/** The rows of the table under a heading. */
function rowsUnder(heading: string): Row[] {
  const section = page.split(/^## /m).find((text) => text.startsWith(`${heading}\n`))!;
  return [...section.matchAll(/^\| ([^|]*) \| ([^|]*) \|/gm)].map(([, word, code]) => ({
    word: word!.trim().toLowerCase(),
    code: [...code!.matchAll(/`([^`]+)`/g)].map(([, term]) => term!),
  }));
}

const kindsOf = (schema: { readonly options: readonly { readonly shape: { readonly kind: unknown } }[] }): string[] =>
  schema.options.map(({ shape }) => (shape.kind as { readonly value: string }).value);
const titled = (of: Readonly<Record<string, { readonly title: string }>>): [string, string][] =>
  Object.entries(of).map(([kind, { title }]) => [kind, title]);

test.each<[string, [string, string][]]>([
  ['Building', STEP_NAMES.map((kind) => [kind, stepKind(kind).title])],
  ['Sketches', kindsOf(entitySchema).map((kind) => [kind, entityKind(kind as never).title])],
  ['Sketches', RELATION_NAMES.map((kind) => [kind, relationKind(kind).title])],
  ['Together', titled(JOINTS)],
  ['Together', titled(ASSEMBLY_RELATIONS)],
  ['Sheets', MARK_NAMES.map((kind) => [kind, markTitle({ kind } as Mark)])],
])('%s: every title of the register stands there beside its kind', (heading, titles) => {
  const rows = rowsUnder(heading);
  expect(titles.length).toBeGreaterThan(5);
  const lacking = titles.filter(
    ([kind, title]) => !rows.some(({ word, code }) => word === title.toLowerCase() && code.includes(kind)),
  );
  expect(lacking).toEqual([]);
});

test('every term that it says is in code is there', () => {
  const folders = ['packages/core/src', 'packages/kernel/src', 'packages/engine/src'];
  const sources = folders.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
      .map((file) => readFileSync(join(ROOT, folder, file), 'utf8')),
  );
  const names = new Set(sources.flatMap((text) => text.match(/[A-Za-z][A-Za-z0-9-]*/g) ?? []));
  const terms = [...page.matchAll(/^\| [^|]* \| ([^|]*) \|/gm)]
    .flatMap(([, code]) => [...code!.matchAll(/`([A-Za-z][A-Za-z0-9.-]*)`/g)].map(([, term]) => term!))
    .flatMap((term) => term.split('.'));
  expect(terms.length).toBeGreaterThan(100);
  expect(terms.filter((term) => !names.has(term))).toEqual([]);
});
