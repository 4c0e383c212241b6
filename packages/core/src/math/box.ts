import { transformPoint, type RigidTransform } from './rigid-transform.ts';
import type { Vec3 } from './vector.ts';

// Boxes along the axes of space.

export interface Box3 {
  readonly low: Vec3;
  readonly high: Vec3;
}

/** The box round a box that is moved. Written out, as the next one: motions ask them for every pair of boxes. */
export function transformBox({ low, high }: Box3, transform: RigidTransform): Box3 {
  const [x, y, z] = transformPoint(transform, [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]);
  const [u, v, w] = [(high[0] - low[0]) / 2, (high[1] - low[1]) / 2, (high[2] - low[2]) / 2];
  const half = (row: RigidTransform[0]) => Math.abs(row[0]) * u + Math.abs(row[1]) * v + Math.abs(row[2]) * w;
  const [a, b, c] = [half(transform[0]), half(transform[1]), half(transform[2])];
  return { low: [x - a, y - b, z - c], high: [x + a, y + b, z + c] };
}

/** How far two boxes are apart; 0 where they meet. */
export function boxesApart(a: Box3, b: Box3): number {
  const x = Math.max(0, a.low[0] - b.high[0], b.low[0] - a.high[0]);
  const y = Math.max(0, a.low[1] - b.high[1], b.low[1] - a.high[1]);
  const z = Math.max(0, a.low[2] - b.high[2], b.low[2] - a.high[2]);
  return Math.sqrt(x * x + y * y + z * z);
}

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
