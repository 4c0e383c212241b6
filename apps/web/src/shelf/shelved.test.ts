import type { ProjectCard } from '../sync/api.ts';
import { foldersOf, shelved } from './shelved.ts';

let made = 0;
const card = (name: string, more: Partial<ProjectCard> = {}): ProjectCard => ({
  ...{ id: `p${++made}`, name, revision: 1, changedAt: `2026-01-${10 + made}`, findings: 0 },
  ...{ hasPicture: false, folder: null, goesAt: null },
  ...more,
});
const CARDS = [
  card('Säule 10', { folder: 'Garden' }),
  card('Säule 9', { folder: 'Garden', findings: 4 }),
  card('Seed sieve', { findings: null }),
  card('Press', { goesAt: '2026-02-01', folder: 'Garden' }),
  card('Bench hook', { folder: 'Äste' }),
];
const names = (...on: Parameters<typeof shelved>) => shelved(...on).map(({ name }) => name);

test('a pile has what lies on it; what was thrown away lies there alone', () => {
  expect(names(CARDS, { kind: 'all' }, '', 'latest')).toEqual(['Bench hook', 'Seed sieve', 'Säule 9', 'Säule 10']);
  expect(names(CARDS, { kind: 'folder', name: 'Garden' }, '', 'latest')).toEqual(['Säule 9', 'Säule 10']);
  expect(names(CARDS, { kind: 'thrown' }, '', 'latest')).toEqual(['Press']);
});

test('by name numbers count as numbers; what is most open comes first', () => {
  expect(names(CARDS, { kind: 'all' }, '', 'name')).toEqual(['Bench hook', 'Säule 9', 'Säule 10', 'Seed sieve']);
  expect(names(CARDS, { kind: 'all' }, '', 'open')[0]).toBe('Säule 9');
});

test('words are found in any order, without marks, in names and folders, and through all folders', () => {
  expect(names(CARDS, { kind: 'all' }, ' 9 SAU', 'latest')).toEqual(['Säule 9']);
  expect(names(CARDS, { kind: 'all' }, 'garden', 'name')).toEqual(['Säule 9', 'Säule 10']);
  expect(names(CARDS, { kind: 'folder', name: 'Garden' }, 'sieve', 'latest')).toEqual(['Seed sieve']);
  expect(names(CARDS, { kind: 'all' }, 'press', 'latest')).toEqual([]);
});

test('folders are those that hold something', () => {
  expect(foldersOf(CARDS)).toEqual([
    { name: 'Äste', count: 1 },
    { name: 'Garden', count: 2 },
  ]);
});
