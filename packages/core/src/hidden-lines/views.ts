import type { SpaceCurve } from '../geometry/index.ts';
import type { Topology } from '../kernel-port/index.ts';

/** A line of a view: a curve in the plane of the eye, at height 0. */
export interface DrawnLine {
  /** An edge, an edge at which faces go on into each other, where a round face turns away from the eye, or a thread. */
  readonly sort: 'sharp' | 'smooth' | 'outline' | 'thread';
  readonly hidden: boolean;
  /** Which of the bodies. */
  readonly body: number;
  /** Of edges, what they are called in their piece. */
  readonly edge?: string;
  readonly piece: number;
  readonly curve: SpaceCurve;
}

/** What an eye far away sees. */
export interface DrawnView {
  readonly lines: readonly DrawnLine[];
  /** What is looked at: bodies, or what a cut has left of them. */
  readonly pieces: readonly Topology[];
  /** Where bodies are cut open: the rims of these faces, in the plane of the eye. */
  readonly cutFaces: readonly { readonly body: number; readonly rims: readonly SpaceCurve[] }[];
}
