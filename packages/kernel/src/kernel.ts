import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  type BodyHandle,
  type BodyMeasures,
  type BodyMesh,
  type CombineKind,
  type EdgeFacts,
  type ExportBody,
  type ExtrudeRequest,
  type Fineness,
  type Frame,
  type Kernel,
  type Result,
  type Topology,
} from '@helb/core';
import { extrudeRegions } from './extrude.ts';
import { fail, guarded, ok, Scope, startLibrary, type Library, type LibrarySource } from './library.ts';
import { measures, volumeOf } from './measure.ts';
import { meshOf } from './mesh.ts';
import { carried, type NamedSolid } from './names.ts';
import { listOf, subShapes } from './shapes.ts';
import { crossingOf, topologyOf } from './topology.ts';
import { stepFile } from './step-file.ts';

/** The Kernel port over Open CASCADE. Owns every shape until it is released. */
export class OpenCascadeKernel implements Kernel {
  private readonly bodies = new Map<BodyHandle, NamedSolid>();
  private nextHandle = 1;

  private constructor(private readonly library: Library) {}

  static async start(source: LibrarySource): Promise<OpenCascadeKernel> {
    return new OpenCascadeKernel(await startLibrary(source));
  }

  extrude(request: ExtrudeRequest): Result<BodyHandle[]> {
    return guarded(this.library, (scope) => {
      const made = extrudeRegions(this.library, scope, request);
      if (!made.ok) return made;
      const solids = made.value;
      if (solids.length === 1) return ok([this.adopt(solids[0]!)]);
      // regions may share sides: one operation over all gives one solid for each connected piece
      const joined = this.operate('add', scope, solids.slice(0, 1), solids.slice(1));
      solids.forEach(({ shape }) => shape.delete());
      return joined;
    });
  }

  combine(kind: CombineKind, targets: readonly BodyHandle[], tools: readonly BodyHandle[]) {
    return guarded(this.library, (scope) => {
      const [from, by] = [targets, tools].map((list) => list.map((handle) => this.body(handle))) as [
        NamedSolid[],
        NamedSolid[],
      ];
      const made = this.operate(kind, scope, from, by);
      if (!made.ok) return made;
      const total = (list: readonly NamedSolid[]) =>
        list.reduce((sum, { shape }) => sum + volumeOf(this.library, shape), 0);
      const before = total(from);
      const change = Math.abs(total(made.value.map((handle) => this.body(handle))) - before);
      return ok({ bodies: made.value, touched: change > 1e-9 * before });
    });
  }

  measure = (body: BodyHandle): BodyMeasures => measures(this.library, this.body(body).shape);

  faceNames = (body: BodyHandle): readonly string[] => this.body(body).faceNames;

  topology = (body: BodyHandle): Topology => topologyOf(this.library, this.body(body));

  crossing = (body: BodyHandle, plane: Frame): readonly EdgeFacts[] => crossingOf(this.library, this.body(body), plane);

  mesh = (body: BodyHandle, fineness: Fineness): BodyMesh => meshOf(this.library, this.body(body), fineness);

  writeStep(title: string, bodies: readonly ExportBody[]): Result<Uint8Array> {
    const shapes = bodies.map(({ name, colour, body }) => ({ name, colour, shape: this.body(body).shape }));
    return guarded(this.library, (scope) => stepFile(this.library, scope, title, shapes));
  }

  release(handle: BodyHandle): void {
    this.body(handle).shape.delete();
    this.bodies.delete(handle);
  }

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
    return handle;
  }

  /** One boolean over all targets and tools; the solids of the result with the names carried over. */
  private operate(
    kind: CombineKind,
    scope: Scope,
    targets: readonly NamedSolid[],
    tools: readonly NamedSolid[],
  ): Result<BodyHandle[]> {
    const { library } = this;
    const operation = scope.keepCleared(
      kind === 'add' ? new library.BRepAlgoAPI_Fuse() : new library.BRepAlgoAPI_Cut(),
    );
    const list = (solids: readonly NamedSolid[]) =>
      listOf(
        library,
        scope,
        solids.map((solid) => solid.shape),
      );
    operation.SetArguments(list(targets));
    operation.SetTools(list(tools));
    operation.Build(scope.keep(new library.Message_ProgressRange()));
    if (!operation.IsDone() || operation.HasErrors())
      return fail('kernel.failed', { reason: `${kind} found no result` });
    operation.SimplifyResult(true, true, 1e-6);
    const result = scope.keep(operation.Shape());
    const solids = subShapes(library, scope, result, 'TopAbs_SOLID');
    if (solids.length === 0) return fail('kernel.empty');
    if (solids.some((solid) => !this.isSound(solid))) return fail('kernel.invalid');
    const named = carried(library, scope, [...targets, ...tools], operation, solids);
    // the scope deletes its own handles of the solids: the table keeps handles of its own
    return ok(named.map(({ shape, faceNames }) => this.adopt({ shape: library.TopoDS.Solid(shape), faceNames })));
  }

  /** Guards against the silent failures of the library: invalid shells, inside-out and empty solids. */
  private isSound(solid: TopoDS_Shape): boolean {
    const scope = new Scope();
    const valid = scope.keep(new this.library.BRepCheck_Analyzer(solid, true, false, false)).IsValid();
    scope.close();
    return valid && volumeOf(this.library, solid) > 0;
  }
}
