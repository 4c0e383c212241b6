import { type CoordinateKey, isAngle, jointOf } from '../naming/index.ts';
import type { Contacts, Touch } from './contacts.ts';
import { beyondLimits, withinLimits } from './limits.ts';
import { MechanismEquations, type Coordinates, type Mechanism, type Pose } from './mechanism.ts';
import { MergedEquations } from './merged.ts';
import { extrapolatedPose } from './pose.ts';

/** The longest step of an angle, rad, and of a way, as a share of the size: small enough to stay on the branch. */
const LONGEST = { turn: Math.PI / 18, slide: 0.1 };
/** The shortest, as a share of the longest. */
const SHORTEST = 2 ** -12;
/** A value that is beyond its limit by no more than this, rad or mm, stands on it; so do shares of the way and of steps. */
const ROUNDED = 1e-9;
/** How steps grow that were too long for what may touch. */
const SLOWLY = 1.1;
/** What share of the way may be left to a limit where it stops. */
const ON_LIMIT = 1e-10;

/** How far a motion has come, and whether it got to its end. */
export interface Driven {
  readonly pose: Pose;
  readonly arrived: boolean;
  /** The share of the way that was gone. */
  readonly share: number;
  /** Owners of what could not be fulfilled beyond. */
  readonly suspects: readonly string[];
  /** Coordinates that stand at the limit which stopped it, or would have been driven beyond theirs. */
  readonly stops: readonly CoordinateKey[];
  /** Where members stand against each other, so that it goes no further. */
  readonly against: readonly Touch[];
}

/**
 * Moves coordinates from where they are to values, step by step, so that the mechanism stays on the branch that it is on;
 * stops at the last pose that is possible, and where any coordinate comes to its limit. A step that fails, or on which
 * something swerves, begins once more where all would be if they went on as they went: so it goes straight through poses in
 * which ways part. Not where something is free to go elsewhere: that would be carried off. A step that fails then too is
 * halved, one that succeeds is followed by a longer one (continuation: Allgower, Georg 1990, ch. 6).
 * @param each called with every pose on the way
 * @param contacts what may touch: what is in the way is pushed along, and where it can't be all stops
 */
export function drive(
  mechanism: Mechanism,
  from: Pose,
  to: Coordinates,
  each: (pose: Pose) => void = () => {},
  contacts?: Contacts,
): Driven {
  const going = driving(mechanism, from, to, contacts);
  for (;;) {
    const next = going.next();
    if (next.done) return next.value;
    if (next.value) each(next.value);
  }
}

