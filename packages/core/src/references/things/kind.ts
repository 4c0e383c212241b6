import type { Frame, RigidTransform, Vec3 } from '../../math/index.ts';
import type { Axis } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import type { Fingerprint } from '../reference.ts';

/** One figure read off the model: what it is, and the amount in mm, mm^2 or rad. */
export interface Reading {
  readonly label: string;
  readonly amount: number;
  readonly of: 'length' | 'area' | 'angle';
}

/** What a kind of thing has to say of itself: the geometry that it stands for, where it has such. */
export interface ThingKind<T> {
  /** It in the space of another part: of none of the bodies there. @param by a transform without reflection */
  transform(thing: T, by: RigidTransform): T;
  /** Its lasting name, of what is of a body. */
  name?(thing: T): string;
  /** What it looks like; none of what is found without that. */
  fingerprint?(thing: T): Fingerprint | undefined;
  /** The plane that it lies in. */
  plane?(thing: T): Frame | undefined;
  /** What it runs along, or goes round. */
  axis?(thing: T): Axis | undefined;
  /** The place that it stands for. */
  point?(thing: T): Vec3 | undefined;
  /** Where one points to it. */
  middle?(thing: T): Vec3;
  /** The curves that it consists of. */
  curves?(thing: T): readonly EdgeFacts[];
  /** What can be read off it. */
  readings?(thing: T): Reading[];
}

/** In the place of a body, for things of another part: they are of none of the bodies before a step. */
export const ELSEWHERE = -1;
