import type { BodyMeasures, BodyMesh, Id, Issue, Quantity, SolvedSketch } from '@helb/core';

export type StepState = 'built' | 'failed' | 'suppressed';

export interface StepResult {
  readonly id: Id;
  readonly state: StepState;
  readonly issue?: Issue;
}

/** A body of a part as it was built; its mesh only where it was asked for. */
export interface BodyModel {
  /** The same while the body is the same: a page keeps what it has shown under this key. */
  readonly key: string;
  readonly measures: BodyMeasures;
  readonly mesh?: BodyMesh;
}

export interface PartModel {
  readonly id: Id;
  readonly steps: readonly StepResult[];
  /** Solved sketches by step. */
  readonly sketches: ReadonlyMap<Id, SolvedSketch>;
  readonly bodies: readonly BodyModel[];
}

export interface ValueResult {
  readonly id: Id;
  readonly name: string;
  readonly result?: Quantity;
  readonly issue?: Issue;
}

/** What a document comes to: made anew from it at any time, never stored as truth. */
export interface Model {
  readonly parts: readonly PartModel[];
  readonly values: readonly ValueResult[];
}
