import fc from 'fast-check';
import { seedSieve } from '../demo/index.ts';
import { differenceOf, sameProject, withDifference } from './difference.ts';
import { perform, type Action } from './perform.ts';
import type { Project } from './schema.ts';

const before = seedSieve();
const after = (actions: readonly Action[], project = before): Project => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(done.issue.code);
  return done.value.project;
};
const [value] = Object.keys(before.values) as [string];
const [part] = before.partOrder as [string];
const [first, second] = before.parts[part]!.stepOrder as [string, string];
/** The same in other objects all through. */
const copy = (project: Project): Project => structuredClone(project);

const GESTURES: readonly Action[] = [
  { command: 'value.set', input: { id: value, expression: '2-1/8"' } },
  { command: 'part.rename', input: { id: part, name: 'Other' } } as never,
  { command: 'step.suppress', input: { part, step: second, on: true } },
  { command: 'step.set', input: { part, step: second, fields: { distance: '7 mm' } } },
  { command: 'step.remove', input: { part, steps: [before.parts[part]!.stepOrder.at(-1)!] } },
];

test('a project differs from itself in nothing, nor from a copy in other objects', () => {
  expect(differenceOf(before, before)).toEqual([]);
  expect(sameProject(before, copy(before))).toBe(true);
});

test('what was previewed and what is kept of one gesture are the same', () => {
  const gesture = GESTURES[0]!;
  expect(after([gesture])).not.toBe(after([gesture]));
  expect(sameProject(after([gesture]), after([gesture]))).toBe(true);
  expect(sameProject(after([gesture]), before)).toBe(false);
});

test('only the fields that changed are told, lists as a whole', () => {
  expect(differenceOf(before, after([GESTURES[0]!]))).toEqual([
    { op: 'set', path: ['values', value, 'expression'], value: '2-1/8"' },
  ]);
  const moved = after([{ command: 'step.suppress', input: { part, step: first, on: true } }]);
  expect(differenceOf(before, moved)).toEqual([
    { op: 'set', path: ['parts', part, 'steps', first, 'suppressed'], value: true },
  ]);
  expect(differenceOf(moved, before)).toEqual([{ op: 'remove', path: ['parts', part, 'steps', first, 'suppressed'] }]);
});

test('the difference leads from one to the other, in any order of gestures, and shares what stays', () => {
  const known = GESTURES.filter((gesture) => perform(before, [gesture]).ok);
  expect(known.length).toBeGreaterThan(2);
  fc.assert(
    fc.property(fc.array(fc.nat(known.length - 1), { maxLength: 6 }), fc.boolean(), (picks, apart) => {
      const next = picks.reduce((project, k) => {
        const done = perform(project, [known[k]!]);
        return done.ok ? done.value.project : project;
      }, before);
      const other = apart ? copy(next) : next;
      const led = withDifference(before, differenceOf(before, other));
      expect(led).toEqual(other);
      for (const id of before.partOrder.slice(1)) expect(led.parts[id]).toBe(before.parts[id]);
    }),
    { numRuns: 60 },
  );
});

test('to a project with which it shares nothing it leads as well', () => {
  const empty = { ...before, parts: {}, partOrder: [], values: {}, valueOrder: [] } as unknown as Project;
  expect(withDifference(empty, differenceOf(empty, before))).toEqual(before);
  expect(withDifference(before, differenceOf(before, empty))).toEqual(empty);
});
