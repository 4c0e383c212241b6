import Papa from 'papaparse';
import { z } from 'zod';
import { evaluate, type Scope } from '../expressions/index.ts';
import { naturalSpline, type Changing } from '../math/index.ts';
import { coordinateKey, isAngle, type CoordinateKey } from '../naming/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { ANGLE, LENGTH, NUMBER } from '../units/index.ts';
import type { Coordinates, Mechanism } from '../assembly/index.ts';
import { JOINTS } from '../assembly/index.ts';
import { lawOf, type LawName } from './laws.ts';
import { STUDY_LIMITS, type Approach, type Study, type StudyEnd } from './records.ts';

/** A study as it can be run: everything read, lengths in mm, angles in rad, times in s. */
export interface StudyPlan {
  readonly drives: readonly StudyDrive[];
  readonly law: LawName;
  /** Of what is driven by a table: times from 0 on, and places. */
  readonly table: readonly (readonly [time: number, value: number])[];
  readonly seconds: number;
  readonly steps: number;
  readonly touching: boolean;
  /** What is looked at for how near it comes. */
  readonly approaches: readonly ApproachPlan[];
}

export interface ApproachPlan extends Pick<Approach, 'a' | 'b'> {
  readonly id: Id;
  /** How near they may come, mm. */
  readonly least: number | undefined;
}

interface StudyDrive {
  readonly key: CoordinateKey;
  readonly from: number;
  readonly to: number;
}

/** The key of a coordinate that a study tells. */
export const keyOfEnd = ({ joint, coordinate }: StudyEnd): CoordinateKey => coordinateKey(joint, coordinate);

const DEGREE = Math.PI / 180;
/** The unit of a table's second column, as rad or mm. */
const tableUnit = (key: CoordinateKey): number => (isAngle(key) ? DEGREE : 1);

/** Reads a study for the mechanism that it moves; fails where something of it can't be read or is not there. */
export function planOf(study: Study, { joints }: Pick<Mechanism, 'joints'>, scope: Scope): Result<StudyPlan> {
  const drives: StudyDrive[] = [];
  for (const { from, to, ...end } of study.drives) {
    const of = joints.find(({ id }) => id === end.joint);
    if (!of || !(JOINTS[of.kind].leaves as readonly string[]).includes(end.coordinate)) return fail('study.joint');
    const key = keyOfEnd(end);
    if (drives.some((drive) => drive.key === key)) return fail('study.twice');
    const asks = isAngle(key) ? ANGLE : LENGTH;
    const [first, last] = [evaluate(from, asks, scope), evaluate(to, asks, scope)];
    if (!first.ok) return first;
    if (!last.ok) return last;
    drives.push({ key, from: first.value, to: last.value });
  }
  const steps = evaluate(study.steps, NUMBER, scope);
  if (!steps.ok) return steps;
  if (!Number.isInteger(steps.value) || steps.value < 1 || steps.value > STUDY_LIMITS.steps)
    return fail('study.steps', { most: STUDY_LIMITS.steps });
  const approaches = approachesOf(study, scope);
  if (!approaches.ok) return approaches;
  const plan = { steps: steps.value, touching: study.touching, approaches: approaches.value };
  if (study.law === 'table') return tablePlan(study, drives, plan);
  if (drives.every(({ from, to }) => from === to)) return fail('study.still');
  const seconds = evaluate(study.seconds, NUMBER, scope);
  if (!seconds.ok) return seconds;
  if (!(seconds.value > 0 && seconds.value <= STUDY_LIMITS.seconds))
    return fail('study.seconds', { most: STUDY_LIMITS.seconds });
  return ok({ ...plan, drives, law: study.law, table: [], seconds: seconds.value });
}

function approachesOf({ approaches = {} }: Study, scope: Scope): Result<readonly ApproachPlan[]> {
  const found: ApproachPlan[] = [];
  for (const [id, approach] of Object.entries(approaches)) {
    const least = leastOfApproach(approach, scope);
    if (!least.ok) return least;
    found.push({ id, a: approach.a, b: approach.b, least: least.value });
  }
  return ok(found);
}

/** How near what is looked at may come, mm; undefined where that is not told, fails where it can't be read. */
export function leastOfApproach({ least }: Approach, scope: Scope): Result<number | undefined> {
  if (least === undefined) return ok(undefined);
  const value = evaluate(least, LENGTH, scope);
  return !value.ok || value.value >= 0 ? value : fail('study.least');
}

