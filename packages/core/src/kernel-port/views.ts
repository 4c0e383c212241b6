import type { Frame, Movement } from '../math/index.ts';
import type { BodyHandle } from './requests.ts';
import type { SpaceCurve } from './topology.ts';

/** What an eye far away, that looks against the z of its frame, sees of bodies; x is to the right. */
export interface ViewRequest {
  readonly bodies: readonly { readonly body: BodyHandle; readonly movement: Movement }[];
  readonly eye: Frame;
  /** What lies in front of this plane, on the side of its z, is left out. */
  readonly cut?: Frame;
}

/** A line of a view: a curve in the plane of the eye, at height 0. */
export interface DrawnLine {
  /** An edge, an edge at which faces go on into each other, or where a round face turns away from the eye. */
  readonly sort: 'sharp' | 'smooth' | 'outline';
  readonly hidden: boolean;
  /** Which of the bodies. */
  readonly body: number;
  readonly curve: SpaceCurve;
}

export interface DrawnView {
  readonly lines: readonly DrawnLine[];
  /** Where bodies are cut open: the rims of these faces, in the plane of the eye. */
  readonly cutFaces: readonly { readonly body: number; readonly rims: readonly SpaceCurve[] }[];
}
