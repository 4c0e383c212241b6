import { CHAPTERS, searched } from './chapters.ts';
import { TOPICS } from './topics.ts';

const titles = (text: string) => searched(text).flatMap(({ entries }) => entries.map(({ title }) => title));

test('every topic and every verb is told, and nothing twice in a chapter', () => {
  expect(searched('')).toEqual(CHAPTERS);
  const told = new Set(titles(''));
  for (const { title } of Object.values(TOPICS).flat()) expect(told).toContain(title);
  for (const title of ['Chain', 'Tangent', 'Extrude', 'Join revolute', 'Round corner']) expect(told).toContain(title);
  for (const { title, entries } of CHAPTERS)
    expect([title, new Set(entries.map((entry) => entry.title)).size]).toEqual([title, entries.length]);
});

test('entries are found by words in any order, in titles, sentences and what they want', () => {
  expect(titles('hinge')).toEqual(['Join revolute']);
  expect(titles('equal  LENGTH lines')).toEqual(['Equal']);
  expect(titles('fillet')).toEqual(expect.arrayContaining(['Round', 'Round corner']));
  // not in the whole of something
  expect(titles('hole')).toContain('Drill');
  expect(titles('hole')).not.toContain('Opposite hand');
  expect(titles('zebra')).toEqual([]);
});
