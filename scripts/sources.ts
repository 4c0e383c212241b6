import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parse } from '@vue/compiler-sfc';
import ts from 'typescript';
import { ROOT } from './build-server.ts';

/** A source file of the product; of a component its script. */
export interface Source {
  /** From the root of the project. */
  readonly file: string;
  readonly text: string;
  readonly tree: ts.SourceFile;
}

/** Where the product lives. */
export const FOLDERS = [
  'packages/core/src',
  'packages/kernel/src',
  'packages/engine/src',
  'apps/server/src',
  'apps/web/src',
];
/** Whose exports are for others. */
const PUBLIC = ['packages/core/src', 'packages/kernel/src', 'packages/engine/src'];

/** All sources that are shipped: without tests, samples and the demo project. */
export function sources(): Source[] {
  return FOLDERS.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.(ts|vue)$/.test(name) && !/\.test\.ts$|test-fixture|^(demo|samples)\//.test(name))
      .map((name) => {
        const file = join(folder, name);
        const whole = readFileSync(join(ROOT, file), 'utf8');
        const text = name.endsWith('.vue') ? (parse(whole).descriptor.scriptSetup?.content ?? '') : whole;
        return { file, text, tree: ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true) };
      }),
  );
}

/** Files that need each other, all round: strongly connected components of the imports of values (Tarjan 1972). */
export function importCycles(all: readonly Pick<Source, 'file' | 'tree'>[]): string[][] {
  const needs = new Map(all.map(({ file, tree }) => [file, tree.statements.flatMap((one) => importOf(one, file))]));
  const [index, low] = [new Map<string, number>(), new Map<string, number>()];
  const stack: string[] = [];
  const knots: string[][] = [];
  const visit = (file: string): void => {
    index.set(file, index.size);
    low.set(file, index.get(file)!);
    stack.push(file);
    for (const next of needs.get(file) ?? []) {
      if (!index.has(next)) visit(next);
      if (stack.includes(next)) low.set(file, Math.min(low.get(file)!, low.get(next)!));
    }
    if (low.get(file) !== index.get(file)) return;
    const knot = stack.splice(stack.indexOf(file));
    if (knot.length > 1) knots.push(knot);
  };
  for (const file of needs.keys()) if (!index.has(file)) visit(file);
  return knots;
}

/** The file that a statement imports values from. */
function importOf(statement: ts.Statement, file: string): string[] {
  const isImport = ts.isImportDeclaration(statement);
  if (!isImport && !ts.isExportDeclaration(statement)) return [];
  const { moduleSpecifier: from } = statement;
  const isType = isImport ? statement.importClause?.isTypeOnly === true : statement.isTypeOnly;
  return from && ts.isStringLiteral(from) && from.text.startsWith('.') && !isType
    ? [join(dirname(file), from.text)]
    : [];
}

/** Exported functions without a sentence on what they give, and other exports without one on what they are. */
export function undocumented(all: readonly Source[]): {
  readonly functions: readonly string[];
  readonly others: readonly string[];
} {
  const bare = all
    .filter(({ file }) => PUBLIC.some((folder) => file.startsWith(folder)))
    .flatMap(({ file, tree }) => tree.statements.map((node) => ({ file, tree, node })))
    .filter(({ node }) => isExported(node) && ts.getJSDocCommentsAndTags(node).length === 0)
    .map(({ file, tree, node }) => ({
      where: `${file}:${tree.getLineAndCharacterOfPosition(node.getStart()).line + 1}`,
      isFunction: isFunction(node),
    }));
  const wheres = (functions: boolean) => bare.flatMap(({ where, isFunction: is }) => (is === functions ? [where] : []));
  return { functions: wheres(true), others: wheres(false) };
}

const isExported = (node: ts.Statement): boolean =>
  ts.canHaveModifiers(node) && ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) === true;

const isFunction = (node: ts.Statement): boolean =>
  ts.isFunctionDeclaration(node) ||
  (ts.isVariableStatement(node) &&
    node.declarationList.declarations.some(({ initializer }) => initializer && ts.isArrowFunction(initializer)));
