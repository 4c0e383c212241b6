import Papa from 'papaparse';
import { coordinateOf, isAngle, jointOf } from '../naming/index.ts';
import { formatAmount, type LengthUnit } from '../units/index.ts';
import type { StudyPlan } from './plan.ts';
import type { Nearness } from './approach.ts';
import { unitOf, type NameAt, type Series } from './readings.ts';
import type { StudyFrame, StudyStop } from './run.ts';

// What came of a study, as it is told and written.

const MOST_NAMED = 3;

/** That two stand in each other where a study begins, as a sentence. */
export const overlapWords = ([a, b]: readonly [string, string], nameAt: NameAt): string =>
  `${nameAt(a)} and ${nameAt(b)} stand in each other at rest: they pass through each other until they are apart.`;

/** How much of a study could not be told, as sentences. */
export function untoldWords(frames: readonly StudyFrame[], stop: StudyStop | undefined): string[] {
  const moving = stop ? frames.slice(0, -1) : frames;
  const dead = moving.filter(({ motion }) => !motion).length;
  const changing = moving.filter(({ motion }) => motion && !motion.second).length;
  const poses = (count: number) => (count === 1 ? 'At one pose' : `At ${count} poses`);
  return [
    ...(dead > 0 ? [`${poses(dead)} it stands at a dead point: speeds can not be told there.`] : []),
    ...(changing > 0 ? [`${poses(changing)} what touches changes: accelerations can not be told there.`] : []),
  ];
}

/** What ended a study before its end, as a sentence. */
export function stopWords({ time, against, stops, suspects }: StudyStop, nameAt: NameAt): string {
  const begin = time === undefined ? 'It does not get to its beginning' : `It stops at ${formatAmount(time, 3)} s`;
  const standing = against.map(({ a, b }) => `${nameAt(a)} stands against ${nameAt(b)}`);
  if (standing.length > 0) return `${begin}: ${[...new Set(standing)].slice(0, MOST_NAMED).join(', ')}.`;
  const limits = [...new Set(stops.map(jointOf))].map((path) => `${nameAt(path)} is at its limit`);
  if (limits.length > 0) return `${begin}: ${limits.slice(0, MOST_NAMED).join(', ')}.`;
  const held = [...new Set(suspects)].slice(0, MOST_NAMED).map(nameAt);
  return held.length > 0
    ? `${begin}: it can go no further while ${held.join(', ')} ${held.length === 1 ? 'holds' : 'hold'}.`
    : `${begin}: how parts would push each other further was not found.`;
}

/** How near two come in a study, as a sentence without its end. */
export function nearnessWords({ a, b, distance, time, touches }: Nearness, nameAt: NameAt, length: LengthUnit): string {
  const both = `${nameAt(a)} and ${nameAt(b)}`;
  const at = (seconds: number) => `${formatAmount(seconds, 3)} s`;
  if (!touches) return `${both} come within ${lengthWords(distance, length)} at ${at(time)}`;
  const [first, last] = [at(touches.from), at(touches.to)];
  return first === last ? `${both} touch at ${first}` : `${both} touch first at ${first} and last at ${last}`;
}

/** How near two may come between the steps of a study, as words; undefined where what is told is sure enough. */
export function unsureWords({ distance, sure, touches }: Nearness, length: LengthUnit): string | undefined {
  return touches || sure >= SURE * distance - SURE_MM
    ? undefined
    : `surely not nearer than ${lengthWords(sure, length)} between the steps`;
}
/** What is nowhere nearer than this share of what is told, and than that by so many mm, is sure enough. */
const [SURE, SURE_MM] = [0.98, 0.01];

