import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import {
  coordinateKey,
  coordinateOf,
  explain,
  isAngle,
  jointOf,
  valueScope,
  type Coordinate,
  type CoordinateKey,
  type Id,
  type Result,
} from '@helb/core';
import { JOINTS } from '@helb/core/assembly';
import {
  chartTitle,
  leastOfApproach,
  type Approach,
  type Chart,
  type Nearness,
  type ShownChart,
  type Study,
  type StudyEnd,
  type StudyInput,
} from '@helb/core/study';
import { needsBodies, studyInput } from '@helb/engine';
import { StudyThread, type RanStudy } from '../workers/study-client.ts';
import { useAssembly } from './assembly.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** A study that was run, and of what. */
interface Outcome extends RanStudy {
  readonly input: StudyInput;
  /** Tells whether anything that it depends on has changed since. */
  readonly of: string;
  readonly thread: StudyThread;
}

/** The coordinate of a key, as a study keeps it. */
export const endOfKey = (key: CoordinateKey): StudyEnd => ({ joint: jointOf(key), coordinate: coordinateOf(key) });

/** A study that can not be run, and why. */
class Refused extends Error {}

/** So many outcomes are kept at once: the last that were run. */
const MOST_OUTCOMES = 6;
/** How long it plays, s: shorter and longer studies are slowed and sped up. */
const PLAYS = { least: 2, most: 20 };

