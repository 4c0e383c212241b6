import type { Id } from '@helb/core';
import type { Facts } from './facts.ts';

interface Line {
  readonly says: string;
  /** How it is done. */
  readonly how: string;
  /** Is it done, as things were when it began? */
  isDone(now: Facts, before: Facts): boolean;
}

interface Task {
  readonly title: string;
  readonly lines: readonly Line[];
}

const isNew = (all: readonly Id[], before: readonly Id[]): boolean => all.some((id) => !before.includes(id));
const stepsOf = ({ steps }: Facts) => Object.entries(steps);
/** Was it not so before? What was not known then does not count. */
const wasNot = (before: Facts, id: Id, fact: 'encloses' | 'isSettled'): boolean =>
  before.steps[id] === undefined || before.steps[id][fact] === false;
/** Is there a step for which this holds? */
const someStep = (now: Facts, fits: (step: Facts['steps'][Id], id: Id) => boolean): boolean =>
  stepsOf(now).some(([id, step]) => fits(step, id));

export const TASKS: readonly Task[] = [
  {
    title: 'Draw and settle',
    lines: [
      {
        says: 'Begin a part of its own',
        how: 'Parts, beside Steps: + new part, Enter takes its name.',
        isDone: (now, before) => isNew(now.parts, before.parts),
      },
      {
        says: 'Draw an outline in it',
        how: '2 begins a sketch on Top; B is a rectangle: click one corner, then the other. Or K, a chain of lines, back to where it began.',
        isDone: (now, before) =>
          someStep(now, ({ encloses }, id) => encloses === true && wasNot(before, id, 'encloses')),
      },
      {
        says: 'Settle it',
        how: 'Ochre lines are loose. N and a click on a line gives it a size; or take “settle the rest” on the desk, Enter.',
        isDone: (now, before) =>
          someStep(
            now,
            ({ isSettled, encloses }, id) => encloses === true && isSettled === true && wasNot(before, id, 'isSettled'),
          ),
      },
    ],
  },
  {
    title: 'Make and change',
    lines: [
      {
        says: 'Make it solid',
        how: 'L closes the sketch, X extrudes it: type how high, Enter. (V would turn it about an axis.)',
        isDone: (now, before) => someStep(now, ({ isSketch }, id) => !isSketch && !before.steps[id]),
      },
      {
        says: 'Work on it',
        how: 'Click an edge, then U rounds it; or a face, then E hollows it out. Enter keeps it.',
        isDone: (now, before) => someStep(now, ({ isSketch }, id) => !isSketch && !before.steps[id]),
      },
      {
        says: 'Change what came first',
        how: 'Click a number of an earlier step on the build sheet, or of its sketch, type another: all that follows is built anew.',
        isDone: (now, before) =>
          someStep(now, ({ numbers }, id) => before.steps[id] !== undefined && before.steps[id].numbers !== numbers),
      },
    ],
  },
  {
    title: 'Join and move',
    lines: [
      {
        says: 'Place a part',
        how: 'Parts: “place” beside a part puts one more of it into the whole.',
        isDone: (now, before) => isNew(now.placements, before.placements),
      },
      {
        says: 'Join it to another',
        how: 'Click a round face of it and one of another part, then V: it turns about that. Or R relates two flat faces. Enter keeps it.',
        isDone: (now, before) => isNew(now.joins, before.joins),
      },
      {
        says: 'Move it',
        how: 'Pull a part that has freedoms left by the pointer, or drive its joint by a number on the desk.',
        isDone: ({ isMoved }) => isMoved,
      },
      {
        says: 'Put everything back',
        how: '0: back to rest.',
        isDone: ({ isMoved }) => !isMoved,
      },
    ],
  },
];

/** How far somebody is. */
export interface Progress {
  /** The task that is done now, and its line. */
  readonly task: number;
  readonly line: number;
  /** What there was when the line began. */
  readonly before: Facts;
  /** The tasks that were done to the end. */
  readonly done: readonly number[];
}

/** Begins a task, whatever was done of others. */
export const begun = (task: number, now: Facts, done: readonly number[] = []): Progress => ({
  ...{ task, line: 0, before: now, done },
});

/** Goes on by a line if that is done; after the last one to the next task that is not, or beyond all. */
export function advanced(progress: Progress, now: Facts): Progress {
  const { task, line, before, done } = progress;
  const lines = TASKS[task]?.lines;
  if (!lines?.[line]?.isDone(now, before)) return progress;
  if (line + 1 < lines.length) return { ...progress, line: line + 1, before: now };
  const all = [...new Set([...done, task])];
  const next = TASKS.findIndex((_, k) => !all.includes(k));
  return begun(next < 0 ? TASKS.length : next, now, all);
}