/** Why what is asked for is not kept by two, as a sentence; undefined where it is. */
export function tooNearWords(found: Nearness, least: number, nameAt: NameAt, length: LengthUnit): string | undefined {
  const asked = `where ${lengthWords(least, length)} is asked for`;
  if (found.distance < least) return `${nearnessWords(found, nameAt, length)}, ${asked}.`;
  if (found.sure >= least) return undefined;
  return `${nearnessWords(found, nameAt, length)}, ${asked}; that they come no nearer than ${lengthWords(found.sure, length)} between its steps is all that is sure: more steps tell more.`;
}

function lengthWords(mm: number, length: LengthUnit): string {
  const { symbol, scale } = unitOf({ of: 'length', by: 0 }, length);
  return `${formatAmount(mm * scale, length === 'mm' ? 3 : 4)} ${symbol}`;
}

/** How long two members touch, from one time to another, s. */
interface TouchSpan {
  readonly a: string;
  readonly b: string;
  readonly from: number;
  readonly to: number;
}

/** When which members touch, as far as the frames tell: those that do so longest first, of each two in their order. */
export function touchSpans(
  frames: readonly Pick<StudyFrame, 'time' | 'touching'>[],
): readonly (readonly TouchSpan[])[] {
  const pairs = new Map<string, TouchSpan[]>();
  frames.forEach(({ time, touching }, k) => {
    for (const { a, b } of touching) {
      const pair = [a, b].sort().join(' ');
      const spans = pairs.get(pair) ?? [];
      pairs.set(pair, spans);
      const last = spans.at(-1);
      if (last && k > 0 && last.to === frames[k - 1]!.time) spans[spans.length - 1] = { ...last, to: time };
      else spans.push({ a, b, from: time, to: time });
    }
  });
  const long = (spans: readonly TouchSpan[]) => spans.reduce((sum, { from, to }) => sum + to - from, 0);
  return [...pairs.values()].sort((p, q) => long(q) - long(p));
}

/** A chart with what it shows. */
export interface ShownChart {
  readonly title: string;
  readonly series: readonly Series[];
}

/** The least and the most of a series, and when that is; undefined where nothing of it can be told. */
export function extremesOf(values: Series['values'], frames: readonly Pick<StudyFrame, 'time'>[]) {
  let [least, most] = [-1, -1];
  values.forEach((value, k) => {
    if (value === null) return;
    if (least < 0 || value < values[least]!) least = k;
    if (most < 0 || value > values[most]!) most = k;
  });
  const at = (k: number) => ({ value: values[k]!, time: frames[k]!.time });
  return least < 0 ? undefined : { least: at(least), most: at(most) };
}

/** "speed of Tray slide y (mm/s)" */
export const columnTitle = (title: string, { name, unit }: Series, length: LengthUnit): string => {
  const { symbol } = unitOf(unit, length);
  return [title, name, symbol && `(${symbol})`].filter(Boolean).join(' ');
};

/** Everything that a study shows as CSV: the time, what is driven, and what the charts show. */
export function studyCsv(
  charts: readonly ShownChart[],
  frames: readonly Pick<StudyFrame, 'time' | 'pose'>[],
  { drives }: Pick<StudyPlan, 'drives'>,
  nameAt: NameAt,
  length: LengthUnit,
): string {
  const driven = drives.map(({ key }): ShownChart => ({
    title: `${nameAt(jointOf(key))} ${coordinateOf(key)}`,
    series: [
      {
        name: '',
        unit: { of: isAngle(key) ? 'angle' : 'length', by: 0 },
        values: frames.map(({ pose }) => pose.coordinates.get(key) ?? null),
      },
    ],
  }));
  const columns = [...driven, ...charts].flatMap(({ title, series }) => series.map((one) => ({ title, one })));
  const heading = ['time (s)', ...columns.map(({ title, one }) => columnTitle(title, one, length))];
  const rows = frames.map(({ time }, k) => [
    time,
    ...columns.map(({ one }) => {
      const value = one.values[k];
      return value == null ? '' : value * unitOf(one.unit, length).scale;
    }),
  ]);
  return `${Papa.unparse([heading, ...rows], { escapeFormulae: true })}\r\n`;
}
