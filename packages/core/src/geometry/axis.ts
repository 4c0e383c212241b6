import type { Vec3 } from '../math/index.ts';

/** A line without end, with the stretch of it that was meant where there is one. */
export interface Axis {
  readonly origin: Vec3;
  readonly direction: Vec3;
  readonly stretch?: readonly [Vec3, Vec3];
  /** A direction square to it that turns along with it; the usual one of its direction if absent. */
  readonly side?: Vec3;
}
