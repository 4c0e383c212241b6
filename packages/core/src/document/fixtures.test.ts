import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseProject, writeProject, type Project } from './index.ts';
import { SCHEMA_VERSION } from './schema.ts';

// Projects as they were saved: `fixtures/VERSION-NAME.helb.json`, one at least of every version of the stored form. They
// are never written anew; a change of the form adds a migration and a fixture of what was stored before it.

const FOLDER = join(import.meta.dirname, 'fixtures');
const NAMES = readdirSync(FOLDER);
const versionOf = (name: string) => Number(/^(\d+)-[a-z-]+\.helb\.json$/.exec(name)?.[1]);
const saved = (name: string) => readFileSync(join(FOLDER, name), 'utf8');
const opened = (name: string): Project => {
  const project = parseProject(saved(name));
  if (!project.ok) throw new Error(`${name}: ${project.issue.code} ${JSON.stringify(project.issue.facts)}`);
  return project.value;
};

test('a project is kept of every version of the stored form', () => {
  const versions = Array.from({ length: SCHEMA_VERSION }, (_, k) => k + 1);
  expect([...new Set(NAMES.map(versionOf))].sort((a, b) => a - b)).toEqual(versions);
});

test.each(NAMES)('%s opens as it was saved', (name) => {
  expect(JSON.parse(saved(name))).toMatchObject({ format: 'helb-project', schema: versionOf(name) });
  const project = opened(name);
  expect(project.schema).toBe(SCHEMA_VERSION);
  expect(opened(name)).toEqual(project);
  // nothing of it is dropped, renamed or put in another order
  if (versionOf(name) === SCHEMA_VERSION) expect(writeProject(project)).toBe(saved(name));
});
