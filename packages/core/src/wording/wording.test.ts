import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { issue } from '../result/index.ts';
import { explain } from './index.ts';

/** All source files of the room, tests left out. */
function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(path);
    return path.endsWith('.ts') && !path.endsWith('.test.ts') ? [readFileSync(path, 'utf8')] : [];
  });
}

test('every code that is raised in core has its sentence', () => {
  const raised = sources(join(import.meta.dirname, '..')).flatMap((text) =>
    [...text.matchAll(/(?:fail|issue|refuse)\(\s*'([a-z]+\.[a-z]+)'/g)].map((match) => match[1]!),
  );
  expect(raised.length).toBeGreaterThan(40);
  const facts = { places: ['1 / 2'], users: ['a'], loop: ['a', 'b'], known: ['x'], count: 1 };
  const silent = [...new Set(raised)].filter((code) => explain(issue(code, facts)).startsWith('Something is wrong'));
  expect(silent).toEqual([]);
});