/** `drive`, one step after the other: yields each pose on the way, and nothing where a step has to be tried again. */
export function* driving(
  mechanism: Mechanism,
  from: Pose,
  to: Coordinates,
  contacts?: Contacts,
): Generator<Pose | undefined, Driven> {
  const keys = [...to.keys()];
  const ends = new Map(keys.map((key) => [key, withinLimits(mechanism.limits, key, to.get(key)!)] as const));
  const cut = keys.filter((key) => Math.abs(ends.get(key)! - to.get(key)!) > ROUNDED);
  const motion = new MergedEquations(mechanism, keys);
  const start = new Map(keys.map((key) => [key, from.coordinates.get(key) ?? 0] as const));
  const steps = Math.max(
    1,
    ...keys.map((key) => {
      const way = Math.abs(ends.get(key)! - start.get(key)!);
      return Math.ceil(way / (isAngle(key) ? LONGEST.turn : LONGEST.slide * mechanism.size) - ROUNDED);
    }),
  );
  const at = (share: number): Coordinates =>
    new Map(keys.map((key) => [key, start.get(key)! + share * (ends.get(key)! - start.get(key)!)]));
  let pose = from;
  /** The pose before, and how far the step was from there. */
  let before: { pose: Pose; step: number } | undefined;
  let done = 0;
  let step = 1 / steps;
  /** Where steps are found to be too long they grow slowly again. */
  let grows = 2;
  let determined: boolean | undefined;
  const isDetermined = () => (determined ??= new MechanismEquations(mechanism, keys).freedoms(from).count === 0);
  let suspects: readonly string[] = [];
  let stops: readonly CoordinateKey[] = [];
  let against: readonly Touch[] = [];
  const sure = contacts && !contacts.isEmpty ? contacts : undefined;
  while (done < 1 && (stops.length > 0 || step >= SHORTEST / steps)) {
    // the last step may be a little longer: rounding leaves nothing over
    let share = done + step > 1 - ROUNDED ? 1 : done + step;
    let next = motion.solve(pose, at(share));
    const going = before && onwards(before.pose, pose, (share - done) / before.step);
    if (going && (!next.fulfilled || swerves(mechanism, pose, going, next)) && isDetermined()) {
      const straight = motion.solve(going, at(share));
      if (straight.fulfilled && !swerves(mechanism, pose, going, straight)) next = straight;
    }
    if (sure && next.fulfilled) {
      const isFinest = step < (4 * SHORTEST) / steps;
      const kept = sure.kept(keys, { from: pose, target: next, at, share, reached: done }, isFinest);
      if (kept.kind === 'long' || kept.kind === 'leaving') {
        [step, grows] = kept.kind === 'long' ? [step * Math.min(0.9 * kept.share, 0.9), SLOWLY] : [step / 2, 2];
        yield;
        continue;
      }
      if (kept.kind === 'kept') {
        const isHeld = kept.share < share - ROUNDED;
        [against, stops] = isHeld ? [kept.against, kept.stops] : [[], []];
        if (isHeld && kept.share < done + ROUNDED) break;
        [next, share] = [kept.pose, kept.share];
      } else next = { ...next, fulfilled: false };
    }
    const [beyond] = next.fulfilled ? further(mechanism, pose, next) : [];
    if (next.fulfilled && !beyond) {
      before = { pose, step: share - done };
      [pose, done] = [next, share];
      step = Math.min(1 / steps, grows * step);
      yield pose;
      continue;
    }
    suspects = beyond ? [jointOf(beyond.key)] : next.suspects;
    stops = beyond ? [beyond.key] : [];
    step *= beyond ? Math.min(beyond.share, 0.9) : 0.5;
    if (beyond && step < ON_LIMIT) break;
  }
  const arrived = done === 1;
  if (arrived) suspects = [];
  return {
    ...{ pose, share: done, suspects },
    arrived: arrived && cut.length === 0,
    stops: arrived ? cut : stops,
    against: arrived ? [] : against,
  };
}

/** Where all would be going on from a pose as they came to it. */
const onwards = (before: Pose, now: Pose, share: number): Pose => ({
  ...now,
  poses: now.poses.map((pose, k) => extrapolatedPose(before.poses[k]!, pose, share)),
});

/** Does anything go elsewhere than it went, by more than half of how far the most moving body would go on? */
function swerves({ size }: Mechanism, from: Pose, going: Pose, next: Pose): boolean {
  const apart = (a: Pose, b: Pose): number =>
    Math.max(
      ...a.poses.map((pose, k) =>
        Math.hypot(...pose.flatMap((row, r) => row.map((c, n) => (c - b.poses[k]![r]![n]!) * (n === 3 ? 1 : size)))),
      ),
    );
  return apart(next, going) > 0.5 * apart(going, from);
}

/** Coordinates that went beyond a limit, or further beyond it, and at which share of the step each came to it. */
function further(mechanism: Mechanism, from: Pose, to: Pose): { key: CoordinateKey; share: number }[] {
  const before = new Map(beyondLimits(mechanism, from).map(({ key, by }) => [key, by]));
  return beyondLimits(mechanism, to)
    .filter(({ key, by }) => by > (before.get(key) ?? 0) + ROUNDED)
    .map(({ key, limit }) => {
      const [a, b] = [from, to].map(({ coordinates }) => coordinates.get(key)!) as [number, number];
      return { key, share: before.has(key) ? 0 : (limit - a) / (b - a) };
    })
    .sort((p, q) => p.share - q.share);
}