/** By a table the way is that of the one coordinate, counted from 0. */
function tablePlan(
  { table = [] }: Study,
  drives: readonly StudyDrive[],
  plan: Pick<StudyPlan, 'steps' | 'touching' | 'approaches'>,
): Result<StudyPlan> {
  const [drive, ...others] = drives;
  if (others.length > 0) return fail('study.table-one');
  const wrong = wrongTable(table);
  if (wrong !== undefined) return fail('study.table', { row: wrong });
  const [begin, end] = [table[0]![0], table.at(-1)![0]];
  const unit = tableUnit(drive!.key);
  return ok({
    ...plan,
    drives: [{ key: drive!.key, from: 0, to: 1 }],
    law: 'table',
    table: table.map(([time, value]) => [time - begin, value * unit]),
    seconds: end - begin,
  });
}

/** The share of the way from each beginning to each end at times of a study, and its derivatives by the time. */
export function shareOf({ law, table, seconds }: StudyPlan): (time: number) => Changing {
  const { share } = lawOf(law);
  if (!share) return naturalSpline(table);
  return (time) => {
    const { value, slope, curvature } = share(time / seconds);
    return { value, slope: slope / seconds, curvature: curvature / seconds ** 2 };
  };
}

/** The first row of a table that does not come after the one before, counted from 1; the rows there are where they are too few. */
function wrongTable(table: readonly (readonly [number, number])[]): number | undefined {
  if (table.length < 2) return table.length + 1;
  const row = table.findIndex(([time], k) => k > 0 && !(time > table[k - 1]![0]));
  return row < 0 ? undefined : row + 1;
}

/** Letters of a table, at most. */
const MOST_TEXT = 200_000;
const rowSchema = z.tuple([z.number().min(-1e6).max(1e6), z.number().min(-1e6).max(1e6)]);

/**
 * Reads a table of times and values from a CSV file; a first row of words is left out, and so are empty ones.
 * @param size of the unit of the values: deg or mm
 */
export function tableFrom(text: string, size = 1): Result<[number, number][]> {
  if (text.length > MOST_TEXT) return fail('study.long', { most: STUDY_LIMITS.table });
  const numbers = (row: readonly string[]) => row.map((cell) => (cell.trim() === '' ? NaN : Number(cell)));
  // empty lines would mislead the guess
  const { delimiter } = Papa.parse(text, { skipEmptyLines: 'greedy' }).meta;
  const rows = Papa.parse<string[]>(text, { delimiter })
    .data.map((row, k) => ({ at: k + 1, row }))
    .filter(({ row }) => row.some((cell) => cell.trim() !== ''));
  const isHeading = rows[0] !== undefined && numbers(rows[0].row).every(Number.isNaN);
  const found: [number, number][] = [];
  for (const { at, row } of rows.slice(isHeading ? 1 : 0)) {
    const read = rowSchema.safeParse(numbers(row));
    if (!read.success) return fail('study.row', { row: at });
    found.push([read.data[0], read.data[1] * size]);
  }
  if (found.length > STUDY_LIMITS.table) return fail('study.long', { most: STUDY_LIMITS.table });
  const wrong = wrongTable(found);
  return wrong === undefined ? ok(found) : fail('study.table', { row: wrong });
}

/** Where everything that is driven is at a share of the way. */
export const valuesAt = ({ drives }: Pick<StudyPlan, 'drives'>, share: number): Coordinates =>
  new Map(drives.map(({ key, from, to }) => [key, from + share * (to - from)]));

export const studyWords: Words = {
  'study.joint': () => 'A joint that this study drives is not there, or could not be put together.',
  'study.least': () => 'How near parts may come can not be below 0.',
  'study.twice': () => 'It drives the same joint twice: take one of them off.',
  'study.still': () => 'It begins where it ends: say where it goes.',
  'study.steps': (f) => `Into how many steps it is divided must be a whole number from 1 to ${f['most']}.`,
  'study.seconds': (f) => `How long it takes must be more than 0 s and at most ${f['most']} s.`,
  'study.table-one': () => 'By a table one joint is driven: take the others off, or choose another law.',
  'study.table': (f) => `Its table needs two rows or more, each later than the one before: look at row ${f['row']}.`,
  'study.row': (f) =>
    `Row ${f['row']} of the table is not two numbers, a time in s and where it is then. Decimals are written with a point.`,
  'study.long': (f) => `The table has too many rows: at most ${f['most']}.`,
};
