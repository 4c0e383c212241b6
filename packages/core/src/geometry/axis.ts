import type { Vec3 } from '../math/index.ts';

/** A line without end, with the stretch of it that was meant where there is one. */
export interface Axis {
  readonly origin: Vec3;
  readonly direction: Vec3;
  readonly stretch?: readonly [Vec3, Vec3];
}
