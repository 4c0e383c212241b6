import type { SpaceCurve, Surface } from '../geometry/index.ts';
import type { Vec3 } from '../math/index.ts';

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
