import { OFFERED_RELATIONS, OFFERED_STEPS } from '@helb/core';
import { JOINTS, offeredJoints } from '@helb/core/assembly';
import { EDIT_VERBS } from '../editor/edit-verbs.ts';
import { pictureOf } from './pictures.ts';
import { DRAWING_TOOLS, EDIT_TOOLS, SELECTION_TOOLS } from './tool-verbs.ts';
import { sought, wanting, type Verb } from './verb.ts';

const verb = (title: string, says = 'Does it.'): Verb => ({ id: title, title, key: '', says, run: () => undefined });
const titles = (verbs: readonly Verb[]) => verbs.map(({ title }) => title);

test('what is called exactly so comes first, then what begins so, a word that does, a piece of one, what it does', () => {
  const verbs = [
    verb('Drill', 'Makes a circle of air.'),
    verb('Half circle'),
    verb('Circle by three points'),
    verb('Encircle'),
    verb('Circle'),
    verb('Slot'),
  ];
  expect(titles(sought(verbs, ' circle '))).toEqual([
    ...['Circle', 'Circle by three points', 'Half circle', 'Encircle', 'Drill'],
  ]);
  expect(sought(verbs, 'gear')).toEqual([]);
});

test('what can not be done yet is found behind its like, and tells what it wants', () => {
  const verbs = [
    wanting(verb('Round corner'), 'corners'),
    verb('Round'),
    wanting(verb('Slot'), 'a point'),
    verb('Move'),
  ];
  expect(titles(sought(verbs, ''))).toEqual(['Round', 'Move', 'Round corner', 'Slot']);
  expect(titles(sought(verbs, 'slot'))).toEqual(['Slot']);
  expect(sought(verbs, 'round')[1]!.lacks).toBe('Pick corners first.');
});

const OFFERED: readonly { readonly id: string; readonly title: string; readonly says: string }[] = [
  ...OFFERED_STEPS.map(({ kind, ...told }) => ({ id: kind, ...told })),
  ...OFFERED_RELATIONS.map(({ kind, ...told }) => ({ id: kind, ...told })),
  ...offeredJoints(JOINTS).map(({ kind, ...told }) => ({ id: `joint-${kind}`, ...told })),
  ...[...DRAWING_TOOLS, ...EDIT_TOOLS, ...SELECTION_TOOLS].map(({ tool, ...told }) => ({ id: tool, ...told })),
  ...EDIT_VERBS,
];

test('every verb has a sentence of its own and a drawing that stays in its field', () => {
  for (const { id, says } of OFFERED) {
    expect([id, /^[A-Z].*[.]$/.test(says)]).toEqual([id, true]);
    const drawing = pictureOf(id);
    expect([id, drawing !== undefined && Object.keys(drawing).length > 0]).toEqual([id, true]);
    expect([id, drawing!.points?.every(([x, y]) => x > 1 && x < 47 && y > 1 && y < 31) ?? true]).toEqual([id, true]);
  }
  expect(pictureOf('then-extrude')).toBe(pictureOf('extrude'));
  const sentences = OFFERED.map(({ says }) => says);
  expect(new Set(sentences).size).toBe(sentences.length);
});