/** Studies of the motion: what is driven and how, what came of it, and where one stands in that. */
export const useStudies = defineStore('studies', () => {
  const store = useProject();
  const assembly = useAssembly();
  const model = useModel();

  const records = computed(() => Object.entries(store.project?.studies ?? {}));
  const outcomes = shallowRef<ReadonlyMap<Id, Outcome>>(new Map());
  /** The study whose outcome is shown. */
  const shown = ref<Id>();
  const running = ref<{ readonly id: Id; readonly done: number; readonly of: number }>();
  /** Why a study was not run, in words. */
  const trouble = ref<{ readonly id: Id; readonly words: string }>();
  const charts = shallowRef<readonly (ShownChart & { readonly id: Id; readonly chart: Chart })[]>([]);
  /** What comes how near, by what is looked at; undefined while it is being found. */
  const nearest = shallowRef<ReadonlyMap<Id, readonly Nearness[] | undefined>>(new Map());
  /** Why that could not be found, in words. */
  const nearestTrouble = ref('');
  /** Which of the frames is looked at. */
  const frame = ref(0);
  const isPlaying = ref(false);
  let thread: StudyThread | undefined;

  const study = computed((): Study | undefined => store.project?.studies?.[shown.value ?? '']);
  const outcome = computed(() => (shown.value === undefined ? undefined : outcomes.value.get(shown.value)));

  /** All coordinates that can be driven or shown, by their keys, as they are called. */
  const coordinates = computed(() =>
    Object.fromEntries(
      (assembly.assembled?.mechanism.joints ?? []).flatMap(({ id, kind }) =>
        (JOINTS[kind].leaves as readonly Coordinate[]).map((name) => [
          coordinateKey(id, name),
          `${assembly.nameOf(id)} ${name}`,
        ]),
      ),
    ),
  );

  /** What a study depends on, made ready but for the bodies; or why it can't be run. */
  function prepared(of: Study) {
    const { built } = assembly;
    if (!store.project || !built) return undefined;
    const parts = Object.entries(built.parts).map(([id, { bodies }]) => ({ id, bodies }));
    // how near parts come is read afterwards
    return studyInput(store.project, { ...of, approaches: {} }, built.assembled, { parts }, []);
  }
  function stateOf(input: StudyInput, of: Study): string {
    const parts = Object.values(assembly.built?.parts ?? {}).flatMap(({ bodies }) => bodies.map(({ key }) => key));
    const { mechanism, members } = input.assembled;
    const { limits, ...rest } = mechanism;
    const contacts = of.touching ? input.assembly : {};
    return JSON.stringify([input.plan, contacts, rest, [...limits], members, parts, input.masses, needsBodies(of)]);
  }

  /** Is what was run not what would be run now? */
  const isOld = computed((): boolean => {
    if (!study.value || !outcome.value) return false;
    const now = prepared(study.value);
    return now !== undefined && (!now.ok || stateOf(now.value, study.value) !== outcome.value.of);
  });

  async function run(id: Id): Promise<void> {
    stop();
    assembly.stop();
    trouble.value = undefined;
    const mine = (thread = markRaw(new StudyThread()));
    const isMine = () => thread === mine;
    running.value = { id, done: 0, of: 0 };
    try {
      const found = await ran(id, mine, isMine);
      if (!isMine() || !found) return mine.end();
      outcomes.value.get(id)?.thread.end();
      keep(id, found);
      thread = running.value = undefined;
      await show(id);
    } catch (error) {
      mine.end();
      if (!isMine()) return;
      thread = running.value = undefined;
      const { message } = error as Error;
      trouble.value = { id, words: error instanceof Refused ? message : `It could not be run: ${message}. Try again.` };
    }
  }

  /** Runs a study of the project as it is now; undefined where that is not wanted any more. */
  async function ran(id: Id, thread: StudyThread, isWanted: () => boolean): Promise<Outcome | undefined> {
    await assembly.together();
    const { project } = store;
    const of = project?.studies?.[id];
    const found = of && prepared(of);
    if (!of || !found || !isWanted()) return undefined;
    if (assembly.broughtFor !== project) throw new Refused('The parts are not brought together yet: try again then.');
    if (!found.ok) throw new Refused(explain(found.issue, project.unit));
    const state = stateOf(found.value, of);
    const input = { ...found.value, bodies: needsBodies(of) ? await model.engine.touching(project) : [] };
    const total = input.plan.steps + 1;
    const report = (done: number) => {
      if (isWanted()) running.value = { id, done, of: total };
    };
    return isWanted() ? { ...(await thread.run(input, report)), input, of: state, thread } : undefined;
  }

  function keep(id: Id, found: Outcome): void {
    const others = [...outcomes.value].filter(([other]) => other !== id);
    for (const [, { thread: old }] of others.splice(0, Math.max(0, others.length - MOST_OUTCOMES + 1))) old.end();
    outcomes.value = new Map([...others, [id, found]]);
  }

  /** Ends what is being run, and the playing. */
  function stop(): void {
    thread?.end();
    thread = running.value = undefined;
    pause();
  }

  async function show(id: Id | undefined): Promise<void> {
    pause();
    shown.value = id;
    frame.value = 0;
    await read();
    void readNearest();
    if (outcome.value) seek(0);
  }

  /** Reads what the charts of the study that is shown say. */
  async function read(): Promise<void> {
    const [of, found] = [study.value, outcome.value];
    if (!of || !found) return void (charts.value = []);
    const wanted = Object.entries(of.charts);
    const series = await found.thread.series(wanted.map(([, chart]) => JSON.parse(JSON.stringify(chart)) as Chart));
    if (outcome.value !== found) return;
    charts.value = wanted.map(([id, chart], k) => ({
      ...{ id, chart, series: series[k]! },
      title: chartTitle(chart, nameAt),
    }));
  }
  /** Reads how near what is looked at comes, one after the other: what is known already is kept. */
  async function readNearest(isAnew = true): Promise<void> {
    const [of, found] = [study.value, outcome.value];
    const wanted = Object.entries(of && found ? (of.approaches ?? {}) : {});
    const key = ([, { a, b }]: (typeof wanted)[number]) => `${a} ${b}`;
    const known = isAnew ? new Map<string, readonly Nearness[]>() : looked;
    looked = new Map(wanted.flatMap((one) => (known.has(key(one)) ? [[key(one), known.get(key(one))!] as const] : [])));
    const tell = () => (nearest.value = new Map(wanted.map((one) => [one[0], looked.get(key(one))])));
    tell();
    nearestTrouble.value = '';
    const mine = looked;
    for (const one of wanted) {
      const [, { a, b }] = one;
      // of what was run before something changed nothing more is asked: it may not even know all bodies
      if (mine.has(key(one)) || isOld.value) continue;
      const side = { ...(a === undefined ? {} : { a }), ...(b === undefined ? {} : { b }) };
      const pairs = await found!.thread.nearest(side).catch((error: Error) => {
        nearestTrouble.value = `It could not be found: ${error.message}. Run the study again.`;
        return undefined;
      });
      if (!pairs) return;
      if (looked !== mine || outcome.value !== found) return;
      mine.set(key(one), pairs);
      tell();
    }
  }
  let looked = new Map<string, readonly Nearness[]>();
  const looksAt = ({ approaches = {} }: Study): string =>
    JSON.stringify(Object.entries(approaches).map(([id, { a, b }]) => [id, a, b]));
  watch(
    () => study.value && looksAt(study.value),
    () => void readNearest(false),
  );

  const nameAt = (path: string): string => store.project?.assembly?.traces[path]?.name ?? assembly.nameOf(path);
  watch([() => study.value?.charts, () => assembly.nameOf], () => void read());
  // of another project nothing is shown
  watch(
    () => store.id,
    () => {
      stop();
      for (const { thread: old } of outcomes.value.values()) old.end();
      outcomes.value = new Map();
      charts.value = [];
      shown.value = trouble.value = undefined;
    },
  );
  watch(isOld, (old) => (old ? pause() : void readNearest(false)));
  watch(records, (now) => {
    // what was said of a study says nothing once it is changed
    trouble.value = undefined;
    if (shown.value !== undefined && !now.some(([id]) => id === shown.value)) void show(undefined);
  });

  /** Looks at a frame. */
  function seek(to: number): void {
    const frames = outcome.value?.frames ?? [];
    frame.value = Math.max(0, Math.min(to, frames.length - 1));
    const now = frames[frame.value];
    if (now && !isOld.value) assembly.stand(frames.slice(0, frame.value + 1).map(({ pose }) => pose));
  }
  /** Looks at where two come nearest: they stand there, with a line between their places. */
  function lookAt({ a, b, time, pose, places: [from, to] }: Nearness): void {
    const frames = outcome.value?.frames ?? [];
    const before = frames.filter((one) => one.time <= time);
    pause();
    seekTime(time);
    if (isOld.value) return;
    assembly.stand([...before.map((one) => one.pose), pose]);
    assembly.pointed = { a, b, from, to };
  }

  /** Looks at the frame nearest to a time, s. */
  function seekTime(time: number): void {
    const frames = outcome.value?.frames ?? [];
    let nearest = 0;
    frames.forEach((one, k) => {
      if (Math.abs(one.time - time) < Math.abs(frames[nearest]!.time - time)) nearest = k;
    });
    seek(nearest);
  }

  let ticking = 0;
  function play(): void {
    const { frames = [] } = outcome.value ?? {};
    const last = frames.at(-1)?.time ?? 0;
    if (last === 0 || isOld.value) return;
    isPlaying.value = true;
    let time = frame.value === frames.length - 1 ? 0 : frames[frame.value]!.time;
    const speed = last / Math.min(PLAYS.most, Math.max(PLAYS.least, last));
    let before = performance.now();
    const tick = (now: number) => {
      time += (speed * (now - before)) / 1000;
      before = now;
      seekTime(time);
      if (time >= last) return pause();
      ticking = requestAnimationFrame(tick);
    };
    ticking = requestAnimationFrame(tick);
  }
  function pause(): void {
    cancelAnimationFrame(ticking);
    isPlaying.value = false;
  }

  /** A study that drives the first joint that moves once round, or to and fro as far as it may. */
  function add(): void {
    const keys = Object.keys(coordinates.value) as CoordinateKey[];
    const [key] = keys;
    if (key === undefined) return;
    const id = newId('sy');
    const end = endOfKey(key);
    const [least, most] = assembly.assembled?.mechanism.limits.get(key) ?? [-Infinity, Infinity];
    const isBounded = Number.isFinite(least) && Number.isFinite(most);
    const [from, to] = isBounded ? [least, most] : [0, isAngle(key) ? 2 * Math.PI : 10];
    const text = (value: number) => assembly.typed(key, value);
    const record: Study = {
      name: `Study ${records.value.length + 1}`,
      drives: [{ ...end, from: text(from), to: text(to) }],
      ...{ law: 'even', seconds: '4', steps: '72', touching: true },
      charts: { a: { of: 'coordinate', end: endOfKey(keys.at(-1)!), shown: 'value' } },
    };
    if (store.act([{ command: 'study.add', input: { id, study: record } }]).ok) void show(id);
  }

  /** How near what is looked at may come, mm; undefined where that is not told. */
  function leastOf(approach: Approach): Result<number | undefined> {
    const { values, unit } = store.project!;
    return leastOfApproach(approach, valueScope(Object.values(values), unit));
  }

  return {
    ...{
      records,
      shown,
      study,
      outcome,
      outcomes,
      isOld,
      running,
      trouble,
      charts,
      frame,
      isPlaying,
      coordinates,
      nearest,
      nearestTrouble,
    },
    ...{ run, stop, show, seek, seekTime, lookAt, leastOf, play, pause, add, nameAt },
  };
});
