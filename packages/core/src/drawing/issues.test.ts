import type { ComposedSheet } from './compose.ts';
import { changesSince, changeWords, issuedNow, nextRevision } from './issues.ts';
import type { Sheet } from './schema.ts';
import { defaultSheet } from './default-sheets.ts';

const usual = defaultSheet({ id: 'p', name: 'Plate' }, { paper: 'A4', projection: 'first' });
const views: Sheet['views'] = { ...usual.views, left: { kind: 'section', section: 'c' } };
const sheet: Sheet = { ...usual, views, viewOrder: Object.keys(views) };
const mark = (words: string) => ({
  words,
  at: [0, 0] as const,
  box: { low: [0, 0], high: [1, 1] } as const,
  elsewhere: [],
});
const composed = (marks: Record<string, string>, looks: Record<string, string>): ComposedSheet => ({
  picture: { size: [297, 210], strokes: [], letters: [] },
  ...{ scale: '1:1', views: {}, signs: {}, cells: [], handles: [], findings: [], looks },
  marks: Object.fromEntries(Object.entries(marks).map(([id, words]) => [id, mark(words)])),
});
const how = { revision: 'A', date: '2026-11-26', words: 'first' };

test('what is new, taken off, lost or otherwise since the sheet went out', () => {
  const before = issuedNow(composed({ a: '72', b: '⌀5.5', c: '8', d: '28' }, { front: '1', top: '2', old: '7' }), how);
  expect(before).toMatchObject({ ...how, said: { a: '72', d: '28' } });
  const now = composed({ a: '90', b: '⌀5.5', e: 'R3' }, { front: '1', top: '3', left: '4' });
  // c was taken off; what d belonged to is gone, so it says nothing
  const changes = changesSince(before, { ...sheet, markOrder: ['a', 'b', 'd', 'e'] }, now);
  expect(changes.map((change) => changeWords(change, sheet, (section) => section.toUpperCase()))).toEqual([
    '72 is 90 now.',
    'What 28 belonged to is gone.',
    'New: R3.',
    'Taken off: 8.',
    'The view from the front, from above it looks otherwise.',
    'The view cut: C is new.',
    'A view was taken off.',
  ]);
  expect(changesSince(issuedNow(now, how), { ...sheet, markOrder: ['a', 'b', 'e'] }, now)).toEqual([]);
});

test('revisions go on by letters that are not mistaken for figures', () => {
  expect([undefined, 'A', 'H', 'N', 'Z', 'AB', 'AZ', '3'].map(nextRevision)).toEqual([
    'A',
    'B',
    'J',
    'P',
    'AA',
    'AC',
    'BA',
    '4',
  ]);
});
