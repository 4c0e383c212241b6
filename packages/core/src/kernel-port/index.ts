import type { Box3, Frame, RigidTransform, Vec3 } from '../math/index.ts';
import type {
  ChamferRequest,
  BodyHandle,
  CombineKind,
  ExtrudeRequest,
  ShellRequest,
  LoftRequest,
  TransformRequest,
  OffsetRequest,
  ReadStepRequest,
  RevolveRequest,
  FilletRequest,
  DraftRequest,
  HelixRequest,
  SplitRequest,
  SweepRequest,
  ThickenRequest,
  ThreadRequest,
} from './requests.ts';
import type { EdgeFacts, Topology } from './topology.ts';
import type { Issue, Result, Words } from '../result/index.ts';

export type * from './requests.ts';
export type * from './topology.ts';

/**
 * Measures of one body, each found in two ways at least. Inertia is about the centre of mass, for a density of 1 per mm^3
 * (mm^5). `off` is how far the ways are apart.
 */
export interface BodyMeasures {
  readonly volume_mm3: number;
  readonly area_mm2: number;
  readonly centre_mm: Vec3;
  readonly inertia_mm5: readonly [xx: number, yy: number, zz: number, xy: number, xz: number, yz: number];
  readonly off: { readonly volume_mm3: number; readonly area_mm2: number; readonly centre_mm: number };
  readonly box_mm: Box3;
  readonly faces: number;
}

/** Triangles and edge lines for display and STL. Face ranges count triangle corners (entries of `triangles`). */
export interface BodyMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  readonly faces: readonly NamedRange[];
  /** Segments of all edges: two points (xyz, xyz) each; ranges count points. */
  readonly edgePoints: Float32Array;
  readonly edges: readonly NamedRange[];
}

export interface NamedRange {
  /** The lasting name of the face or edge. */
  readonly name: string;
  readonly start: number;
  readonly count: number;
}

/** Something of a body by its lasting name. */
export interface PlaceOnBody {
  readonly body: BodyHandle;
  readonly to: 'face' | 'edge' | 'vertex';
  readonly name: string;
}

