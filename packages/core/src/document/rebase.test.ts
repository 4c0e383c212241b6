import fc from 'fast-check';
import { seedSieve } from '../demo/index.ts';
import { explain } from '../wording/index.ts';
import {
  applyChange,
  perform,
  rebased,
  reversal,
  stacksOf,
  type Action,
  type LogEntry,
  type Project,
} from './index.ts';
import { mergeLists } from './rebase.ts';

test.each([
  ['both added at the end', 'a b', 'a b m', 'a b t', 'a b m t'],
  ['added in different places', 'a b', 'a m b', 'a b t', 'a m b t'],
  ['one added, one removed', 'a b c', 'a b c m', 'a c', 'a c m'],
  ['both removed', 'a b c', 'a b', 'b c', 'b'],
  ['one moved, one added', 'a b c', 'c a b', 'a b c t', 'c t a b'],
  ['put behind what is gone', 'a b', 'a b m', 'a', 'a m'],
  ['put first', 'a', 'm a', 'a t', 'm a t'],
])('%s', (_, base, mine, theirs, merged) => {
  expect(mergeLists(base.split(' '), mine.split(' '), theirs.split(' ')).join(' ')).toBe(merged);
});

test('merging holds what either kept or added, each once, and with nothing new from one side it is the other (property)', () => {
  const list = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });
  fc.assert(
    fc.property(list, list, list, (base, mine, theirs) => {
      const merged = mergeLists(base, mine, theirs);
      const expected = [...'abcdefgh'].filter((id) =>
        base.includes(id) ? mine.includes(id) && theirs.includes(id) : mine.includes(id) || theirs.includes(id),
      );
      expect(merged.toSorted()).toEqual(expected);
      expect(mergeLists(base, mine, base)).toEqual(mine);
      expect(mergeLists(base, base, theirs)).toEqual(theirs);
    }),
  );
});

const entry = (project: Project, id: string, action: Action): LogEntry => {
  const result = perform(project, [action]);
  if (!result.ok) throw new Error(explain(result.issue));
  return { id, kind: 'do', ...result.value.change };
};
const adding = (id: string): Action => ({ command: 'part.add', input: { id, name: id } });
const after = (project: Project, change: LogEntry): Project => {
  const result = applyChange(project, change.forward);
  if (!result.ok) throw new Error(explain(result.issue));
  return result.value;
};

test('two people who each add a part keep both; each undoes his own and the other stays', () => {
  const demo = seedSieve();
  const [mine, theirs] = [entry(demo, 'm', adding('mine')), entry(demo, 't', adding('theirs'))];
  const first = after(demo, theirs);
  expect(applyChange(first, mine.forward).ok).toBe(false);
  const both = after(first, rebased(mine, first));
  expect(both.partOrder.slice(demo.partOrder.length)).toEqual(['mine', 'theirs']);
  for (const [own, other] of [
    [mine, 'theirs'],
    [theirs, 'mine'],
  ] as const) {
    const undone = reversal(both, stacksOf([own]), 'undo', 'u');
    expect(undone.ok && undone.value.project.partOrder.slice(demo.partOrder.length)).toEqual([other]);
    // and redone it is there again
    const redone = undone.ok && reversal(undone.value.project, stacksOf([own, undone.value.entry]), 'redo', 'r');
    expect(redone && redone.ok && redone.value.project.partOrder.toSorted()).toEqual(both.partOrder.toSorted());
  }
});
