import type {
  BodyMeasures,
  BodyMesh,
  BodyReference,
  Box3,
  ComposedSheet,
  Datum,
  EdgeFacts,
  Entities,
  FittingMark,
  Frame,
  Gap,
  Id,
  Issue,
  RigidTransform,
  Project,
  Reference,
  Region,
  Result,
  SheetInk,
  Sign,
  SketchSources,
  Topology,
  Vec2,
} from '@helb/core';
import type { Assembled, TouchingBody } from '@helb/core/assembly';
import type {
  CheckFinding,
  Interference,
  FaceOutlineOptions,
  FileFormat,
  Finding,
  LaidMesh,
  BillRow,
  OutlineFormat,
  StepResult,
  Totals,
  ValueResult,
  Walls,
} from '@helb/engine';

/** Everything that crosses between the page and the engine's worker: plain data. */
export interface BuildRequest {
  readonly part: Id;
  /** Bodies that the page shows already: their meshes are not sent again. */
  readonly known: readonly string[];
  /** Tell the bodies as they are before this step besides. */
  readonly before?: Id;
  /** The sketch that is edited. */
  readonly sketch?: Id;
  /** Build up to this step and no further. */
  readonly upTo?: Id;
}

export interface SketchReply {
  readonly frame: Frame;
  readonly entities: Entities;
  readonly state: 'loose' | 'settled' | 'clashing';
  readonly freedoms: number;
  readonly regions: readonly Region[];
  readonly sources: SketchSources;
}

interface BodyReply {
  readonly key: string;
  /** The lasting name. */
  readonly name: string;
  readonly measures: BodyMeasures;
  readonly mesh?: BodyMesh;
  readonly topology?: Topology;
}

export type BuildReply =
  | { readonly kind: 'overtaken' }
  | {
      readonly kind: 'built';
      readonly part: Id;
      /** Why the part is not as it is told. */
      readonly trouble?: Issue;
      readonly steps: readonly StepResult[];
      readonly sketches: Readonly<Record<Id, SketchReply>>;
      readonly datums: Readonly<Record<Id, Datum>>;
      readonly signs: readonly Sign[];
      readonly sections: Readonly<Record<Id, Result<Frame>>>;
      readonly bodies: readonly BodyReply[];
      /** The bodies before the step that was asked for, and which that was. */
      readonly earlier: readonly BodyReply[];
      readonly before?: Id;
      /** Where the plane of the sketch that stands there crosses them. */
      readonly crossings: readonly EdgeFacts[];
      /** Triangles that are laid under the model, and where the plane of the sketch that is edited crosses them. */
      readonly meshes: readonly LaidMesh[];
      readonly underlay: readonly (readonly Vec2[])[];
      readonly sketch?: Id;
      readonly totals: Totals;
      readonly values: readonly ValueResult[];
      readonly findings: readonly Finding[];
      /** Time in the engine, ms. */
      readonly took: number;
      /** Taken by the kernel, bytes. */
      readonly memory: number;
    };

/** A part that is placed, as it was built. */
export interface PlacedPart {
  readonly trouble?: Issue;
  readonly bodies: readonly BodyReply[];
  readonly datums: Readonly<Record<Id, Datum>>;
  readonly sketches: Readonly<Record<Id, SketchReply>>;
  readonly totals: Totals;
}

export type AssemblyReply =
  | { readonly kind: 'overtaken' }
  | {
      readonly kind: 'assembly';
      readonly parts: Readonly<Record<Id, PlacedPart>>;
      readonly assembled: Assembled;
      readonly billOfMaterials: readonly BillRow[];
      readonly findings: readonly Finding[];
      readonly took: number;
      readonly memory: number;
    };

/** `stopped` where somebody did not want to wait. */
export type InterferenceReply =
  { readonly kind: 'found'; readonly interferences: readonly Interference[] } | { readonly kind: 'stopped' };

export type FileReply =
  { readonly kind: 'file'; readonly bytes: Uint8Array } | { readonly kind: 'failed'; readonly issue: Issue };
