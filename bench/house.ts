import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { parse } from '@vue/compiler-sfc';
import ts from 'typescript';
import type { Figure } from './measure.ts';

// What the sources look like: counts that should fall. Tests, samples and the demo project are left out.

const ROOT = resolve(import.meta.dirname, '..');
const FOLDERS = ['packages/core/src', 'packages/kernel/src', 'packages/engine/src', 'apps/server/src', 'apps/web/src'];
const PUBLIC = ['packages/core/src', 'packages/kernel/src', 'packages/engine/src'];

interface Source {
  readonly file: string;
  readonly text: string;
  readonly tree: ts.SourceFile;
}

function sources(): Source[] {
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

function count(all: readonly Source[], isOne: (node: ts.Node) => boolean): number {
  let found = 0;
  const visit = (node: ts.Node): void => {
    if (isOne(node)) found++;
    ts.forEachChild(node, visit);
  };
  all.forEach(({ tree }) => visit(tree));
  return found;
}

/** What things are told apart by: a comparison of it with a word is a rung of a ladder. */
const TELLING = new Set(['kind', 'form', 'to', 'type']);
const EQUALS = new Set([ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken]);

function isRung(node: ts.Node): boolean {
  if (ts.isSwitchStatement(node)) return tells(node.expression);
  return (
    ts.isBinaryExpression(node) &&
    EQUALS.has(node.operatorToken.kind) &&
    ts.isStringLiteral(node.right) &&
    tells(node.left)
  );
}
const tells = (node: ts.Expression): boolean =>
  (ts.isPropertyAccessExpression(node) && TELLING.has(node.name.text)) ||
  (ts.isIdentifier(node) && TELLING.has(node.text));

const isCast = (node: ts.Node): boolean =>
  ts.isNonNullExpression(node) || (ts.isAsExpression(node) && node.type.getText() !== 'const');

/** Files that need each other, all round: the sizes of the knots. */
function cycles(all: readonly Source[]): number {
  const needs = new Map(
    all.map(({ file, tree }) => [
      file,
      tree.statements.flatMap((statement) => {
        const from =
          ts.isImportDeclaration(statement) || ts.isExportDeclaration(statement)
            ? statement.moduleSpecifier
            : undefined;
        const isTypeOnly = ts.isImportDeclaration(statement) && statement.importClause?.isTypeOnly === true;
        return from && ts.isStringLiteral(from) && from.text.startsWith('.') && !isTypeOnly
          ? [join(dirname(file), from.text)]
          : [];
      }),
    ]),
  );
  // Tarjan 1972
  const [index, low] = [new Map<string, number>(), new Map<string, number>()];
  const stack: string[] = [];
  let knots = 0;
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
    if (knot.length > 1) knots++;
  };
  for (const file of needs.keys()) if (!index.has(file)) visit(file);
  return knots;
}

/** Exported functions, classes and types without a sentence on what they are. */
function undocumented(all: readonly Source[]): number {
  const isExported = (node: ts.Node) =>
    ts.canHaveModifiers(node) &&
    ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) === true;
  return all
    .filter(({ file }) => PUBLIC.some((folder) => file.startsWith(folder)))
    .flatMap(({ tree }) => [...tree.statements])
    .filter((node) => isExported(node) && ts.getJSDocCommentsAndTags(node).length === 0).length;
}

const WINDOW = 12;

/** Pairs of twelve lines in a row that are equal, imports and blank lines left out. */
function equalLines(all: readonly Source[]): number {
  const seen = new Map<string, number>();
  for (const { text } of all) {
    const lines = text
      .replace(/^(import|export) [^;]*? from '[^']*';$/gm, '')
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '');
    for (let k = 0; k + WINDOW <= lines.length; k++) {
      const key = lines.slice(k, k + WINDOW).join('\n');
      seen.set(key, (seen.get(key) ?? 0) + 1);
    }
  }
  return [...seen.values()].reduce((sum, times) => sum + (times * (times - 1)) / 2, 0);
}

/** Counts of the sources; there is nothing to time. */
export function houseFigures(): Figure[] {
  const all = sources();
  const figure = (name: string, value: number, aim?: number): Figure => ({
    ...{ name, value, unit: '', floor: null, ratio: null },
    ...(aim === undefined ? { aim: '', met: null } : { aim: `${aim}`, met: value <= aim }),
  });
  const lines = all.reduce((sum, { text }) => sum + text.split('\n').length, 0);
  return [
    figure('lines of source', lines),
    figure('rungs of ladders over kind, form, to and type', count(all, isRung)),
    figure('casts (as, !)', count(all, isCast)),
    figure('import cycles', cycles(all), 0),
    figure('exports without a doc comment', undocumented(all), 0),
    figure(`pairs of ${WINDOW} equal lines`, equalLines(all), 0),
  ];
}
