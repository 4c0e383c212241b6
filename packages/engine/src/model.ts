import type {
  BodyMeasures,
  BodyMesh,
  Datum,
  EdgeFacts,
  Frame,
  Id,
  Issue,
  Quantity,
  Reference,
  Sign,
  Result,
  SolvedSketch,
  Topology,
  Project,
  Scope,
  Vec2,
} from '@helb/core';
import type { LaidMesh } from './project-files.ts';

/** `later`: it stands after the step up to which was built. */
type StepState = 'built' | 'failed' | 'suppressed' | 'later';

export interface StepResult {
  readonly id: Id;
  readonly state: StepState;
  readonly issue?: Issue;
  /** What was done by another way than the plain one, which did not lead to a body. */
  readonly detours?: readonly Issue[];
  /** References that were not found by their names. */
  readonly references?: readonly UnsureReference[];
}

/** A reference that was recovered by its fingerprint, or is gone. */
export interface UnsureReference {
  readonly path: readonly string[];
  readonly label: string;
  readonly reference: Reference;
  readonly fate: 'recovered' | 'gone';
  /** What it was taken for, or likely replacements: the likeliest first. */
  readonly offers: readonly Reference[];
}

/** A body of a part as it was built; its mesh only where it was asked for. */
export interface BodyModel {
  /** The same while the body is the same: a page keeps what it has shown under this key. */
  readonly key: string;
  /** The lasting name: the step that made it first. */
  readonly name: string;
  readonly measures: BodyMeasures;
  readonly mesh?: BodyMesh;
  /** Comes with the mesh. */
  readonly topology?: Topology;
}

export interface PartModel {
  readonly id: Id;
  readonly steps: readonly StepResult[];
  /** Why it is not as it is told: then the bodies are the last that were good. */
  readonly trouble?: Issue;
  /** Solved sketches by step. */
  readonly sketches: ReadonlyMap<Id, SolvedSketch>;
  readonly datums: ReadonlyMap<Id, Datum>;
  /** The planes at which the part can be cut open, or why one can't be found. */
  readonly sections: ReadonlyMap<Id, Result<Frame>>;
  /** Threads and the like, by the step that makes them. */
  readonly signs: readonly (Sign & { readonly step: Id })[];
  readonly bodies: readonly BodyModel[];
  /** The bodies before the step that was asked for. */
  readonly earlier: readonly BodyModel[];
  /** Where the plane of the sketch that was asked for crosses them. */
  readonly crossings: readonly EdgeFacts[];
  /** Triangles that are laid under the model. */
  readonly meshes: readonly LaidMesh[];
  /** Where the plane of the sketch that was named crosses these, in its x and y. */
  readonly underlay: readonly (readonly Vec2[])[];
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

/** What each value comes to. */
export function valuesOf(project: Project, scope: Scope): ValueResult[] {
  return project.valueOrder.map((id) => {
    const { name } = project.values[id]!;
    const result = scope.lookup(name);
    return result.ok ? { id, name, result: result.value } : { id, name, issue: result.issue };
  });
}