export type GapReply = { readonly kind: 'gap'; readonly gap: Gap } | { readonly kind: 'failed'; readonly issue: Issue };
/** The walls of each body that is shown, by its key. */
export type WallsReply = readonly { readonly key: string; readonly walls: Walls }[];
/** A project built whole. */
export interface WeightReply {
  readonly mass_g: number;
  /** Parts without a material: they are not in the mass. */
  readonly unknown: number;
  readonly failed: number;
  /** Extents along x, y and z by part, mm. */
  readonly sizes: Readonly<Record<Id, readonly [number, number, number]>>;
}
/** A sheet as it is shown, with what is to be mended on it. */
export interface ShownSheet extends Omit<ComposedSheet, 'picture' | 'handles'> {
  readonly ink: SheetInk;
  /** What can be picked, as JSON: there may be thousands of places, which are only read while somebody picks. */
  readonly handles: string;
}

export type SheetReply =
  | { readonly kind: 'overtaken' }
  | { readonly kind: 'drawn'; readonly sheet: ShownSheet }
  | { readonly kind: 'failed'; readonly issue: Issue };
export type ChecksReply =
  { readonly kind: 'overtaken' } | { readonly kind: 'checked'; readonly findings: readonly CheckFinding[] };
export type SheetFormat = 'pdf' | 'svg' | 'dxf';
export type { FileFormat };
export type { OutlineFormat };

/** Calls that ask of a project have it first: it crosses by what has changed of it (see `project-line.ts`). */
export interface EngineWorker {
  /** Resolves when the kernel is ready. */
  ready(): Promise<void>;
  /**
   * Tells the digest of each step before it is computed, and nothing after it.
   * @param endless digests of steps that were given up: they fail without being tried
   */
  watch(told: (digest?: string) => void, endless: readonly string[], seconds: number): Promise<void>;
  build(
    project: Project,
    request: BuildRequest,
    progress: (done: number, of: number, name: string) => void,
  ): Promise<BuildReply>;
  /** Why a part, or anything that is placed, is not as it is told. */
  troubles(project: Project, part: Id | undefined): Promise<readonly Issue[]>;
  /** A part as a file, or all that is placed. */
  file(project: Project, part: Id | undefined, format: FileFormat): Promise<FileReply>;
  /** The outline of a sketch, with what it borrows where that is now. */
  outline(project: Project, part: Id, sketch: Id, format: OutlineFormat): Promise<FileReply>;
  /** A flat face of a part as it is cut out: the largest one, or one that is told. */
  cut(project: Project, part: Id, options: FaceOutlineOptions, format: OutlineFormat): Promise<FileReply>;
  /** A sheet as it is printed; a newer request overtakes an older one. */
  sheet(project: Project, id: Id, progress: (done: number, of: number) => void): Promise<SheetReply>;
  /** Every finding of the project; a newer request overtakes an older one. */
  checks(project: Project, progress: (words: string) => void): Promise<ChecksReply>;
  /** The dimensions that make sense for what is picked in a view of a sheet. */
  fittingMarks(project: Project, sheet: Id, view: Id, picked: readonly Reference[]): Promise<readonly FittingMark[]>;
  /** One sheet, or of PDF several, as a file. */
  sheetFile(project: Project, ids: readonly Id[], format: SheetFormat): Promise<FileReply>;
  /** Where the plane of a sketch crosses the parts that stand round its own, by their placements. */
  crossings(project: Project, part: Id, sketch: Id): Promise<Readonly<Record<string, readonly EdgeFacts[]>>>;
  gap(project: Project, part: Id, between: readonly [BodyReference, BodyReference]): Promise<GapReply>;
  /** Files by their paths, packed off the page. */
  zip(files: Readonly<Record<string, Uint8Array>>): Promise<Uint8Array<ArrayBuffer>>;
  weigh(project: Project): Promise<WeightReply>;
  /** What all that is placed is made of. */
  billOfMaterials(project: Project): Promise<readonly BillRow[]>;
  walls(project: Project, part: Id, upTo?: Id): Promise<WallsReply>;
  /** All parts that are placed, brought together; a newer request overtakes an older one. */
  assemble(
    project: Project,
    known: readonly string[],
    progress: (done: number, of: number, name: string) => void,
  ): Promise<AssemblyReply>;
  /** Which placements overlap in a pose, or come nearer than so many mm. */
  interference(
    project: Project,
    poses: readonly RigidTransform[],
    within: number,
    progress: (done: number, of: number) => void,
  ): Promise<InterferenceReply>;
  /** The bodies of all that is placed, as what may touch. */
  touching(project: Project): Promise<readonly TouchingBody[]>;
  /** The box round everything that is placed, in these poses. */
  extents(project: Project, poses: readonly RigidTransform[]): Promise<Box3 | undefined>;
  /** Ends a search for interference that is under way. */
  stop(): Promise<void>;
}
