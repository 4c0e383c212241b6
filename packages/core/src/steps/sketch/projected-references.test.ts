import { ok } from '../../result/index.ts';
import { ORIGIN_DATUMS, type Reference } from '../../references/index.ts';
import type { Entities } from '../../sketch/index.ts';
import { line, point } from '../../sketch/test-scene.ts';
import type { ResolveContext } from '../kind.ts';
import { sourcesOf } from './projected-references.ts';
import type { SketchStep } from './index.ts';

// One edge from p (0, 0) to q (10, 0) is borrowed as the line `l` from `a` to `b`.
const source: Reference = { to: 'edge', name: 'e' };
const step: SketchStep = {
  ...{ kind: 'sketch', name: 'S', plane: 'top', relations: {} },
  entities: { a: point(0, 0), b: point(10, 0), l: line('a', 'b') },
  loans: { o: { source, how: 'shape', makes: { 'corner p': 'a', 'corner q': 'b', e: 'l' } } },
};
const borrowed = (seen: Entities) => {
  const context = {
    find: () => ok({ to: 'datum', datum: ORIGIN_DATUMS.top }),
    project: () => ok(seen),
  } as unknown as ResolveContext;
  const { borrowed: entities, lost } = sourcesOf(step, context);
  return { ...lost, ...(entities as Record<string, unknown>) };
};

test.each<[string, Entities]>([
  ['as it was', { 'corner p': point(1, 1), 'corner q': point(12, 1), e: line('corner p', 'corner q') }],
  ['with another end', { 'corner p': point(1, 1), 'corner r': point(12, 1), e: line('corner p', 'corner r') }],
  ['run the other way', { 'corner p': point(1, 1), 'corner r': point(12, 1), e: line('corner r', 'corner p') }],
  ['with two other ends', { 'corner s': point(1, 1), 'corner r': point(12, 1), e: line('corner s', 'corner r') }],
  ['with two, the other way', { 'corner s': point(1, 1), 'corner r': point(12, 1), e: line('corner r', 'corner s') }],
  ['called otherwise', { 'corner s': point(1, 1), 'corner r': point(12, 1), f: line('corner r', 'corner s') }],
])('an edge that is borrowed keeps its ends, %s', (_, seen) => {
  expect(borrowed(seen)).toMatchObject({ a: point(1, 1), b: point(12, 1), l: { kind: 'line' } });
});

test('two curves for one are told', () => {
  const two = { 'corner p': point(1, 1), 'corner r': point(5, 1), 'corner q': point(12, 1) };
  expect(borrowed({ ...two, f: line('corner p', 'corner r'), g: line('corner r', 'corner q') })).toMatchObject({
    o: { code: 'borrow.lost' },
  });
});
