import { transformPoint, type RigidTransform } from './rigid-transform.ts';
import type { Vec3 } from './vector.ts';

// Boxes along the axes of space.

export interface Box3 {
  readonly low: Vec3;
  readonly high: Vec3;
}

/** The box round a box that is moved. */
export function transformBox({ low, high }: Box3, transform: RigidTransform): Box3 {
  const middle = transformPoint(transform, [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]);
  const half = transform.map(
    ([x, y, z]) =>
      (Math.abs(x) * (high[0] - low[0]) + Math.abs(y) * (high[1] - low[1]) + Math.abs(z) * (high[2] - low[2])) / 2,
  );
  return {
    low: middle.map((c, k) => c - half[k]!) as unknown as Vec3,
    high: middle.map((c, k) => c + half[k]!) as unknown as Vec3,
  };
}

/** How far two boxes are apart; 0 where they meet. */
export const boxesApart = (a: Box3, b: Box3): number =>
  Math.hypot(...[0, 1, 2].map((k) => Math.max(0, a.low[k]! - b.high[k]!, b.low[k]! - a.high[k]!)));

/** The eight corners of a box. */
export const boxCorners = ({ low, high }: Box3): Vec3[] =>
  [low, high].flatMap(([x]) => [low, high].flatMap(([, y]) => [low, high].map(([, , z]): Vec3 => [x, y, z])));

/** The box round several; undefined round none. */
export function boxRound(boxes: readonly Box3[]): Box3 | undefined {
  if (boxes.length === 0) return undefined;
  const bound = (pick: (...values: number[]) => number, end: keyof Box3) =>
    [0, 1, 2].map((k) => pick(...boxes.map((box) => box[end][k]!))) as unknown as Vec3;
  return { low: bound(Math.min, 'low'), high: bound(Math.max, 'high') };
}
