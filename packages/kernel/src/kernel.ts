import {
  KernelHurt,
  type ChamferRequest,
  type BodyHandle,
  type BodyMeasures,
  type BodyMesh,
  type Box3,
  type CombineKind,
  type EdgeFacts,
  type ExportBody,
  type ExtrudeRequest,
  type TessellationQuality,
  type Frame,
  type Gap,
  type ShellRequest,
  type Kernel,
  type LoftRequest,
  type Clearance,
  type RigidTransform,
  type TransformRequest,
  type OffsetRequest,
  type PlaceOnBody,
  type ReadStepRequest,
  type Result,
  type RevolveRequest,
  type FilletRequest,
  type DraftRequest,
  type HelixRequest,
  type SplitRequest,
  type SweepRequest,
  type ThickenRequest,
  type ThreadRequest,
  type Topology,
  faceName,
} from '@helb/core';
import { chamfered } from './chamfers.ts';
import { combined, transformedBody, sheetOf, splitBy } from './booleans.ts';
import { takeDetours, trying } from './detours.ts';
import { offsetFaces, filleted, drafted, thickened } from './local-operations.ts';
import { locationOf } from './edges.ts';
import { gapBetween } from './gaps.ts';
import {
  fail,
  guarded,
  ok,
  startLibrary,
  unfailing,
  DisposalScope,
  type Library,
  type LibrarySource,
} from './library.ts';
import { lofted } from './lofts.ts';
import { boxOf, faceMeasures, measures, volumeOf } from './measure.ts';
import { Mesher } from './mesh.ts';
import { clearanceOf } from './clearance.ts';
import { insideOf, type NamedSolid } from './names.ts';
import { forgetParts } from './parts.ts';
import { sweptAlongHelix, sweptAlong } from './sweep-helix.ts';
import { readSolids } from './step-reader.ts';
import { stepFile } from './step-file.ts';
import { shelled } from './shells.ts';
import { isSound } from './soundness.ts';
import { extruded, revolved } from './extrude-revolve.ts';
import { threadedRod } from './threads.ts';
import { crossingOf, TopologyReader } from './topology.ts';

const MOST_FILES = 20;

/** The Kernel port over Open CASCADE. Owns every shape until it is released. */
export class OpenCascadeKernel implements Kernel {
  private readonly bodies = new Map<BodyHandle, NamedSolid>();
  private nextHandle = 1;
  isHurt = false;
  private readonly files = new Map<string, Uint8Array>();

  private mesher: Mesher;
  private topologyReader: TopologyReader;

  private constructor(
    private library: Library,
    private readonly source: LibrarySource,
  ) {
    this.mesher = new Mesher(library);
    this.topologyReader = new TopologyReader(library);
  }

  static async start(source: LibrarySource): Promise<OpenCascadeKernel> {
    return new OpenCascadeKernel(await startLibrary(source), source);
  }

  async restart(): Promise<void> {
    this.library = await startLibrary(this.source);
    this.mesher = new Mesher(this.library);
    this.topologyReader = new TopologyReader(this.library);
    this.bodies.clear();
    this.files.clear();
    this.isHurt = false;
  }

  extrude = (request: ExtrudeRequest) =>
    this.made((scope) => extruded(this.library, scope, request, (body) => this.body(body)));
  revolve = (request: RevolveRequest) => this.made((scope) => revolved(this.library, scope, request));
  sweep = (request: SweepRequest) => this.made((scope) => sweptAlong(this.library, scope, request));
  helix = (request: HelixRequest) => this.made((scope) => sweptAlongHelix(this.library, scope, request));
  loft = (request: LoftRequest) => this.made((scope) => lofted(this.library, scope, request));
  readStep = (request: ReadStepRequest): Result<BodyHandle[]> =>
    this.tried((scope) => {
      const bytes = this.files.get(request.file);
      if (!bytes) throw new Error(`the file ${request.file} was not given`);
      const solids = readSolids(this.library, scope, bytes, request);
      return solids.ok ? ok(solids.value.map((solid) => this.adopt(solid))) : solids;
    });
  thread = (request: ThreadRequest): Result<BodyHandle> =>
    this.tried((scope) => {
      const rod = threadedRod(this.library, scope, request);
      return rod.ok ? ok(this.adopt(rod.value)) : rod;
    });
  thicken = (request: ThickenRequest) =>
    this.made((scope) => thickened(this.library, scope, this.body(request.body), request));

