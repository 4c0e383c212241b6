import type { CoordinateKey } from '../naming/index.ts';
import { add3, distance3, transformPoint, scale3, sub3, type Vec3 } from '../math/index.ts';
import type { Place } from './equations.ts';
import type { Mechanism, Pose } from './mechanism.ts';
import { beyondLimits } from './limits.ts';
import { MergedEquations } from './merged.ts';

/** The longest step of what is pulled, as a share of the size. */
const LONGEST = 0.2;
const MOST_STEPS = 40;

/** A body taken by the hand: it follows as far as the mechanism lets it, and never breaks what holds. */
export class Grab {
  private readonly motions = new Map<string, MergedEquations>();
  /** Moves everything without turning it, as long as that goes about where it is pulled. */
  private shifting: MergedEquations | undefined;
  /** Where the place was when it was taken. */
  private taken: Vec3 | undefined;

  constructor(
    private readonly mechanism: Mechanism,
    private readonly place: Place,
  ) {
    this.shifting = new MergedEquations(mechanism, [], place, 'shifts');
  }

  /** The pose in which the place that is held is as near to a goal as it can be, gone to step by step. */
  pull(from: Pose, goal: Vec3): Pose {
    let pose = from;
    this.taken ??= this.at(from);
    for (let k = 0; k < MOST_STEPS; k++) {
      const at = this.at(pose);
      const way = sub3(goal, at);
      const length = distance3(goal, at);
      const longest = LONGEST * this.mechanism.size;
      const step = length > longest ? longest / length : 1;
      const next = this.within(pose, add3(at, scale3(way, step)));
      if (!next.fulfilled) break;
      const gained = length - distance3(goal, this.at(next));
      if (gained < SETTLED) return gained > 0 ? next : pose;
      pose = next;
    }
    return pose;
  }

  /** A coordinate that would go beyond its limit is held there, and the rest follows. */
  private within(from: Pose, goal: Vec3): Pose {
    const shifted = this.shifting?.solve(from, new Map(), goal);
    const reached = ASIDE * distance3(this.taken!, goal) + SETTLED;
    if (shifted?.fulfilled && distance3(this.at(shifted), goal) <= reached && this.isWithin(shifted)) return shifted;
    this.shifting = undefined;
    const stopped = new Map<CoordinateKey, number>();
    let pose = from;
    for (let k = 0; k <= this.mechanism.limits.size; k++) {
      pose = this.motion([...stopped.keys()]).solve(from, stopped, goal);
      const beyond = beyondLimits(this.mechanism, pose).find(({ key }) => !stopped.has(key));
      if (!pose.fulfilled || !beyond) return pose;
      stopped.set(beyond.key, beyond.limit);
    }
    return pose;
  }

  private motion(prescribed: readonly CoordinateKey[]): MergedEquations {
    const key = prescribed.join();
    let motion = this.motions.get(key);
    if (!motion) this.motions.set(key, (motion = new MergedEquations(this.mechanism, prescribed, this.place)));
    return motion;
  }

  private isWithin = (pose: Pose): boolean => beyondLimits(this.mechanism, pose).length === 0;

  private at = ({ poses }: Pose): Vec3 => transformPoint(poses[this.place.body]!, this.place.at);
}
/**
 * The share of the way that may be left where a pull counts as followed: what is pulled along an upright axis in a view from
 * above is pulled away from it as well, by as much as the view leans.
 */
const ASIDE = 0.85;
/** What comes nearer by less than this, mm, has come as near as it can. */
const SETTLED = 1e-9;
