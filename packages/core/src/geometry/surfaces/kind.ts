import type { RigidTransform, Vec3 } from '../../math/index.ts';

/** What a kind of surface has to say of itself. Lengths in mm. */
export interface SurfaceKind<S> {
  /** What fingerprints call it. */
  readonly look: string;
  /** How a face on it reads: "flat", "round ⌀16 mm". @param told a length in words */
  words(surface: S, told: (mm: number) => string): string;
  /** The same surface elsewhere. @param by a transform without reflection */
  transform(surface: S, by: RigidTransform): S;
  /** The direction that tells how it lies: a normal, an axis. */
  along?(surface: S): Vec3;
  /** The axis that what lies on it can be joined at: of cylinders and cones. */
  axis?(surface: S): { readonly origin: Vec3; readonly direction: Vec3 };
  /** The place that it stands for: of spheres. */
  centre?(surface: S): Vec3;
  /** Of what is round all over: of cylinders and spheres. */
  radius?(surface: S): number;
  /** The radius that a dimension of it tells: of a rounding along a rim that of its section. */
  toldRadius?(surface: S): number;
}
