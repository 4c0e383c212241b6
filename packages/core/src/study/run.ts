import {
  driving,
  RateEquations,
  withinLimits,
  type Contacts,
  type Coordinates,
  type Driven,
  type Mechanism,
  type Motion,
  type Pose,
} from '../assembly/index.ts';
import type { Vec3 } from '../math/index.ts';
import type { CoordinateKey } from '../naming/index.ts';
import { shareOf, valuesAt, type StudyPlan } from './plan.ts';

/** Two members that touch, and where in space. */
export interface StudyTouch {
  readonly a: string;
  readonly b: string;
  readonly at: Vec3;
}

/** How everything stands and goes at a time of a study. */
export interface StudyFrame {
  /** s */
  readonly time: number;
  readonly pose: Pose;
  /** How everything goes by the way of what is driven, forwards or back as it goes then; undefined at a dead point. */
  readonly motion: Motion | undefined;
  /** The speed of that way and its acceleration, by s. */
  readonly pace: { readonly speed: number; readonly acceleration: number };
  readonly touching: readonly StudyTouch[];
}

/** What ended a study before its end. */
export interface StudyStop extends Pick<Driven, 'stops' | 'suspects'> {
  /** s; undefined where it could not even get to its beginning */
  readonly time: number | undefined;
  readonly against: readonly StudyTouch[];
}

/**
 * Runs a study from the rest pose: yields each of its frames, and nothing on the way between them.
 * @returns what ended it early, if anything did
 */
export function* studying(
  plan: StudyPlan,
  mechanism: Mechanism,
  rest: Pose,
  contacts?: Contacts,
): Generator<StudyFrame | undefined, StudyStop | undefined> {
  const run = new StudyRun(plan, mechanism, contacts);
  const begun = yield* run.to(rest, run.share(0).value);
  if (!begun.arrived) return stopOf(begun, undefined);
  yield run.frame(0, begun.pose);
  let { pose } = begun;
  for (let k = 1; k <= plan.steps; k++) {
    const [before, time] = [run.timeOf(k - 1), run.timeOf(k)];
    const allowed = run.within(before, time);
    const driven = yield* run.to(pose, allowed.share);
    if (!driven.arrived || allowed.stop !== undefined) {
      const stopped = run.timeBetween(before, time, driven.share * allowed.of);
      if (stopped > before) yield run.frame(stopped, driven.pose);
      return driven.arrived
        ? { time: stopped, stops: [allowed.stop!], suspects: [], against: [] }
        : stopOf(driven, stopped);
    }
    pose = driven.pose;
    yield run.frame(time, pose);
  }
  return undefined;
}

const stopOf = ({ stops, suspects, against }: Driven, time: number | undefined): StudyStop => ({
  ...{ time, stops, suspects },
  against: against.map(touchOf),
});
const touchOf = ({ a, b, at }: StudyTouch): StudyTouch => ({ a, b, at });

/** How often the time at which a study stopped is halved: to rounding. */
const HALVINGS = 50;

/** A study that is under way, from one pose to the next. */
export class StudyRun {
  readonly share: ReturnType<typeof shareOf>;
  private readonly rates: RateEquations;
  private readonly contacts: Contacts | undefined;

  constructor(
    private readonly plan: StudyPlan,
    private readonly mechanism: Mechanism,
    contacts?: Contacts,
  ) {
    this.share = shareOf(plan);
    this.contacts = plan.touching ? contacts : undefined;
    this.rates = new RateEquations(
      mechanism,
      plan.drives.map(({ key }) => key),
      this.contacts,
    );
  }

  /**
   * How far what is driven may go between two times: the share of the way where it gets to, what part of the way between is
   * gone there, and the coordinate whose limit ends it, if one does.
   */
  within(
    before: number,
    after: number,
  ): { readonly share: number; readonly of: number; readonly stop?: CoordinateKey } {
    const [first, last] = [this.share(before).value, this.share(after).value];
    let nearest: { share: number; of: number; stop?: CoordinateKey } = { share: last, of: 1 };
    for (const { key, from, to } of this.plan.drives) {
      const wanted = from + last * (to - from);
      const limit = withinLimits(this.mechanism.limits, key, wanted);
      const of = ((limit - from) / (to - from) - first) / (last - first);
      if (limit !== wanted && of >= 0 && of < nearest.of)
        nearest = { share: first + of * (last - first), of, stop: key };
    }
    return nearest;
  }

  timeOf = (step: number): number => (step * this.plan.seconds) / this.plan.steps;

  /** Drives on to a share of the way. */
  *to(from: Pose, share: number): Generator<undefined, Driven> {
    const going = driving(this.mechanism, from, valuesAt(this.plan, share), this.contacts);
    for (;;) {
      const next = going.next();
      if (next.done) return next.value;
      yield undefined;
    }
  }

  /** How everything stands at a time that comes after another. */
  poseAt(from: Pose, time: number): Pose {
    const going = this.to(from, this.share(time).value);
    for (;;) {
      const next = going.next();
      if (next.done) return next.value.pose;
    }
  }

  /** The time at which so much of the way between two times is gone, where it goes one way. */
  timeBetween(before: number, after: number, share: number): number {
    const [first, last] = [this.share(before).value, this.share(after).value];
    let [low, high] = [before, after];
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (low + high) / 2;
      const gone = (this.share(middle).value - first) / (last - first);
      [low, high] = gone < share ? [middle, high] : [low, middle];
    }
    return (low + high) / 2;
  }

  /** How everything stands and goes in a pose that was come to at a time. */
  frame(time: number, pose: Pose): StudyFrame {
    const { slope, curvature } = this.share(time);
    const way = this.wayAt(time);
    const motion = this.rates.at(pose, this.driven(way));
    return {
      ...{ time, pose, motion },
      pace: { speed: slope * way, acceleration: curvature * way },
      touching: oncePerPair(this.contacts?.touching(pose) ?? []),
    };
  }

  /** Forwards or back: as it goes at a time, or from where it rests next. */
  private wayAt(time: number): 1 | -1 {
    const { seconds, steps } = this.plan;
    const ahead = Math.min(time + seconds / steps, seconds);
    const behind = ahead === time ? time - seconds / steps : time;
    return this.share(ahead).value < this.share(behind).value ? -1 : 1;
  }

  private driven = (way: 1 | -1): Coordinates =>
    new Map(this.plan.drives.map(({ key, from, to }) => [key, way * (to - from)]));
}

/** Two members that touch in several places are told once. */
function oncePerPair(touches: readonly StudyTouch[]): readonly StudyTouch[] {
  const found = new Map<string, StudyTouch>();
  for (const touch of touches) {
    const pair = [touch.a, touch.b].sort().join(' ');
    if (!found.has(pair)) found.set(pair, touchOf(touch));
  }
  return [...found.values()];
}
