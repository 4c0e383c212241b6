import { Clearance, contactsOf, type Assembled, type Assembly, type TouchingBody } from '../assembly/index.ts';
import type { StudyPlan } from './plan.ts';
import { seriesOf, type MemberMass, type Reader, type Series } from './readings.ts';
import type { Chart } from './records.ts';
import { studying, type StudyFrame, type StudyStop } from './run.ts';

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

/** A study that was run: its frames, what ended it early, and what charts show of it. */
export class StudyOutcome {
  readonly frames: StudyFrame[] = [];
  stop: StudyStop | undefined;
  /** Members that stand in each other at rest: they are not kept apart until they have left each other. */
  overlaps: readonly (readonly [a: string, b: string])[] = [];
  private readonly clearances = new Map<string, Clearance>();

  constructor(private readonly input: StudyInput) {}

  /** Runs it: yields each frame, and nothing on the way between them. */
  *run(): Generator<StudyFrame | undefined, void> {
    const { plan, assembly, assembled, bodies } = this.input;
    const contacts = plan.touching ? contactsOf(assembly, assembled, bodies) : undefined;
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
}
