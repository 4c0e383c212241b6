import { seedSieve } from '@helb/core';
import { factsOf, type Facts } from './facts.ts';
import { advanced, begun, TASKS, type Progress } from './tasks.ts';

const NOTHING: Facts = { parts: ['p'], steps: {}, placements: ['a', 'b'], joins: ['j'], isMoved: false };
const step = { part: 'q', isSketch: true, numbers: '40 mm; 20 mm' };
const from = (task: number, before: Facts): Progress => begun(task, before);
/** Goes on with each of these in turn: the lines as they stand after each. */
const walk = (progress: Progress, ...facts: readonly Facts[]): readonly (readonly [number, number])[] => {
  let now = progress;
  return facts.map((seen) => ((now = advanced(now, seen)), [now.task, now.line]));
};

test('drawing: a part, an outline that encloses something, nothing loose; what was there before does not count', () => {
  const old = { ...step, part: 'p' };
  const before: Facts = { ...NOTHING, steps: { old } };
  const part = { ...before, parts: ['p', 'q'] };
  // an old sketch that is looked at only now was not drawn now
  const looked = { ...part, steps: { old: { ...old, encloses: true, isSettled: true } } };
  const open = { ...looked, steps: { ...looked.steps, s: { ...step, encloses: false, isSettled: false } } };
  const closed = { ...open, steps: { ...open.steps, s: { ...step, encloses: true, isSettled: false } } };
  const settled = { ...closed, steps: { ...closed.steps, s: { ...step, encloses: true, isSettled: true } } };
  expect(walk(from(0, before), before, part, looked, open, closed, looked, settled)).toEqual([
    ...[
      [0, 0],
      [0, 1],
      [0, 1],
      [0, 1],
      [0, 2],
      [0, 2],
    ],
    [1, 0],
  ]);
});

test('making: a step, another one, then a number of one that was there; the sketch is no step of these', () => {
  const begin = { ...NOTHING, steps: { s: step } };
  const solid = { ...begin, steps: { ...begin.steps, x: { part: 'q', isSketch: false, numbers: '8 mm' } } };
  const drawn = { ...solid, steps: { ...solid.steps, t: step } };
  const rounded = { ...drawn, steps: { ...drawn.steps, r: { part: 'q', isSketch: false, numbers: '2 mm' } } };
  const changed = { ...rounded, steps: { ...rounded.steps, s: { ...step, numbers: '44 mm; 20 mm' } } };
  expect(walk(from(1, begin), begin, solid, drawn, rounded, rounded, changed)).toEqual([
    ...[
      [1, 0],
      [1, 1],
      [1, 1],
      [1, 2],
      [1, 2],
    ],
    [0, 0],
  ]);
});

test('moving: placed, joined, moved, back at rest; after the last of all there is nothing left', () => {
  const placed = { ...NOTHING, placements: ['a', 'b', 'c'] };
  const joined = { ...placed, joins: ['j', 'k'] };
  const moved = { ...joined, isMoved: true };
  expect(walk(from(2, NOTHING), placed, joined, moved, joined)).toEqual([
    ...[
      [2, 1],
      [2, 2],
      [2, 3],
      [0, 0],
    ],
  ]);
  const last = advanced({ task: 2, line: 3, before: moved, done: [0, 1] }, joined);
  expect(last).toMatchObject({ task: TASKS.length, done: [0, 1, 2] });
  expect(advanced(last, placed)).toBe(last);
  // one that was done is begun again without forgetting the others
  expect(begun(1, placed, last.done)).toMatchObject({ task: 1, line: 0, done: [0, 1, 2] });
});

test('the facts of the demo are small, and what is not known of its sketches is left open', () => {
  const facts = factsOf(
    seedSieve(),
    (_, id) => (id.length % 2 ? { encloses: true, isSettled: true } : undefined),
    false,
  );
  expect(facts.parts.length).toBe(15);
  expect(facts.joins.length).toBeGreaterThan(3);
  expect(JSON.stringify(facts).length).toBeLessThan(50_000);
  const sketches = Object.values(facts.steps).filter(({ isSketch }) => isSketch);
  expect(sketches.some(({ numbers }) => numbers !== '')).toBe(true);
});
