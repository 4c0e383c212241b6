import {
  Carriers,
  Clearance,
  contactsOf,
  joins,
  MemberPair,
  pressing,
  type Assembled,
  type Assembly,
  type Contacts,
  type Member,
  type Pose,
  type TouchingBody,
} from '../assembly/index.ts';
import { ApproachSearch, type Nearness, type Standing } from './approach.ts';
import type { ApproachPlan, StudyPlan } from './plan.ts';
import { seriesOf, type MemberMass, type Reader, type Series } from './readings.ts';
import type { Chart } from './records.ts';
import { studying, StudyRun, type StudyFrame, type StudyStop } from './run.ts';

/** All that a study needs to be run, as plain data: it may go to a worker. */
export interface StudyInput {
  readonly plan: StudyPlan;
  readonly assembly: Pick<Assembly, 'pressed' | 'contacts'>;
  readonly assembled: Pick<Assembled, 'mechanism' | 'members' | 'rest' | 'traces'>;
  /** The bodies of everything; none where nothing touches and no distance is asked for. */
  readonly bodies: readonly TouchingBody[];
  /** Undefined where a part has no material. */
  readonly masses: readonly MemberMass[] | undefined;
}

/** So many pairs are told of each that is looked at, the nearest first. */
const MOST_PAIRS = 8;

/** A study that was run: its frames, what ended it early, and what charts show of it. */
export class StudyOutcome {
  readonly frames: StudyFrame[] = [];
  stop: StudyStop | undefined;
  /** Members that stand in each other at rest: they are not kept apart until they have left each other. */
  overlaps: readonly (readonly [a: string, b: string])[] = [];
  private readonly clearances = new Map<string, Clearance>();
  private contacts: Contacts | undefined;

  constructor(private readonly input: StudyInput) {}

  /** What is looked at for how near it comes. */
  get approaches(): readonly ApproachPlan[] {
    return this.input.plan.approaches;
  }

  /** Runs it: yields each frame, and nothing on the way between them. */
  *run(): Generator<StudyFrame | undefined, void> {
    const { plan, assembly, assembled, bodies } = this.input;
    const contacts = (this.contacts = plan.touching ? contactsOf(assembly, assembled, bodies) : undefined);
    this.overlaps = [...(contacts?.overlaps(assembled.rest) ?? [])].filter((pair) => pair !== undefined);
    const going = studying(plan, assembled.mechanism, assembled.rest, contacts);
    for (;;) {
      const next = going.next();
      if (next.done) return void (this.stop = next.value);
      if (next.value) this.frames.push(next.value);
      yield next.value;
    }
  }

  /** What a chart shows, one value for each frame. */
  series(chart: Chart): readonly Series[] {
    const { assembled, plan, masses } = this.input;
    const reader: Reader = {
      ...{ assembled, plan, masses },
      distance: (a, b, pose) => this.clearance(a, b).at(pose)?.distance ?? null,
    };
    return seriesOf(chart, this.frames, reader);
  }

  private clearance(a: string, b: string): Clearance {
    const key = `${a} ${b}`;
    let found = this.clearances.get(key);
    if (!found)
      this.clearances.set(key, (found = new Clearance(this.input.assembled.members, this.input.bodies, a, b)));
    return found;
  }

  /**
   * The pairs that come nearest of what is looked at, the nearest first; yields on the way. Where a side is left open, what one
   * joint holds together, is rigidly one or is meant to press is left out. Where it is told how near they may come, all pairs are
   * there that come nearer, or of which that is not sure.
   */
  *nearest(
    approach: Pick<ApproachPlan, 'a' | 'b'> & Partial<Pick<ApproachPlan, 'least'>>,
  ): Generator<undefined, readonly Nearness[]> {
    if (this.frames.length === 0) return [];
    const begin = this.frames[0]!.pose;
    const pairs = this.pairsOf(approach).sort((p, q) => p.apart(begin) - q.apart(begin));
    const poseAt = this.poses();
    const { least = 0 } = approach;
    let found: readonly Nearness[] = [];
    for (const pair of pairs) {
      const upTo = Math.max(found[MOST_PAIRS - 1]?.distance ?? Infinity, least);
      const one = new ApproachSearch(pair, this.frames, poseAt, upTo).found();
      if (one)
        found = [...found, one]
          .sort((p, q) => p.distance - q.distance)
          .filter(({ sure }, k) => k < MOST_PAIRS || sure < least);
      yield undefined;
    }
    return found;
  }

  private pairsOf({ a, b }: Pick<ApproachPlan, 'a' | 'b'>): MemberPair[] {
    const { assembled, assembly, bodies } = this.input;
    const { members, mechanism } = assembled;
    const carriers = new Carriers(mechanism);
    const isOpen = a === undefined || b === undefined;
    const isPressed = pressing(assembly);
    const isLeftOut = (p: Member, q: Member) =>
      carriers.isOne(p, q) ||
      (carriers.isStill(p) && carriers.isStill(q)) ||
      (isOpen && (carriers.areJoined(p, q) || isPressed(p.id, q.id)));
    return members
      .flatMap((p, k) =>
        members
          .slice(k + 1)
          .filter((q) => joins({ a, b }, p.id, q.id) && !isLeftOut(p, q))
          .map((q) => new MemberPair(p, q, bodies)),
      )
      .filter(({ isEmpty }) => !isEmpty);
  }

  /** How everything stands at times between the frames, each found once. */
  private poses(): (from: Standing, time: number) => Pose {
    const { plan, assembled } = this.input;
    const run = new StudyRun(plan, assembled.mechanism, this.contacts);
    const known = new Map<number, Pose>();
    return (from, time) => {
      let pose = known.get(time);
      if (!pose) known.set(time, (pose = run.poseAt(from.pose, time)));
      return pose;
    };
  }
}
