import { dirname } from 'node:path';
import { coordinateOf, explain, formatAmount, isAngle, jointOf, type Project } from '@helb/core';
import {
  chartTitle,
  columnTitle,
  extremesOf,
  nearnessWords,
  overlapWords,
  stopWords,
  tooNearWords,
  studyCsv,
  StudyOutcome,
  touchSpans,
  unitOf,
  unsureWords,
  untoldWords,
  type NameAt,
  type Nearness,
  type ShownChart,
  type Study,
  type StudyPlan,
} from '@helb/core/study';
import { namesIn } from '../inspect-assembly.ts';
import { preparedStudy, studyNamed } from '../studying.ts';
import { filesIn } from './files.ts';
import { openProject } from './opening.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

interface MoveOptions {
  readonly file: string;
  readonly set: readonly string[];
  readonly variant?: string | undefined;
  readonly files?: string | undefined;
  readonly study?: string | undefined;
  readonly csv?: string | undefined;
  readonly json: boolean;
}

/** Runs a study and tells what comes of it; the exit code says whether something stopped it or is not as it is told. */
export async function move(
  { file, set, variant, files, study: name, csv, json }: MoveOptions,
  world: Surroundings,
): Promise<number> {
  const opened = await openProject(file, set, variant, world);
  if (typeof opened === 'number') return opened;
  const { project } = opened;
  const study = studyNamed(project, name);
  if (!study.ok) {
    world.complain(explain(study.issue));
    return EXIT.usage;
  }
  const engine = await world.startEngine(filesIn(files ?? dirname(file)));
  const { input, assembled, doubts } = await preparedStudy(engine, project, study.value);
  for (const doubt of doubts) world.complain(doubt);
  if (!input.ok) {
    world.complain(`${study.value.name}: ${explain(input.issue, project.unit)}`);
    return EXIT.failed;
  }
  const outcome = new StudyOutcome(input.value);
  for (const frame of outcome.run()) void frame;
  const nameAt = namesIn(project, assembled);
  for (const pair of outcome.overlaps) world.complain(overlapWords(pair, nameAt));
  const charts = Object.values(study.value.charts).map((chart): ShownChart => ({
    title: chartTitle(chart, nameAt),
    series: outcome.series(chart),
  }));
  const nearest = outcome.approaches.map((approach) => ({ approach, pairs: finished(outcome.nearest(approach)) }));
  const wrong = nearest.flatMap(({ approach: { least }, pairs }) =>
    least === undefined ? [] : pairs.flatMap((pair) => tooNearWords(pair, least, nameAt, project.unit) ?? []),
  );
  for (const words of wrong) world.complain(words);
  const pairs = nearest.map((one) => one.pairs.map((pair) => nearTold(pair, input.value.plan, project, nameAt)));
  const told = toldOf(project, study.value, outcome, charts, nameAt, pairs);
  world.print(json ? JSON.stringify(told, null, 2) : plainly(told));
  const text = () => studyCsv(charts, outcome.frames, input.value.plan, nameAt, project.unit);
  const wrote = csv === undefined ? EXIT.done : await written(csv, text(), '', world);
  const isWhole = !outcome.stop && doubts.length === 0 && outcome.overlaps.length === 0 && wrong.length === 0;
  return wrote === EXIT.done && !isWhole ? EXIT.failed : wrote;
}

/** What a generator comes to. */
function finished<T>(going: Generator<unknown, T>): T {
  let next = going.next();
  while (!next.done) next = going.next();
  return next.value;
}

/** How near two come, for people and for scripts. */
function nearTold(pair: Nearness, { drives }: StudyPlan, { unit }: Project, nameAt: NameAt) {
  const { a, b, distance, sure, time, pose, places, touches } = pair;
  const driven = drives.map(({ key }) => {
    const value = pose.coordinates.get(key) ?? 0;
    const { symbol, scale } = unitOf({ of: isAngle(key) ? 'angle' : 'length', by: 0 }, unit);
    return { name: `${nameAt(jointOf(key))} ${coordinateOf(key)}`, value: value * scale, unit: symbol };
  });
  return {
    ...{ a: nameAt(a), b: nameAt(b), distance_mm: distance, sure_mm: sure, time_s: time, driven },
    places_mm: places,
    touches: touches ? { from_s: touches.from, to_s: touches.to } : null,
    words: `${nearnessWords(pair, nameAt, unit)} (${[
      ...driven.map((one) => `${one.name} ${formatAmount(one.value, 3)} ${one.unit}`),
      ...[unsureWords(pair, unit) ?? []].flat(),
    ].join(', ')})`,
  };
}

/** What came of a study, for people and for scripts. */
function toldOf(
  { unit }: Project,
  { name }: Study,
  { frames, stop }: StudyOutcome,
  charts: readonly ShownChart[],
  nameAt: NameAt,
  nearest: readonly (readonly ReturnType<typeof nearTold>[])[],
) {
  return {
    name,
    frames: frames.length,
    seconds: frames.at(-1)?.time ?? 0,
    stopped: stop ? stopWords(stop, nameAt) : null,
    untold: untoldWords(frames, stop),
    charts: charts.flatMap(({ title, series }) =>
      series.map((one) => {
        const { symbol, scale } = unitOf(one.unit, unit);
        const values = one.values.map((value) => (value === null ? null : value * scale));
        return {
          title: columnTitle(title, { ...one, unit: PLAIN }, unit),
          unit: symbol,
          ...found(values, frames),
          values,
        };
      }),
    ),
    touching: touchSpans(frames).flatMap((spans) =>
      spans.map(({ a, b, from, to }) => ({ a: nameAt(a), b: nameAt(b), from_s: from, to_s: to })),
    ),
    nearest,
    times_s: frames.map(({ time }) => time),
  };
}
const PLAIN = { of: 'angle by angle', by: 0 } as const;

function found(values: readonly (number | null)[], frames: StudyOutcome['frames']) {
  const { least, most } = extremesOf(values, frames) ?? {};
  return { least: least ?? null, most: most ?? null };
}

function plainly({
  name,
  frames,
  seconds,
  stopped,
  untold,
  charts,
  touching,
  nearest,
}: ReturnType<typeof toldOf>): string {
  const at = (one: { value: number; time: number } | null, unit: string) =>
    one ? `${formatAmount(one.value, 4)} ${unit} at ${formatAmount(one.time, 3)} s` : 'not told';
  return [
    `${name}: ${frames} poses in ${formatAmount(seconds, 3)} s, by shape, without friction, mass and bounce.`,
    ...(stopped ? [stopped] : []),
    ...untold,
    ...charts.map(({ title, unit, least, most }) => `  ${title}: ${at(least, unit)} to ${at(most, unit)}`),
    ...touching.map(
      ({ a, b, from_s, to_s }) => `  ${a} touches ${b} from ${formatAmount(from_s, 3)} s to ${formatAmount(to_s, 3)} s`,
    ),
    ...nearest.flat().map(({ words }) => `  ${words}`),
  ].join('\n');
}
