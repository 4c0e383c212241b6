import type { TessellationQuality, Id, RigidTransform } from '@helb/core';

export interface BuildOptions {
  /** Which parts; all if absent. */
  readonly parts?: readonly Id[];
  /** Make meshes this fine. */
  readonly mesh?: TessellationQuality;
  /** Describe the bodies as they are before this step besides. */
  readonly before?: Id;
  /** Tell where the plane of this sketch crosses what is laid under. */
  readonly sketch?: Id;
  /** Body keys whose meshes the caller has already: they are left out. */
  readonly known?: ReadonlySet<string>;
  /** Build up to this step and no further. */
  readonly upTo?: Id;
  /** Set when something newer overtakes this build. */
  readonly signal?: AbortSignal;
  /** Called before each step that has to be computed. */
  readonly progress?: (done: number, of: number, name: string) => void;
  /** Gives way to other messages between steps. */
  readonly pause?: () => Promise<void>;
}

export interface InterferenceOptions {
  /** Where the bodies of the mechanism are; at rest if absent. */
  readonly poses?: readonly RigidTransform[];
  /** How fine the meshes are that tell which pairs may meet. */
  readonly mesh?: TessellationQuality;
  /** Tell pairs that come nearer than this besides, mm. */
  readonly within?: number;
  /** Called before each pair; may throw to stop. */
  readonly pause?: (done: number, of: number) => Promise<void>;
}

/** Thrown when a build was overtaken. */
export class Overtaken extends Error {
  constructor() {
    super('overtaken by a newer build');
  }
}