  fillet = (request: FilletRequest) => this.changed(request, filleted);
  chamfer = (request: ChamferRequest) => this.changed(request, chamfered);
  draft = (request: DraftRequest) => this.changed(request, drafted);
  transformed = (request: TransformRequest) => this.changed(request, transformedBody);

  hasFile = (hash: string): boolean => this.files.has(hash);

  /** The one that was given first goes where there are too many. */
  keepFile(hash: string, bytes: Uint8Array): void {
    this.files.set(hash, bytes);
    if (this.files.size > MOST_FILES) this.files.delete(this.files.keys().next().value!);
  }

  /** Walls of another thickness are made by moving their inner faces. */
  shell(request: ShellRequest): Result<BodyHandle> {
    let made = this.changed(request, shelled);
    for (const { face, wall } of request.others ?? []) {
      if (!made.ok || request.open.includes(face)) continue;
      const body = made.value;
      const faces = [insideOf(request.step, face)];
      made = this.offset({ body, faces, distance: wall - request.wall, step: request.step });
      this.release(body);
    }
    return made;
  }

  offset = (request: OffsetRequest) => this.changed(request, offsetFaces);

  split(request: SplitRequest): Result<BodyHandle[]> {
    return this.tried((scope) => {
      const sheet = sheetOf(this.library, scope, request.by, (body) => this.body(body));
      if (!sheet.ok) return sheet;
      const made = splitBy(this.library, scope, this.body(request.body), sheet.value, faceName(request.step, 'cut'));
      return made.ok ? ok(made.value.map((solid) => this.adopt(solid))) : made;
    });
  }

  combine(kind: CombineKind, targets: readonly BodyHandle[], tools: readonly BodyHandle[]) {
    return this.tried((scope) => {
      const [from, by] = [targets, tools].map((list) => list.map((handle) => this.body(handle))) as [
        NamedSolid[],
        NamedSolid[],
      ];
      const made = combined(this.library, scope, kind, from, by);
      if (!made.ok) return made;
      const total = (list: readonly NamedSolid[]) =>
        list.reduce((sum, { shape }) => sum + volumeOf(this.library, shape), 0);
      const after = total(made.value);
      let before = total(from);
      // bodies that overlap become one where what is added joins them: what they are together is what may not shrink
      if (kind === 'add' && after < before && from.length > 1) {
        const together = trying(
          this.library,
          () => combined(this.library, scope, 'add', from.slice(0, 1), from.slice(1)),
          // only to compare
          () => false,
        );
        if (together.ok) {
          before = total(together.value);
          together.value.forEach(({ shape }) => shape.delete());
        }
      }
      const change = Math.abs(after - before);
      // the library may fail without a word: adding never takes away, nor does anything else add
      if (change > 1e-6 * before && (kind === 'add' ? after < before : after > before)) {
        made.value.forEach(({ shape }) => shape.delete());
        return fail('kernel.wrong-way', { kind });
      }
      return ok({ bodies: made.value.map((solid) => this.adopt(solid)), touched: change > 1e-9 * before });
    });
  }

  private sure = <T>(work: () => T): T => this.noting(() => unfailing(this.library, work));

  private tried<T>(work: (scope: DisposalScope) => Result<T>): Result<T> {
    const result = this.noting(() => guarded(this.library, work));
    faceMeasures(this.library).tidy();
    return result;
  }

  private noting<T>(work: () => T): T {
    try {
      return work();
    } catch (error) {
      this.isHurt ||= error instanceof KernelHurt;
      throw error;
    }
  }

