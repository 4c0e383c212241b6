import {
  carriedAlong,
  cross3,
  direction3,
  distance3,
  frameOn,
  sub3,
  type Frame,
  type Station,
  type Vec3,
} from '../math/index.ts';
import { endsOfCurve, nearestOf, runsOf, type SpaceCurve } from '../geometry/index.ts';

/** How finely curves are measured that are neither straight nor round. */
const SAMPLES = 256;
/** Ends nearer than this are one, mm. */
const SAME = 1e-6;

/** Does a place lie on a curve, within so many mm? */
export const isOnCurve = (curve: SpaceCurve, place: Vec3, within: number): boolean =>
  runsOf(curve).some((at) => distance3(nearestOf(at, place, 0, 1).at, place) <= within);

interface Run {
  readonly at: (t: number) => Vec3;
  /** Lengths of the way up to each sample. */
  readonly lengths: readonly number[];
}

function measured(at: (t: number) => Vec3): Run {
  const lengths = [0];
  for (let k = 1; k <= SAMPLES; k++) lengths.push(lengths[k - 1]! + distance3(at((k - 1) / SAMPLES), at(k / SAMPLES)));
  return { at, lengths };
}

/** Curves in the order in which they go on into each other, beginning at the loose end that is nearest to a place. */
export function chained(curves: readonly SpaceCurve[], near: Vec3): SpaceCurve[] {
  const rest = [...curves];
  const chain: SpaceCurve[] = [];
  let at = looseEnd(rest, near);
  while (rest.length > 0) {
    const reach = (curve: SpaceCurve) => Math.min(...endsOfCurve(curve).map((end) => distance3(end, at)));
    const next = rest.reduce((a, b) => (reach(b) < reach(a) ? b : a));
    rest.splice(rest.indexOf(next), 1);
    chain.push(next);
    at = endsOfCurve(next).reduce((a, b) => (distance3(b, at) > distance3(a, at) ? b : a), at);
  }
  return chain;
}

/** An end that no other curve shares, the nearest to a place; any nearest end of a closed chain. */
function looseEnd(curves: readonly SpaceCurve[], near: Vec3): Vec3 {
  const all = curves.flatMap(endsOfCurve);
  const loose = all.filter((end) => all.filter((other) => distance3(other, end) < SAME).length === 1);
  const ends = loose.length > 0 ? loose : all;
  return ends.toSorted((a, b) => distance3(a, near) - distance3(b, near))[0] ?? near;
}

/** A path of curves that go on into each other, gone along from the end of the first that the second does not share. */
export class Path {
  readonly length: number;
  readonly closed: boolean;
  private readonly runs: readonly Run[];

  /** @param curves in the order in which they follow each other, each drawn either way */
  constructor(curves: readonly SpaceCurve[]) {
    let at = firstEnd(curves);
    const runs = curves.flatMap((curve) => {
      const forward = runsOf(curve);
      const [from, to] = [forward[0]!(0), forward.at(-1)!(1)];
      const backward = at !== undefined && distance3(to, at) < distance3(from, at);
      at = backward ? from : to;
      return backward ? forward.toReversed().map((place) => (t: number) => place(1 - t)) : forward;
    });
    this.runs = runs.map(measured);
    this.length = this.runs.reduce((sum, { lengths }) => sum + lengths.at(-1)!, 0);
    this.closed = distance3(runs[0]!(0), runs.at(-1)!(1)) < SAME;
  }

  /** The place after so much of the way, mm, and the direction there. */
  private at(way: number): Station {
    let rest = Math.max(0, way);
    const run = this.runs.find(({ lengths }, k) => {
      if (rest <= lengths.at(-1)! + SAME || k === this.runs.length - 1) return true;
      rest -= lengths.at(-1)!;
      return false;
    })!;
    const after = run.lengths.findIndex((length) => length >= rest - 1e-12);
    const k = Math.max(1, after < 0 ? SAMPLES : after);
    const span = run.lengths[k]! - run.lengths[k - 1]!;
    const t = (k - 1 + (span > 0 ? (rest - run.lengths[k - 1]!) / span : 0)) / SAMPLES;
    const h = 1e-5;
    const [back, front] = [Math.max(0, t - h), Math.min(1, t + h)];
    return { at: run.at(t), heading: direction3(sub3(run.at(front), run.at(back))) ?? [0, 0, 1] };
  }

  /** Frames at these ways along it, mm, one after the other: z along the path, turning by themselves as little as can be. */
  frames(ways: readonly number[]): Frame[] {
    const places = ways.map((way) => this.at(way));
    let side = frameOn(places[0]!.at, places[0]!.heading).x;
    return places.map((place, k) => {
      if (k > 0) side = this.carriedBetween(ways[k - 1]!, ways[k]!, side);
      return { origin: place.at, x: side, y: cross3(place.heading, side), z: place.heading };
    });
  }

  /** Step by step, since the path may turn much between two places. */
  private carriedBetween(from: number, to: number, side: Vec3): Vec3 {
    const steps = Math.max(1, Math.ceil((64 * Math.abs(to - from)) / this.length));
    let carried = side;
    for (let k = 0; k < steps; k++) {
      const place = (n: number) => this.at(from + ((to - from) * n) / steps);
      carried = carriedAlong(place(k), carried, place(k + 1));
    }
    return carried;
  }
}

/** The end of the first curve that lies farther from the second; undefined where there is no second. */
function firstEnd([first, second]: readonly SpaceCurve[]): Vec3 | undefined {
  if (!first || !second) return undefined;
  const beyond = (end: Vec3) => Math.min(...endsOfCurve(second).map((other) => distance3(other, end)));
  return endsOfCurve(first).toSorted((a, b) => beyond(b) - beyond(a))[0];
}