/** Where two things come nearest to each other; 0 apart where they touch or overlap. */
export interface Gap {
  readonly distance_mm: number;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Two bodies against each other: how much they have in common and its middle, or how far apart they are and where. */
export interface Clearance extends Gap {
  readonly overlap_mm3: number;
}

/** How fine a mesh is: largest distance from the surface (mm) and largest turn between neighbours (rad). */
export interface TessellationQuality {
  readonly deflection: number;
  readonly angle: number;
}

export interface ExportBody {
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly body: BodyHandle;
  /** Where it stands, each by its name: then it is a part of an assembly. As it was drawn if absent. */
  readonly places?: readonly { readonly name: string; readonly at: RigidTransform }[];
}

/**
 * Thrown where an operation hurt the kernel itself: nothing that it holds can be trusted any more, and it has to be started
 * anew. A fault of the library, not of the program.
 */
export class KernelHurt extends Error {}

/**
 * What the engine asks of a geometry kernel. Calls are synchronous and run in a worker. Expected failures are Results
 * with `kernel.*` issues; the kernel stays usable after each. Any call may throw `KernelHurt`.
 */
export interface Kernel {
  /** One solid for each connected piece of the profile. */
  extrude(request: ExtrudeRequest): Result<BodyHandle[]>;
  revolve(request: RevolveRequest): Result<BodyHandle[]>;
  sweep(request: SweepRequest): Result<BodyHandle[]>;
  helix(request: HelixRequest): Result<BodyHandle[]>;
  loft(request: LoftRequest): Result<BodyHandle[]>;
  /** Gives it a file, for `readStep`; kept until there are too many. */
  keepFile(hash: string, bytes: Uint8Array): void;
  hasFile(hash: string): boolean;
  /** The solids of a STEP file, each by itself. */
  readStep(request: ReadStepRequest): Result<BodyHandle[]>;
  thread(request: ThreadRequest): Result<BodyHandle>;
  /**
   * Adds all tools to the targets, cuts them away, or keeps what they have in common, in one operation. The inputs stay
   * valid and are not released. Bodies are solids; a cut may give more of them than went in, or none. `touched` is false
   * where nothing changed.
   */
  combine(
    kind: CombineKind,
    targets: readonly BodyHandle[],
    tools: readonly BodyHandle[],
  ): Result<{ readonly bodies: BodyHandle[]; readonly touched: boolean }>;
  /** Each of these makes a new body from one and leaves that as it is. */
  fillet(request: FilletRequest): Result<BodyHandle>;
  chamfer(request: ChamferRequest): Result<BodyHandle>;
  shell(request: ShellRequest): Result<BodyHandle>;
  draft(request: DraftRequest): Result<BodyHandle>;
  offset(request: OffsetRequest): Result<BodyHandle>;
  /** Solids of one thickness on faces of a body. */
  thicken(request: ThickenRequest): Result<BodyHandle[]>;
  /** The pieces into which a plane cuts a body; one if it does not meet it. */
  split(request: SplitRequest): Result<BodyHandle[]>;
  /** A copy elsewhere; its faces are named after the step and the instance. */
  transformed(request: TransformRequest): Result<BodyHandle>;
  /** The lasting name of a body: the step that made it first. */
  bodyName(body: BodyHandle): string;
  measure(body: BodyHandle): BodyMeasures;
  /** The box along the axes of space round a body that is moved. */
  box(body: BodyHandle, transform: RigidTransform): Box3;
  /** Lasting names of the faces, in the kernel's order. */
  faceNames(body: BodyHandle): readonly string[];
  /** Faces, edges and vertices with their lasting names and exact geometry. */
  topology(body: BodyHandle): Topology;
  /** The curves in which a plane crosses a body, each with the name of its face. */
  crossing(body: BodyHandle, plane: Frame): readonly EdgeFacts[];
  /** The smallest gap between two things of bodies. */
  gap(a: PlaceOnBody, b: PlaceOnBody): Result<Gap>;
  /** How two bodies stand to each other, the second moved; places in the space of the first. */
  clearance(a: BodyHandle, b: BodyHandle, transform: RigidTransform): Result<Clearance>;
  mesh(body: BodyHandle, quality: TessellationQuality): BodyMesh;
  /** A STEP file (ISO 10303-21, AP214) with names and colours, in millimetres. */
  writeStep(title: string, bodies: readonly ExportBody[]): Result<Uint8Array>;
  release(body: BodyHandle): void;
  /**
   * What was done by another way since this was last asked, because the plain one did not lead to a body that holds; each
   * way once. What it gives is what was asked for, but for what the words of the issue say.
   */
  takeDetours(): readonly Issue[];
  /** Has it thrown `KernelHurt` since it was started? */
  readonly isHurt: boolean;
  /** Starts it anew after it was hurt: all bodies and files are gone; no handle is ever given again. */
  restart(): Promise<void>;
  /** Bytes in use by the kernel, for the memory bound. */
  memory(): number;
}

export const kernelWords: Words = {
  'kernel.profile': (f) => `The outline could not be made into a face (${f['reason']}).`,
  'kernel.failed': (f) => `The geometry kernel could not do this (${f['reason']}). Try slightly different numbers.`,
  'kernel.empty': () => 'Nothing is left of the body after this.',
  'kernel.wrong-way': (f) =>
    `The geometry kernel gave a body that is ${f['kind'] === 'add' ? 'smaller' : 'larger'} than before, which can not be. Try slightly different numbers.`,
  'kernel.unchanged': () => 'This changes nothing. Try another size, or other faces.',
  'kernel.hurt': (f) =>
    `The geometry kernel broke down over this${f['reason'] === 'out of memory' ? ': its memory was full' : ''}. It was started anew, and all else is as it was. Try slightly different numbers, or another way to the same shape.`,
  'kernel.endless': (f) =>
    `This took longer than ${f['seconds']} s and was stopped; all else is as it was. Try less of it at once, or slightly different numbers.`,
  'kernel.gone': (f) => `There is no ${f['what']} of this name on the body any more.`,
  'kernel.wrong': () =>
    'The geometry kernel left out a part of this: the volumes do not add up. Move one of the two a little, or try slightly different numbers.',
  'kernel.unread': (f) =>
    `A STEP file of ${f['title']} would not be read back as the same bodies, so it is not given out. Change the size of its last chamfers or rounds a little, or take a mesh (3MF, STL).`,
  'kernel.nearly': (f, length) =>
    `Faces that come within ${length(f['within'] as number, 4)} of each other were taken as meeting: exactly they would not.`,
  'kernel.sharp-corners': () =>
    'The inner corners of the walls are sharp, where they would be round if the wall were as thick everywhere: round ones do not meet.',
  'kernel.hollow-inset': () =>
    'The library found no walls beside the open faces at once: the body was set in all round, and cut out up to the open faces.',
  'kernel.hollow-fitted': (f, length) =>
    `The library found no walls of these bent sides: their inside was fitted place by place, as thick as told within ${length(f['within'] as number, 5)}.`,
  'kernel.hollow-cut': () =>
    'The hollow was built by itself, from the sides as they were before anything cut them, and cut out.',
  'kernel.corners-cut': () =>
    'The rounds of straight edges were cut off one by one, as no ball rolls along all of them.',
  'kernel.invalid': () => 'This would give a body that is not valid. Try slightly different numbers.',
};
