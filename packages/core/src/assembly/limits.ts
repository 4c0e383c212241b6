import { type CoordinateKey, isAngle } from '../naming/index.ts';
import { type Coordinates, type Limits, type Mechanism, type Pose } from './mechanism.ts';

/** How far beyond a limit counts as on it: rad, or a share of the size beside so many mm (what is solved is as exact). */
const ON = { rad: 1e-9, mm: 1e-9, share: 1e-10 };
const onLimit = (key: CoordinateKey, size: number): number =>
  isAngle(key) ? ON.rad : Math.max(ON.mm, ON.share * size);

interface Beyond {
  readonly key: CoordinateKey;
  /** The limit that it went beyond. */
  readonly limit: number;
  /** How far, rad or mm. */
  readonly by: number;
}

/** A value within the limits of its coordinate. */
export function withinLimits(limits: Limits, key: CoordinateKey, value: number): number {
  const [least, most] = limits.get(key) ?? [-Infinity, Infinity];
  return Math.min(most, Math.max(least, value));
}

/** What coordinates are beyond their limits in a pose. */
export const beyondLimits = ({ limits, size }: Mechanism, { coordinates }: Pick<Pose, 'coordinates'>): Beyond[] =>
  [...limits.keys()].flatMap((key) => {
    const value = coordinates.get(key);
    if (value === undefined) return [];
    const limit = withinLimits(limits, key, value);
    const by = Math.abs(value - limit);
    return by > onLimit(key, size) ? [{ key, limit, by }] : [];
  });

/** The same angles, by whole turns within their limits where they can be. */
export const turnedWithin = (limits: Limits, coordinates: Coordinates): Coordinates =>
  new Map(
    [...coordinates].map(([key, value]) => {
      if (!isAngle(key) || !limits.has(key)) return [key, value];
      const off = (angle: number) => Math.abs(withinLimits(limits, key, angle) - angle);
      const turns = Math.round((withinLimits(limits, key, value) - value) / (2 * Math.PI));
      const tries = [0, turns - 1, turns, turns + 1].map((n) => value + 2 * Math.PI * n);
      return [key, tries.reduce((best, angle) => (off(angle) < off(best) - ON.rad ? angle : best))];
    }),
  );
