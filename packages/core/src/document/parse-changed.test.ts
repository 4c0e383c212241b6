import fc from 'fast-check';
import { seedSieve } from '../demo/index.ts';
import { misfitOf } from './parse-changed.ts';
import { applyChange } from './perform.ts';
import { projectSchema, type Project } from './schema.ts';
import { valueAt } from './value-at.ts';

const demo = seedSieve();

/** All places of a document, each by its path. */
function placesIn(node: unknown, path: readonly string[] = []): (readonly string[])[] {
  if (typeof node !== 'object' || node === null || Array.isArray(node)) return [path];
  return [path, ...Object.entries(node).flatMap(([key, value]) => placesIn(value, [...path, key]))];
}
const places = placesIn(demo).filter((path) => path.length > 0);

/** A copy with one place set or taken away, sharing all else. */
function changed<T>(node: T, [key, ...rest]: readonly string[], value: unknown): T {
  const copy = { ...node } as Record<string, unknown>;
  const next = rest.length > 0 ? changed(copy[key!], rest, value) : value;
  if (next === undefined) delete copy[key!];
  else copy[key!] = next;
  return copy as T;
}

test('what is asked of what has changed is what is asked of the whole', () => {
  const value = fc.oneof(
    fc.constantFrom<unknown>(undefined, null, '', 'b', 0, -1, 1e9, {}, [], { name: 'x' }, 'z'.repeat(1000)),
    fc.constantFrom(...places).map((path) => valueAt(demo, path)),
  );
  fc.assert(
    fc.property(fc.constantFrom(...places), fc.constantFrom('', 'more'), value, (path, more, put) => {
      const parent = valueAt(demo, path);
      const isInside = more !== '' && typeof parent === 'object' && parent !== null && !Array.isArray(parent);
      const after = changed<Project>(demo, isInside ? [...path, more] : path, put);
      const whole = projectSchema.safeParse(after);
      const found = misfitOf(projectSchema, after, demo);
      expect([path, found === undefined]).toEqual([path, whole.success]);
    }),
    { numRuns: 500 },
  );
});

test('what does not fit is told with its place', () => {
  const [part] = demo.partOrder;
  const refused = applyChange(demo, [{ op: 'set', path: ['parts', part!, 'colour'], value: 99 }]);
  expect(!refused.ok && refused.issue.facts['path']).toBe(`parts.${part}.colour`);
});

test('a thing of the wrong kind where others are told to be is refused, not run into', () => {
  for (const value of ['a line of text', undefined, 7, [[]]])
    expect([value, applyChange(demo, [{ op: 'set', path: ['titleBlock', 'rows'], value }]).ok]).toEqual([value, false]);
});
