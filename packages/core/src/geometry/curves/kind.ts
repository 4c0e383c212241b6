import type { RigidTransform, Vec3 } from '../../math/index.ts';
import type { Axis } from '../axis.ts';

/** A place of a curve, and the unit vector along which it runs there. */
export interface CurvePlace {
  readonly at: Vec3;
  readonly along: Vec3;
}

/** A stretch of a curve as a map from 0..1. */
export type Run = (t: number) => Vec3;

/** What a kind of curve has to say of itself. Lengths in mm, angles in rad. */
export interface CurveKind<C> {
  /** What fingerprints call it. */
  readonly look: string;
  /**
   * How it reads: "straight 24 mm", "rim ⌀5.5 mm".
   * @param length mm @param isClosed has it no ends? @param told a length in words
   */
  words(curve: C, length: number, isClosed: boolean, told: (mm: number) => string): string;
  /** The same curve elsewhere. @param by a transform without reflection */
  transform(curve: C, by: RigidTransform): C;
  /** Itself, in stretches that follow each other, each smooth. */
  runs(curve: C): readonly Run[];
  /** Into how many chords a stretch is cut to draw it. */
  readonly chords: number;
  /** Where it begins and ends; none where it is closed. */
  ends(curve: C): readonly [] | readonly [Vec3, Vec3];
  /** Places between which it lies, near enough to tell how long an axis is to be drawn. */
  hull(curve: C): readonly Vec3[];
  /** Few places that tell where it is: its ends and its middle, of what is closed and round four. */
  marks(curve: C, middle: Vec3): readonly Vec3[];
  /** Its place nearest to another, and its direction there; undefined where it has no length. */
  nearest(curve: C, place: Vec3): CurvePlace | undefined;
  /** What is straight runs along one, what is circular goes round one. */
  axis?(curve: C): Axis | undefined;
  /** The centre of what is round. */
  centre?(curve: C): Vec3;
  /** Of circles. */
  radius?(curve: C): number;
}
