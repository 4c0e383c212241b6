import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyHandle, CombineKind, MoveRequest, Result, SplitRequest } from '@helb/core';
import { motionOf } from './edges.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { carried, distinct, type NamedSolid } from './names.ts';
import { plane } from './profile.ts';
import { listOf, members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/** One boolean over all targets and tools; the solids of the result with the names carried over. */
export function combined(
  library: Library,
  scope: Scope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
): Result<NamedSolid[]> {
  const operation = scope.keepCleared(operationOf(library, kind));
  const list = (solids: readonly NamedSolid[]) =>
    listOf(
      library,
      scope,
      solids.map((solid) => solid.shape),
    );
  operation.SetArguments(list(targets));
  operation.SetTools(list(tools));
  operation.Build(scope.keep(new library.Message_ProgressRange()));
  if (!operation.IsDone() || operation.HasErrors()) return fail('kernel.failed', { reason: `${kind} found no result` });
  operation.SimplifyResult(true, true, 1e-6);
  const solids = subShapes(library, scope, scope.keep(operation.Shape()), 'TopAbs_SOLID');
  if (solids.length === 0) return fail('kernel.empty');
  if (solids.some((solid) => !isSound(library, solid))) return fail('kernel.invalid');
  const named = carried(library, scope, [...targets, ...tools], operation, solids);
  // the scope deletes its own handles of the solids: the table keeps handles of its own
  return ok(named.map((solid) => ({ ...solid, shape: library.TopoDS.Solid(solid.shape) })));
}

const operationOf = (library: Library, kind: CombineKind) => {
  if (kind === 'add') return new library.BRepAlgoAPI_Fuse();
  return kind === 'cut' ? new library.BRepAlgoAPI_Cut() : new library.BRepAlgoAPI_Common();
};

/** What cuts a body in two: a plane, or a face made larger. Fails where there is no such face. */
export function sheetOf(
  library: Library,
  scope: Scope,
  by: SplitRequest['by'],
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<TopoDS_Face> {
  if (!('face' in by)) {
    const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, by)));
    return ok(scope.keep(maker.Face()));
  }
  const body = bodyOf(by.body);
  const k = body.faceNames.indexOf(by.face);
  if (k < 0) return fail('kernel.gone', { what: 'face' });
  const face = scope.keep(library.TopoDS.Face(subShapes(library, scope, body.shape, 'TopAbs_FACE')[k]!));
  const wide = scope.keep(new library.TopoDS_Face());
  library.BRepLib.ExtendFace(face, 1e3, true, true, true, true, wide);
  return ok(wide);
}

/** The pieces into which a face cuts a body; what the face leaves of itself gets this name. */
export function splitBy(
  library: Library,
  scope: Scope,
  body: NamedSolid,
  cutter: TopoDS_Shape,
  name: string,
): Result<NamedSolid[]> {
  const maker = scope.keepCleared(new library.BRepAlgoAPI_Splitter());
  maker.SetArguments(listOf(library, scope, [body.shape]));
  maker.SetTools(listOf(library, scope, [cutter]));
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone() || maker.HasErrors()) return fail('kernel.failed', { reason: 'no split was found' });
  const solids = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  if (solids.some((solid) => !isSound(library, solid))) return fail('kernel.invalid');
  const made = members(library, scope, scope.keep(maker.Modified(cutter))).map((face) => ({ face, name }));
  return ok(
    carried(library, scope, [body], maker, solids, made).map((solid) => ({
      ...solid,
      shape: library.TopoDS.Solid(solid.shape),
    })),
  );
}

/** A copy moved, turned or mirrored; its faces are named after the step, the instance and what they were. */
export function movedBody(library: Library, scope: Scope, body: NamedSolid, request: MoveRequest): Result<NamedSolid> {
  const { movement, step, instance } = request;
  const motion = motionOf(library, scope, movement);
  const maker = scope.keep(new library.BRepBuilderAPI_Transform(body.shape, motion, true, false));
  if (!maker.IsDone()) return fail('kernel.failed', { reason: 'it could not be moved' });
  const shape = library.TopoDS.Solid(scope.keep(maker.Shape()));
  const before = subShapes(library, scope, body.shape, 'TopAbs_FACE');
  const after = subShapes(library, scope, shape, 'TopAbs_FACE');
  const names = after.map((face) => {
    const k = before.findIndex((other) => scope.keep(maker.ModifiedShape(other)).IsSame(face));
    return `${step}/${instance}/${body.faceNames[k] ?? 'face'}`;
  });
  return ok({ shape, name: `${step}/${instance}`, faceNames: distinct(library, scope, after, names) });
}
