import type { SpaceCurve } from '../kernel-port/index.ts';

/** A line of a view: a curve in the plane of the eye, at height 0. */
export interface DrawnLine {
  /** An edge, an edge at which faces go on into each other, where a round face turns away from the eye, or a thread. */
  readonly sort: 'sharp' | 'smooth' | 'outline' | 'thread';
  readonly hidden: boolean;
  /** Which of the bodies. */
  readonly body: number;
  /** Of edges, its name. */
  readonly edge?: string;
  readonly curve: SpaceCurve;
}

/** What an eye far away sees. */
export interface DrawnView {
  readonly lines: readonly DrawnLine[];
  /** Where bodies are cut open: the rims of these faces, in the plane of the eye. */
  readonly cutFaces: readonly { readonly body: number; readonly rims: readonly SpaceCurve[] }[];
}
