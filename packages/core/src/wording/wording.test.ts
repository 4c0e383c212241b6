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
  const lengths = {
    most: 1,
    width: 1,
    diameter: 1,
    within: 1,
    is: 1,
    least: 2,
    web: 1,
    place: [1, 2],
    places: [[1, 2] as const],
  };
  const facts = { ...lengths, users: ['a'], loop: ['a', 'b'], known: ['x'], count: 1 };
  const silent = [...new Set(raised)].filter((code) => explain(issue(code, facts)).startsWith('Something is wrong'));
  expect(silent).toEqual([]);
});

test('lengths and places are told in the unit of the project', () => {
  const wall = issue('shell.wall', { most: 2.54, found: 'most', place: [25.4, -12.7, 0] });
  expect(explain(wall)).toBe(
    'The walls can not be that thick. About 2.54 mm is the most that builds. It gets tight at 25.4 / -12.7 / 0 mm.',
  );
  expect(explain(wall, 'in')).toBe(
    'The walls can not be that thick. About 0.1 in is the most that builds. It gets tight at 1 / -0.5 / 0 in.',
  );
  expect(
    explain(
      issue('area.open', {
        places: [
          [5.08, 0],
          [1, 2],
        ],
      }),
      'in',
    ),
  ).toBe('The outline is not closed: it ends at 0.2 / 0 in and at 0.039 / 0.079 in.');
});
