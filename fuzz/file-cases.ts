import { explain, parseProject, seedSieve, writeProject } from '@helb/core';
import { Engine } from '@helb/engine';
import { Broken, brokenBy, type Outcome } from './case.ts';
import { Chance } from './chance.ts';
import { begin, projectOf } from './parts.ts';

// Hostile and broken project files: each is read, or refused with a sentence; what is read can be built without a crash.

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const WEIRD: readonly Json[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -0.5,
  '',
  '../../etc/passwd',
  '<script>alert(1)</script>',
  'x'.repeat(5000),
  '=1+1',
  '((((((((((1',
  '9'.repeat(400),
  'a * a * a * a',
  '\u0000',
  '\ud800',
  '__proto__',
  'constructor',
  [],
  {},
  [[[[[[]]]]]],
];

/** All places of a value. */
function places(value: Json, path: readonly string[] = []): (readonly string[])[] {
  if (value === null || typeof value !== 'object') return [path];
  return [path, ...Object.entries(value).flatMap(([key, inner]) => places(inner, [...path, key]))];
}

/** Something changed at a place: another value, gone, twice, under another name, or taken from elsewhere. */
function hurt(root: Json, chance: Chance): void {
  const all = places(root).filter((path) => path.length > 0);
  // half of the time only words are changed: such files are read
  const at = (path: readonly string[]): Json => path.reduce((node, key) => (node as Record<string, Json>)[key]!, root);
  const words = all.filter((one) => typeof at(one) === 'string');
  if (chance.happens(0.5) && words.length > 0) {
    const path = chance.one(words);
    (at(path.slice(0, -1)) as Record<string, Json>)[path.at(-1)!] = chance.one(
      WEIRD.filter((one) => typeof one === 'string'),
    );
    return;
  }
  const path = chance.one(all);
  const parent = at(path.slice(0, -1)) as Record<string, Json>;
  const key = path.at(-1)!;
  const how = chance.whole(0, 4);
  if (how === 0) delete parent[key];
  else if (how === 1)
    parent[chance.one(['__proto__', 'constructor', 'x'.repeat(300), '', '7', 'toString'])] = parent[key]!;
  else if (how === 2) {
    parent[key] = structuredClone(at(chance.one(all)));
  } else parent[key] = structuredClone(chance.one(WEIRD));
}

/** A text that is cut, doubled, or has something else in it. */
function torn(text: string, chance: Chance): string {
  const at = chance.whole(0, text.length - 1);
  return chance.one([
    () => text.slice(0, at),
    () => text.slice(at),
    () => text.slice(0, at) + chance.one(['\u0000', '}', '"', '1e999', ',,', '[']) + text.slice(at),
    () => text + text,
    () => `\ufeff${text}`,
    () => '['.repeat(chance.whole(10, 5000)) + text,
  ])();
}

/** A text in which records and words are changed. */
function broken(text: string, chance: Chance): string {
  const root = JSON.parse(text) as Json;
  for (let k = chance.whole(1, 4); k > 0; k--) hurt(root, chance);
  return JSON.stringify(root);
}

export async function fileCase(engine: Engine, seed: number): Promise<Outcome> {
  const chance = new Chance(seed);
  const small = projectOf(begin(chance, 's0', []));
  const text = writeProject(chance.happens(0.7) ? small : seedSieve());
  const given = chance.happens(0.75) ? broken(text, chance) : torn(text, chance);
  try {
    const read = parseProject(given);
    if (!read.ok) {
      if (explain(read.issue).startsWith('Something is wrong'))
        throw new Broken('a refusal has words', read.issue.code);
      return { seed, refused: [{ kind: 'file', code: read.issue.code }], tried: ['file'] };
    }
    // large ones are left to campaigns of parts
    if (Object.keys(read.value.parts).length > 1) return { seed, refused: [], tried: ['file'] };
    const { parts } = await engine.build(read.value, {});
    for (const { steps } of parts)
      for (const { issue } of steps)
        if (issue && explain(issue).startsWith('Something is wrong'))
          throw new Broken('a refusal has words', issue.code);
    return { seed, refused: [], tried: ['file'] };
  } catch (error) {
    return { seed, refused: [], tried: ['file'], broken: brokenBy(error), shown: given };
  }
}
