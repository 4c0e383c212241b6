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

/** What uses the product without being part of it. */
const BESIDE = ['apps/server/test', 'scripts', 'bench', 'fuzz', 'e2e'];

/** All sources that are shipped: without tests, samples and the demo project. */
export const sources = (): Source[] =>
  read(FOLDERS, (name) => !/\.test\.ts$|test-fixture|^(demo|samples)\//.test(name));

/** All sources: what is shipped, and what tests, measures and shows it. */
export const allSources = (): Source[] => read([...FOLDERS, ...BESIDE], () => true);

function read(folders: readonly string[], wanted: (name: string) => boolean): Source[] {
  return folders.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.(ts|vue)$/.test(name) && !name.includes('node_modules') && wanted(name))
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

/** Exports of the product that no other file asks for, as "file: name". What passes all on (`export *`) is looked through. */
export function unusedExports(all: readonly Pick<Source, 'file' | 'tree'>[]): string[] {
  const modules = new Map(all.map(({ file, tree }) => [file, exportsOf(tree, file)]));
  const used = new Set<string>();
  const use = (file: string, name: string): void => {
    const module = modules.get(file);
    if (!module) return;
    if (name !== EVERYTHING) used.add(`${file}: ${name}`);
    else for (const own of module.names) used.add(`${file}: ${own}`);
    if (!module.names.has(name)) for (const behind of module.passedOn) use(behind, name);
  };
  for (const { file, tree } of all) for (const [from, name] of usesOf(tree, file)) use(from, name);
  return [...modules]
    .filter(([file]) => FOLDERS.some((folder) => file.startsWith(folder)))
    .flatMap(([file, { names }]) => [...names].map((name) => `${file}: ${name}`).filter((one) => !used.has(one)));
}

const EVERYTHING = '*';

/** Where a specifier leads to within the project; elsewhere undefined. */
function fileOf(specifier: ts.Node | undefined, file: string): string | undefined {
  if (!specifier || !ts.isStringLiteral(specifier)) return undefined;
  if (specifier.text.startsWith('.')) return join(dirname(file), specifier.text);
  const [, room, folder] = /^@helb\/([^/]+)(?:\/(.+))?$/.exec(specifier.text) ?? [];
  return room && join('packages', room, 'src', folder ?? '', 'index.ts');
}

/** What a file exports by name, and the files of which it passes on all. */
function exportsOf(tree: ts.SourceFile, file: string): { names: ReadonlySet<string>; passedOn: readonly string[] } {
  const names = new Set<string>();
  const passedOn: string[] = [];
  for (const one of tree.statements) {
    if (ts.isExportDeclaration(one)) {
      const { exportClause: clause, moduleSpecifier } = one;
      const from = fileOf(moduleSpecifier, file);
      if (clause && ts.isNamedExports(clause)) for (const { name } of clause.elements) names.add(name.text);
      else if (from) passedOn.push(from);
    } else if (isExported(one)) {
      if (ts.isVariableStatement(one)) {
        for (const { name } of one.declarationList.declarations) if (ts.isIdentifier(name)) names.add(name.text);
      } else if ('name' in one) names.add((one.name as ts.Identifier).text);
    }
  }
  return { names, passedOn };
}

/** What a file asks of others, as [file, name]. */
function usesOf(tree: ts.SourceFile, file: string): [from: string, name: string][] {
  const uses: [string, string][] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) {
      const from = fileOf(node.moduleSpecifier, file);
      const clause = ts.isImportDeclaration(node) ? node.importClause?.namedBindings : node.exportClause;
      if (from && clause && (ts.isNamedImports(clause) || ts.isNamedExports(clause)))
        for (const { name, propertyName } of clause.elements) uses.push([from, (propertyName ?? name).text]);
      else if (from && clause) uses.push([from, EVERYTHING]);
    } else if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword) {
      const from = fileOf(node.arguments[0], file);
      if (from) uses.push([from, EVERYTHING]);
    } else if (ts.isImportTypeNode(node) && ts.isLiteralTypeNode(node.argument)) {
      const from = fileOf(node.argument.literal, file);
      if (from) uses.push([from, node.qualifier?.getText().split('.')[0] ?? EVERYTHING]);
    }
    ts.forEachChild(node, visit);
  };
  visit(tree);
  return uses;
}
