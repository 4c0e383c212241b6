import { strFromU8 } from 'fflate';
import { readOutline } from '../outlines/index.ts';
import { BOMBS, type HostileFile } from '../samples/bombs.ts';
import { SWARM } from '../samples/swarms.ts';
import { explain } from '../wording/index.ts';
import { readMesh } from './index.ts';

test.each(BOMBS)('%s ends, and is told', (_, made, words) => {
  const result = read(made());
  expect(result.ok ? '' : explain(result.issue)).toMatch(words);
});

test.each(SWARM)('%s ends, and is read or told', (_, made) => {
  const result = read(made());
  expect(result.ok ? '' : explain(result.issue)).not.toMatch(/Something is wrong/);
});

const read = ({ name, bytes }: HostileFile) =>
  /\.(3mf|stl)$/.test(name) ? readMesh(name, bytes) : readOutline(name, strFromU8(bytes));
