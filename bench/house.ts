import ts from 'typescript';
import { importCycles, sources, undocumented, type Source } from '@helb/scripts/sources.ts';
import type { Figure } from './measure.ts';

// What the sources look like: counts that should fall.

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

/** How many words one thing is compared with in a function before it is a ladder. */
const LADDER = 3;

/** Functions that tell one thing apart in three ways or more, by the thing that they tell apart. */
function ladders(all: readonly Source[]): number {
  let found = 0;
  for (const { tree } of all) {
    const told = new Map<ts.Node, Map<string, Set<string>>>();
    const visit = (node: ts.Node, within: ts.Node): void => {
      const inside = ts.isFunctionLike(node) ? node : within;
      if (ts.isBinaryExpression(node) && isRung(node)) {
        const things = told.get(inside) ?? new Map<string, Set<string>>();
        const words = things.get(node.left.getText()) ?? new Set();
        told.set(inside, things.set(node.left.getText(), words.add(node.right.getText())));
      }
      ts.forEachChild(node, (child) => visit(child, inside));
    };
    visit(tree, tree);
    for (const things of told.values()) for (const words of things.values()) if (words.size >= LADDER) found++;
  }
  return found;
}

const isCast = (node: ts.Node): boolean =>
  ts.isNonNullExpression(node) || (ts.isAsExpression(node) && node.type.getText() !== 'const');

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
  const { functions, others } = undocumented(all);
  const lines = all.reduce((sum, { text }) => sum + text.split('\n').length, 0);
  return [
    figure('lines of source', lines),
    figure('rungs of ladders over kind, form, to and type', count(all, isRung)),
    figure(`ladders: functions that tell one thing apart in ${LADDER} ways or more`, ladders(all)),
    figure('casts (as, !)', count(all, isCast)),
    figure('import cycles', importCycles(all).length, 0),
    figure('exported functions without a doc comment', functions.length, 0),
    figure('other exports without a doc comment', others.length),
    figure(`pairs of ${WINDOW} equal lines`, equalLines(all), 0),
  ];
}
