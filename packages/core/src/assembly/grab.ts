import type { CoordinateKey } from '../naming/index.ts';
import { add3, distance3, transformPoint, scale3, sub3, type Vec3 } from '../math/index.ts';
import type { Place } from './equations.ts';
import type { Coordinates, Mechanism, Pose } from './mechanism.ts';
import type { Contacts, Touch } from './contacts.ts';
import { beyondLimits } from './limits.ts';
import { MergedEquations } from './merged.ts';

/** The longest step of what is pulled, as a share of the size. */
const LONGEST = 0.2;
const MOST_STEPS = 40;
/** How steps grow again that were too long for what may touch. */
const GROWING = 1.5;

/** A body taken by the hand: it follows as far as the mechanism lets it, and never breaks what holds. */
export class Grab {
  private readonly motions = new Map<string, MergedEquations>();
  /** Moves everything without turning it, as long as that goes about where it is pulled. */
  private shifting: MergedEquations | undefined;
  /** Where the place was when it was taken. */
  private taken: Vec3 | undefined;

  /** The longest step, mm: shorter where more was found to be too long for what may touch. */
  private longest: number;
  /** Where members stand against each other, so that what is held went no further. */
  against: readonly Touch[] = [];

  /** @param contacts what may touch: what is in the way is pushed along, or holds it off */
  constructor(
    private readonly mechanism: Mechanism,
    private readonly place: Place,
    private readonly contacts?: Contacts,
  ) {
    this.shifting = new MergedEquations(mechanism, [], place, 'shifts');
    this.longest = LONGEST * mechanism.size;
  }

  /**
   * The pose in which the place that is held is as near to a goal as it can be, gone to step by step.
   * @param steps so many at most: what touches takes time
   */
  pull(from: Pose, goal: Vec3, steps = MOST_STEPS): Pose {
    let pose = from;
    this.taken ??= this.at(from);
    this.against = [];
    for (let [gone, tries] = [0, 0]; gone < steps && tries < MOST_STEPS; tries++) {
      const at = this.at(pose);
      const way = sub3(goal, at);
      const length = distance3(goal, at);
      const step = length > this.longest ? this.longest / length : 1;
      let next = this.within(pose, add3(at, scale3(way, step)));
      if (!next.fulfilled) break;
      if (this.contacts && !this.contacts.isEmpty) {
        const kept = this.contacts.kept([], { from: pose, target: next, at: () => NOTHING, share: 1 });
        if (kept.kind === 'lost') break;
        if (kept.kind !== 'kept') {
          this.longest = Math.min(this.longest, length) * (kept.kind === 'long' ? Math.min(0.9, kept.share) : 0.5);
          continue;
        }
        [next, this.against] = [kept.pose, kept.against];
        this.longest = Math.min(GROWING * this.longest, LONGEST * this.mechanism.size);
      }
      const gained = length - distance3(goal, this.at(next));
      if (gained < SETTLED) return gained > 0 ? next : pose;
      pose = next;
      gone++;
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
const NOTHING: Coordinates = new Map();
/**
 * The share of the way that may be left where a pull counts as followed: what is pulled along an upright axis in a view from
 * above is pulled away from it as well, by as much as the view leans.
 */
const ASIDE = 0.85;
/** What comes nearer by less than this, mm, has come as near as it can. */
const SETTLED = 1e-9;
