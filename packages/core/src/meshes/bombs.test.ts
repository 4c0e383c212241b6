import { strFromU8 } from 'fflate';
import { readOutline } from '../outlines/index.ts';
import { BOMBS } from '../samples/bombs.ts';
import { explain } from '../wording/index.ts';
import { readMesh } from './index.ts';

test.each(BOMBS)('%s ends, and is told', (_, made, words) => {
  const { name, bytes } = made();
  const result = name.endsWith('.3mf') ? readMesh(name, bytes) : readOutline(name, strFromU8(bytes));
  expect(result.ok ? '' : explain(result.issue)).toMatch(words);
});
