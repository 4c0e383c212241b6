import { keepLast } from './keep-last.ts';

test('of more than so many what was asked for longest ago goes', () => {
  const all = new Map<string, number>();
  for (const [key, one] of [
    ['a', 1],
    ['b', 2],
    ['a', 1],
    ['c', 3],
  ] as const)
    expect(keepLast(all, key, one, 2)).toBe(one);
  expect([...all.keys()]).toEqual(['a', 'c']);
});
