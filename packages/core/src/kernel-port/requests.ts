import type { Frame, RigidTransform, Vec3 } from '../math/index.ts';
import type { SpaceCurve } from '../geometry/index.ts';
import type { Region } from '../sketch/index.ts';

/** A body owned by the kernel; plain data outside. Whoever got it releases it. */
export type BodyHandle = number & { readonly brand?: 'body' };

/** Areas on a plane, from which faces are made. */
export interface Profile {
  readonly frame: Frame;
  readonly regions: readonly Region[];
}

/** Faces are named by their origin (../naming): the step, their role, the sketch entity. */
interface Named {
  readonly step: string;
}

export interface ExtrudeRequest extends Named {
  readonly profile: Profile;
  /** Where the extrusion starts and ends along the frame's z, mm; from < to. */
  readonly from: number;
  readonly to: number;
  /** How much the sides lean inwards on the way from the sketch plane, rad; outwards if negative. */
  readonly taper?: number;
  /** Stops it at something within the way from `from` to `to`; what lies beyond is left out. */
  readonly until?: Stop & { readonly forwards: boolean };
}

/**
 * What ends an extrusion: a plane, the surface of a face, or what comes next: the body that it meets, or, `within` bodies,
 * the far side of the first wall that it goes through.
 */
export type Stop =
  | { readonly form: 'plane'; readonly plane: Frame }
  | { readonly form: 'face'; readonly body: BodyHandle; readonly face: string }
  | { readonly form: 'next'; readonly bodies: readonly BodyHandle[]; readonly within: boolean };

export interface RevolveRequest extends Named {
  readonly profile: Profile;
  readonly origin: Vec3;
  readonly axis: Vec3;
  /** Angles at which it starts and ends, rad, counter-clockwise seen against the axis; a full turn has no ends. */
  readonly from: number;
  readonly to: number;
}

export interface SweepRequest extends Named {
  readonly profile: Profile;
  /** Curves end to end. */
  readonly path: readonly SpaceCurve[];
  /** `following` turns with the path, `fixed` keeps its first direction. */
  readonly keep: 'following' | 'fixed';
  /** How much it turns besides over the whole way, rad, counter-clockwise seen against it. */
  readonly twist?: number;
}

export interface HelixRequest extends Named {
  readonly profile: Profile;
  readonly origin: Vec3;
  readonly axis: Vec3;
  /** Way along the axis in one turn, mm. */
  readonly pitch: number;
  readonly turns: number;
  readonly left: boolean;
  /** How much the helix closes in towards its end, rad. */
  readonly taper: number;
}

export interface LoftRequest extends Named {
  /** Each one area, all with as many openings, or a point at either end of those without. */
  readonly sections: readonly (Profile | { readonly point: Vec3 })[];
  /** The outlines have as many pieces each, and those with one place belong together; else the kernel looks for what fits. */
  readonly matched?: boolean;
  /**
   * How far it goes on square to its first and its last section before it bends, mm: the length of the tangents there.
   * Only of matched sections whose round pieces are a quarter turn at most.
   */
  readonly square?: { readonly first?: number; readonly last?: number };
  /** Straight from section to section, instead of smooth through all. */
  readonly straight: boolean;
}

/** A rod with a thread of the profile of ISO 68-1 about an axis, from the origin on. */
export interface ThreadRequest extends Named {
  readonly origin: Vec3;
  readonly axis: Vec3;
  /** Radii at the crest and at the root, mm. */
  readonly major: number;
  readonly minor: number;
  readonly pitch: number;
  readonly length: number;
  readonly left: boolean;
}

export interface ReadStepRequest extends Named {
  /** The hash of a file that the kernel was given. */
  readonly file: string;
}

export type CombineKind = 'add' | 'cut' | 'overlap';

interface OnBody extends Named {
  readonly body: BodyHandle;
}

export interface FilletRequest extends OnBody {
  /** Edges by name; edges that go on smoothly are rounded with them. `to` is the radius at the other end. */
  readonly edges: readonly { readonly name: string; readonly radius: number; readonly to?: number }[];
}

export interface ChamferRequest extends OnBody {
  readonly edges: readonly string[];
  readonly distance: number;
  /** Of these edges the distance lies on the second of their faces, in the order of their names; of others on the first. */
  readonly onSecond?: readonly string[];
  /** On the other face, mm, or the angle to the first face, rad; the same distance if neither. */
  readonly other?: number;
  readonly angle?: number;
}

export interface ShellRequest extends OnBody {
  /** Faces that are taken away. */
  readonly open: readonly string[];
  /** Thickness of the walls, mm: inwards, or outwards if negative. */
  readonly wall: number;
  /** Outer faces whose walls are of another thickness, mm; only where walls go inwards. */
  readonly others?: readonly { readonly face: string; readonly wall: number }[];
}

export interface DraftRequest extends OnBody {
  readonly faces: readonly string[];
  /** Where the faces stay as they are; they lean about their lines in this plane, against its z. */
  readonly neutral: Frame;
  readonly angle: number;
}

export interface OffsetRequest extends OnBody {
  readonly faces: readonly string[];
  /** Outwards, mm; inwards if negative. */
  readonly distance: number;
}

export interface ThickenRequest extends OnBody {
  readonly faces: readonly string[];
  readonly distance: number;
}

export interface SplitRequest extends OnBody {
  /** A plane, or the surface of a face made larger. */
  readonly by: Frame | { readonly body: BodyHandle; readonly face: string };
}

export interface TransformRequest extends OnBody {
  readonly transform: RigidTransform;
  /** Which of several copies: a part of the names of its faces. */
  readonly instance: string;
}