  /** Solids that stand alone: those of several regions may share sides, and one operation joins what belongs together. */
  private made(make: (scope: DisposalScope) => Result<NamedSolid[]>): Result<BodyHandle[]> {
    return this.tried((scope) => {
      const result = make(scope);
      if (!result.ok) return result;
      const solids = result.value;
      if (solids.length === 1) {
        const [only] = solids as [NamedSolid];
        if (!isSound(this.library, only.shape)) {
          only.shape.delete();
          return fail('kernel.invalid');
        }
        return ok([this.adopt(only)]);
      }
      const joined = combined(this.library, scope, 'add', solids.slice(0, 1), solids.slice(1));
      solids.forEach(({ shape }) => shape.delete());
      return joined.ok ? ok(joined.value.map((solid) => this.adopt(solid))) : joined;
    });
  }

  private changed<R extends { readonly body: BodyHandle }>(
    request: R,
    change: (library: Library, scope: DisposalScope, body: NamedSolid, request: R) => Result<NamedSolid>,
  ): Result<BodyHandle> {
    return this.tried((scope) => {
      const made = change(this.library, scope, this.body(request.body), request);
      return made.ok ? ok(this.adopt(made.value)) : made;
    });
  }

  bodyName = (body: BodyHandle): string => this.body(body).name;

  measure(body: BodyHandle): BodyMeasures {
    return this.sure(() => {
      const { shape } = this.body(body);
      const measured = measures(this.library, shape);
      faceMeasures(this.library).hold(body, shape);
      return measured;
    });
  }

  box(body: BodyHandle, transform: RigidTransform): Box3 {
    return this.sure(() => {
      const scope = new DisposalScope();
      const moved = this.body(body).shape.Moved(locationOf(this.library, scope, transform), false);
      const box = boxOf(this.library, scope.keep(moved));
      scope.close();
      return box;
    });
  }

  faceNames = (body: BodyHandle): readonly string[] => this.body(body).faceNames;

  topology = (body: BodyHandle): Topology => this.sure(() => this.topologyReader.topology(body, this.body(body)));

  crossing = (body: BodyHandle, plane: Frame): readonly EdgeFacts[] =>
    this.sure(() => crossingOf(this.library, this.body(body), plane));

  gap = (a: PlaceOnBody, b: PlaceOnBody): Result<Gap> =>
    this.tried((scope) => gapBetween(this.library, scope, [a, b], (body) => this.body(body)));

  clearance = (a: BodyHandle, b: BodyHandle, transform: RigidTransform): Result<Clearance> =>
    this.tried((scope) => clearanceOf(this.library, scope, [this.body(a), this.body(b)], transform));

  mesh = (body: BodyHandle, quality: TessellationQuality): BodyMesh =>
    this.sure(() => this.mesher.mesh(body, this.body(body), quality));

  writeStep(title: string, bodies: readonly ExportBody[]): Result<Uint8Array> {
    const shapes = bodies.map(({ body, ...rest }) => ({ ...rest, shape: this.body(body).shape }));
    return this.tried((scope) => stepFile(this.library, scope, title, shapes));
  }

  release(handle: BodyHandle): void {
    this.mesher.release(handle);
    this.topologyReader.release(handle);
    faceMeasures(this.library).release(handle);
    forgetParts(this.body(handle));
    this.body(handle).shape.delete();
    this.bodies.delete(handle);
  }

  takeDetours = () => takeDetours(this.library);

  memory = (): number => this.library.wasmMemory.buffer.byteLength;

  /** How many bodies are held: for tests of ownership. */
  get held(): number {
    return this.bodies.size;
  }

  private body(handle: BodyHandle): NamedSolid {
    const body = this.bodies.get(handle);
    if (!body) throw new Error(`body ${handle} was released or never made`);
    return body;
  }

  private adopt(solid: NamedSolid): BodyHandle {
    const handle = this.nextHandle++;
    this.bodies.set(handle, solid);
    faceMeasures(this.library).hold(handle, solid.shape);
    return handle;
  }
}
