import type { Pose } from '@helb/core/assembly';

/** Are all bodies where another pose has them, to 1e-6 mm? */
export const isAt = (one: Pose, other: Pose): boolean =>
  one.poses.every((pose, k) =>
    pose.every((row, r) => row.every((c, n) => Math.abs(c - other.poses[k]![r]![n]!) < 1e-6)),
  );
