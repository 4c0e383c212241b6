import { isAngle, type Coordinates, type Mechanism, type Pose } from './mechanism.ts';
import { MergedMotion } from './merged.ts';

/** The longest step of an angle, rad, and of a way, as a share of the size: small enough to stay on the branch. */
const LONGEST = { turn: Math.PI / 18, slide: 0.1 };
/** The shortest, as a share of the longest. */
const SHORTEST = 2 ** -12;

/** How far a motion has come, and whether it got to its end. */
export interface Driven {
  readonly pose: Pose;
  readonly arrived: boolean;
  /** The share of the way that was gone. */
  readonly share: number;
  /** Owners of what could not be fulfilled beyond. */
  readonly suspects: readonly string[];
}

/**
 * Moves coordinates from where they are to values, step by step, so that the mechanism stays on the branch that it is on;
 * stops at the last pose that is possible. A step that fails is halved, one that succeeds is followed by a longer one
 * (continuation: Allgower, Georg 1990, ch. 6).
 * @param each called with every pose on the way
 */
export function drive(
  mechanism: Mechanism,
  from: Pose,
  to: Coordinates,
  each: (pose: Pose) => void = () => {},
): Driven {
  const keys = [...to.keys()];
  const motion = new MergedMotion(mechanism, keys);
  const start = new Map(keys.map((key) => [key, from.coordinates.get(key) ?? 0] as const));
  const steps = Math.max(
    1,
    ...keys.map((key) => {
      const way = Math.abs(to.get(key)! - start.get(key)!);
      return Math.ceil(way / (isAngle(key) ? LONGEST.turn : LONGEST.slide * mechanism.size) - 1e-9);
    }),
  );
  const at = (share: number): Coordinates =>
    new Map(keys.map((key) => [key, start.get(key)! + share * (to.get(key)! - start.get(key)!)]));
  let pose = from;
  let done = 0;
  let step = 1 / steps;
  let suspects: readonly string[] = [];
  while (done < 1 && step >= SHORTEST / steps) {
    // the last step may be a little longer: rounding leaves nothing over
    const share = done + step > 1 - 1e-9 ? 1 : done + step;
    const next = motion.solve(pose, at(share));
    if (next.fulfilled) {
      [pose, done] = [next, share];
      step = Math.min(1 / steps, 2 * step);
      each(pose);
    } else {
      suspects = next.suspects;
      step /= 2;
    }
  }
  return { pose, arrived: done === 1, share: done, suspects };
}
