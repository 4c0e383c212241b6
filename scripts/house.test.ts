import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { ROOT } from './build-server.ts';
import { allSources, FOLDERS, importCycles, sources, undocumented, unusedExports } from './sources.ts';
import { thirdParties, thirdPartyPage, type Lock } from './third-party.ts';

const file = (name: string, text: string) => ({
  file: name,
  tree: ts.createSourceFile(name, text, ts.ScriptTarget.Latest, true),
});

test('files that need each other are found, however long the way round is', () => {
  const knots = importCycles([
    file('a/one.ts', "import { two } from './two.ts';"),
    file('a/two.ts', "export * from '../b/three.ts';"),
    file('b/three.ts', "import { one } from '../a/one.ts'; import { four } from './four.ts';"),
    file('b/four.ts', "import type { Three } from './three.ts';"),
  ]);
  expect(knots.map((knot) => knot.sort())).toEqual([['a/one.ts', 'a/two.ts', 'b/three.ts']]);
});

test('no files of the product need each other', () => {
  const all = sources();
  expect(all.length).toBeGreaterThan(400);
  expect(importCycles(all)).toEqual([]);
});

test('packages are found where they are: beside, further out, through rooms; what is optional may be absent', () => {
  const lock: Lock = {
    packages: {
      'packages/core': { dependencies: { a: '1' } },
      'packages/kernel': {},
      'packages/engine': { dependencies: { '@helb/core': '*', b: '2' } },
      'apps/server': { optionalDependencies: { absent: '1' } },
      'apps/web': {},
      'node_modules/@helb/core': { link: true, resolved: 'packages/core' },
      'node_modules/a': { version: '1.0.0', license: 'MIT', dependencies: { b: '1' } },
      'node_modules/b': { version: '1.0.0', license: 'ISC' },
      'packages/engine/node_modules/b': { version: '2.0.0', license: 'MIT' },
      'node_modules/for-tests': { version: '1.0.0', license: 'MIT' },
    },
  };
  expect(thirdParties(lock).map(({ name, version }) => `${name} ${version}`)).toEqual([
    'a 1.0.0',
    'b 1.0.0',
    'b 2.0.0',
  ]);
  const { license: _, ...silent } = lock.packages['node_modules/b']!;
  expect(() => thirdParties({ packages: { ...lock.packages, 'node_modules/b': silent } })).toThrow('names no licence');
});

test('the page of what others made is that of the lock file', () => {
  const lock = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8')) as Lock;
  expect(readFileSync(join(ROOT, 'THIRD-PARTY.md'), 'utf8')).toBe(thirdPartyPage(lock));
});

test('every folder tells what it is', () => {
  const folders = FOLDERS.flatMap((root) => [
    root,
    ...readdirSync(join(ROOT, root), { withFileTypes: true }).flatMap((one) =>
      one.isDirectory() ? [join(root, one.name)] : [],
    ),
  ]);
  expect(folders.length).toBeGreaterThan(35);
  expect(folders.filter((folder) => !existsSync(join(ROOT, folder, 'README.md')))).toEqual([]);
});

test('every function that core, kernel and engine export says what it gives', () => {
  expect(undocumented(sources()).functions).toEqual([]);
});

test('exports that nobody asks for are found, also behind what passes all on', () => {
  const one = 'packages/core/src/a/one.ts';
  const unused = unusedExports([
    file(one, 'export const asked = 1; export type Silent = 1; export const all = 2; export function own() {}'),
    file('packages/core/src/a/two.ts', 'export const [x, y] = [1, 2]; export interface Two {}'),
    file('packages/core/src/a/index.ts', "export { asked, own } from './one.ts'; export * from './two.ts';"),
    file(
      'packages/core/src/b/three.ts',
      "import { asked as mine } from '../a/index.ts'; const late = import('./four.ts');",
    ),
    file('packages/core/src/b/four.ts', 'export const late = 1;'),
    file('apps/web/src/five.ts', "import { asked, type Two } from '@helb/core/a'; type Six = import('./six.ts').Six;"),
    file('apps/web/src/six.ts', 'export type Six = 6; export type Seven = 7;'),
  ]);
  expect(unused).toEqual([
    `${one}: Silent`,
    `${one}: all`,
    'packages/core/src/a/index.ts: own',
    'apps/web/src/six.ts: Seven',
  ]);
});

test('nothing is exported that nobody asks for', () => {
  expect(unusedExports(allSources())).toEqual([]);
});
