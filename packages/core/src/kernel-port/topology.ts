import type { Vec3 } from '../math/index.ts';

/** A curve in space, exact. Round ones run counter-clockwise about `axis`, ellipses from `major` to `minor`; without ends they are closed. */
export type SpaceCurve =
  | { readonly form: 'line'; readonly from: Vec3; readonly to: Vec3 }
  | {
      readonly form: 'circle';
      readonly centre: Vec3;
      readonly axis: Vec3;
      readonly radius: number;
      readonly from?: Vec3;
      readonly to?: Vec3;
    }
  | {
      readonly form: 'ellipse';
      readonly centre: Vec3;
      readonly major: Vec3;
      readonly minor: Vec3;
      readonly from?: Vec3;
      readonly to?: Vec3;
    }
  /** About an axis, beginning over `x`; it closes in by `taper` (rad) on the way. */
  | {
      readonly form: 'helix';
      readonly origin: Vec3;
      readonly axis: Vec3;
      readonly x: Vec3;
      readonly radius: number;
      readonly pitch: number;
      readonly turns: number;
      readonly left: boolean;
      readonly taper: number;
    }
  /** Cubic Bezier spans, end to end. */
  | { readonly form: 'free'; readonly spans: readonly (readonly [Vec3, Vec3, Vec3, Vec3])[] };

/** What a face lies on. Normals point out of the body. */
export type Surface =
  | { readonly form: 'plane'; readonly origin: Vec3; readonly normal: Vec3 }
  /** `hollow` where the material is outside: a bore. */
  | {
      readonly form: 'cylinder';
      readonly origin: Vec3;
      readonly axis: Vec3;
      readonly radius: number;
      readonly hollow: boolean;
    }
  /** `origin` is its tip, `axis` goes from there into it, `angle` is half of that between its flanks, rad. */
  | { readonly form: 'cone'; readonly origin: Vec3; readonly axis: Vec3; readonly angle: number }
  /** A ring: of the round section `minor` is the radius; its middle goes round `origin` at the distance `major`. */
  | {
      readonly form: 'torus';
      readonly origin: Vec3;
      readonly axis: Vec3;
      readonly major: number;
      readonly minor: number;
    }
  | { readonly form: 'sphere'; readonly centre: Vec3; readonly radius: number }
  | { readonly form: 'free' };

export interface FaceFacts {
  readonly name: string;
  readonly surface: Surface;
  readonly area: number;
  readonly centre: Vec3;
}

/** Does the body turn away outside an edge, as on a box, or towards it, as at the foot of a wall; or does it go on? */
export type Turn = 'outer' | 'inner' | 'smooth';

export interface EdgeFacts {
  /** The names of the faces that meet there, with a discriminator where several edges lie between the same two. */
  readonly name: string;
  readonly faces: readonly string[];
  readonly curve: SpaceCurve;
  /** Names of the vertices where it begins and ends; none where it is closed. */
  readonly ends?: readonly [string, string];
  readonly length: number;
  readonly middle: Vec3;
  /** Of edges of bodies. */
  readonly turn?: Turn;
}

export interface VertexFacts {
  readonly name: string;
  readonly at: Vec3;
}

/** The faces, edges and vertices of one body with their lasting names; seams are left out. */
export interface Topology {
  /** The lasting name of the body. */
  readonly name: string;
  readonly faces: readonly FaceFacts[];
  readonly edges: readonly EdgeFacts[];
  readonly vertices: readonly VertexFacts[];
}
