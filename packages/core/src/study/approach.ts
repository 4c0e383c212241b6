import type { MemberPair, Pose } from '../assembly/index.ts';
import { leastBetween, type Vec3 } from '../math/index.ts';

/** How everything stands at a time of a study, s. */
export interface Standing {
  readonly time: number;
  readonly pose: Pose;
}

/** How near two members come in a study. */
export interface Nearness extends Standing {
  readonly a: string;
  readonly b: string;
  /** mm; 0 where they touch or are in each other. */
  readonly distance: number;
  /** The places that are nearest, in space. */
  readonly places: readonly [Vec3, Vec3];
  /** They are nowhere nearer than this, mm: what lies between is too small for the steps that were made. */
  readonly sure: number;
  /** Where they touch: when first and when last, s. */
  readonly touches?: { readonly from: number; readonly to: number };
}

/** What is nowhere nearer than was found by more than this, mm, is not looked at further. */
const CLOSE = 5e-3;
/** So many times a search halves steps, at most: what slides along something at one distance would never be sure. */
const HALVINGS = { least: 100, byStep: 0.5 };
/** What is apart by no more than this, mm, touches. */
const TOUCHING = 1e-6;
/** How exactly the time is told, as a share of the whole: of the nearest, and of a touch. */
const [VALLEY, TOUCHED] = [1e-8, 1e-9];
/** A motion within a step may go further than from its begin to its end: as the steps beside it do, and by so much more. */
const DETOUR = 1.1;

interface Sample extends Standing {
  /** How far they are apart at least, mm. */
  least: number;
  /** How well is that known: by the way from others, roughly, or exactly? */
  known: 'by the way' | 'roughly' | 'exactly';
}

interface Stretch {
  readonly from: Sample;
  readonly to: Sample;
  /** How far they may go on the way, mm. */
  readonly travel: number;
}

/** How near a pair may be on a stretch: neither end can be left by more than half of the way that is gone on it. */
const boundOf = ({ from, to, travel }: Stretch): number => (from.least + to.least - travel) / 2;

/** How far a pair is apart at least after ways on which what may come as near as `within` goes so far; more than that is not told. */
const leastAfter = (within: number, ...ways: readonly (readonly [least: number, travel: number])[]): number =>
  Math.max(0, Math.min(within, Math.max(...ways.map(([least, travel]) => least - travel))));

/**
 * How near two members come between the samples of a motion: samples are measured only where they may be nearer than what was
 * found, and put closer where the motion between them may (branch and bound with the way as Lipschitz bound: Piyavskii 1972);
 * the nearest is found between its neighbours then, and touches by halving.
 */
export class ApproachSearch {
  private readonly samples: readonly Sample[];
  /** Those and what was put between them. */
  private readonly all: Sample[];
  private readonly whole: number;
  private halvings: number;

  /**
   * @param poseAt how everything stands at a time that comes after a sample
   * @param upTo what does not come nearer is not looked for, mm
   */
  constructor(
    private readonly pair: MemberPair,
    standings: readonly Standing[],
    private readonly poseAt: (from: Standing, time: number) => Pose,
    private readonly upTo = Infinity,
  ) {
    this.samples = standings.map(({ time, pose }) => ({ time, pose, least: 0, known: 'by the way' }));
    this.all = [...this.samples];
    this.halvings = Math.max(HALVINGS.least, HALVINGS.byStep * standings.length);
    this.whole = standings.at(-1)!.time - standings[0]!.time;
  }

  /** Undefined where it is surely `upTo` or more. */
  found(): Nearness | undefined {
    let best: Sample | undefined;
    const limit = () => best?.least ?? this.upTo;
    const look = (sample: Sample): void => {
      if (sample.least >= limit()) return;
      if (sample.known === 'by the way') this.guess(sample);
      if (sample.known === 'exactly' || sample.least >= limit()) return;
      this.measure(sample);
      if (sample.least < limit()) best = sample;
    };
    let nearest = Infinity;
    this.samples.forEach((sample, k) => {
      const before = this.samples[k - 1];
      if (before)
        sample.least = leastAfter(this.upTo, [before.least, this.pair.travel(before.pose, sample.pose, this.upTo)]);
      if (sample.least >= nearest) return;
      this.guess(sample);
      nearest = Math.min(nearest, sample.least);
    });
    // the one that seems nearest first: the others have to be nearer then
    for (const sample of [...this.samples].sort((p, q) => p.least - q.least)) look(sample);
    const open = this.stretches(limit());
    while (limit() > TOUCHING) {
      const k = open.reduce((at, one, n) => (boundOf(one) < boundOf(open[at]!) ? n : at), 0);
      const next = open[k];
      if (!next || boundOf(next) >= limit() - CLOSE) break;
      for (const end of [next.from, next.to]) look(end);
      if (boundOf(next) >= limit() - CLOSE) continue;
      if (this.halvings <= 0) break;
      open.splice(k, 1);
      const halves = this.halved(next, limit());
      look(halves[0].to);
      open.push(...halves);
    }
    const sure = open.reduce((bound, one) => Math.min(bound, boundOf(one)), limit());
    if (!best) return sure < this.upTo - CLOSE ? this.unsure(Math.max(0, sure)) : undefined;
    if (best.least <= TOUCHING) return this.touching(best);
    const { least } = best;
    return this.polished(best, sure < least - CLOSE ? Math.max(0, sure) : least - CLOSE);
  }

  /** What was seen of it nowhere nearer than is asked, though it may be between the steps. */
  private unsure(sure: number): Nearness {
    const seen = this.all.reduce((nearest, one) => (one.least < nearest.least ? one : nearest));
    return { ...this.told(seen), sure };
  }

  private guess(sample: Sample): void {
    sample.least = Math.max(sample.least, this.pair.atLeast(sample.pose, this.upTo));
    sample.known = 'roughly';
  }

  private measure(sample: Sample): void {
    sample.least = this.pair.nearest(sample.pose, this.upTo)?.distance ?? this.upTo;
    sample.known = 'exactly';
  }

  private stretches(within: number): Stretch[] {
    const gone = this.samples.slice(1).map((to, k) => this.pair.travel(this.samples[k]!.pose, to.pose, within));
    return gone.map((_, k) => ({
      ...{ from: this.samples[k]!, to: this.samples[k + 1]! },
      travel: DETOUR * Math.max(...gone.slice(Math.max(0, k - 1), k + 2)),
    }));
  }

  private halved({ from, to, travel }: Stretch, within: number): [Stretch, Stretch] {
    const time = (from.time + to.time) / 2;
    this.halvings--;
    const middle: Sample = { time, pose: this.poseAt(from, time), least: 0, known: 'by the way' };
    const [first, second] = [
      this.pair.travel(from.pose, middle.pose, within),
      this.pair.travel(middle.pose, to.pose, within),
    ];
    this.all.push(middle);
    middle.least = leastAfter(within, [from.least, first], [to.least, second]);
    const most = Math.min(travel, DETOUR * Math.max(first, second));
    return [
      { from, to: middle, travel: most },
      { from: middle, to, travel: most },
    ];
  }

  /** The nearest between the samples beside one. */
  private polished(best: Sample, sure: number): Nearness {
    const beside = (isBeside: (time: number) => boolean): Sample =>
      this.all.reduce(
        (nearest, one) =>
          isBeside(one.time) &&
          (nearest === best || Math.abs(one.time - best.time) < Math.abs(nearest.time - best.time))
            ? one
            : nearest,
        best,
      );
    const [before, after] = [beside((time) => time < best.time), beside((time) => time > best.time)];
    const distance = (time: number) => this.pair.nearest(this.poseAt(before, time))?.distance ?? Infinity;
    let { time, pose } = best;
    if (this.whole > 0) {
      const found = leastBetween(before.time, after.time, distance, VALLEY * this.whole);
      if (found.value < best.least) [time, pose] = [found.x, this.poseAt(before, found.x)];
    }
    const told = this.told({ time, pose });
    return { ...told, sure: Math.min(sure, told.distance) };
  }

  private touching(best: Sample): Nearness {
    const stretches = this.stretches(TOUCHING);
    const first = this.firstTouch(stretches, best);
    const backwards = stretches.map(({ from, to, travel }) => ({ from: to, to: from, travel })).reverse();
    const last = this.firstTouch(backwards, best);
    return { ...this.told(first), touches: { from: first.time, to: last.time } };
  }

  /** The first sample that touches, in the order of the stretches, with one just before it that does not. */
  private firstTouch(stretches: readonly Stretch[], known: Sample): Sample {
    const begin = stretches[0]?.from;
    if (!begin || this.touches(begin)) return begin ?? known;
    for (const stretch of stretches) {
      const found = this.touchWithin(stretch);
      if (found) return found;
    }
    return known;
  }

  /** The first touch of a stretch whose begin does not touch. */
  private touchWithin(stretch: Stretch): Sample | undefined {
    const { from, to } = stretch;
    const isEnd = this.touches(to);
    if (!isEnd && boundOf(stretch) > -CLOSE) return undefined;
    if (Math.abs(to.time - from.time) <= TOUCHED * this.whole || (!isEnd && this.halvings <= 0))
      return isEnd ? to : undefined;
    const [first, second] = to.time > from.time ? this.halved(stretch, TOUCHING) : this.halvedBack(stretch);
    if (this.touches(first.to)) return this.touchWithin(first);
    return this.touchWithin(first) ?? this.touchWithin(second);
  }

  private halvedBack({ from, to, travel }: Stretch): [Stretch, Stretch] {
    const [first, second] = this.halved({ from: to, to: from, travel }, TOUCHING);
    return [
      { from, to: first.to, travel: second.travel },
      { from: first.to, to, travel: first.travel },
    ];
  }

  private touches(sample: Sample): boolean {
    if (sample.known !== 'exactly' && sample.least <= TOUCHING) this.measure(sample);
    return sample.least <= TOUCHING;
  }

  private told({ time, pose }: Standing): Nearness {
    const { a, b } = this.pair;
    const { distance = Infinity, a: p = ORIGIN, b: q = ORIGIN } = this.pair.nearest(pose) ?? {};
    return { a: a.id, b: b.id, distance: distance <= TOUCHING ? 0 : distance, sure: 0, time, pose, places: [p, q] };
  }
}

const ORIGIN: Vec3 = [0, 0, 0];
