import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  boxRound,
  type BodyHandle,
  type Box3,
  type CombineKind,
  type MoveRequest,
  type Result,
  type SplitRequest,
  type Vec3,
} from '@helb/core';
import { motionOf, point } from './edges.ts';
import { middleOf } from './facts.ts';
import { nearest } from './gaps.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { boxOf, volumeOf } from './measure.ts';
import { carried, distinct, type NamedSolid } from './names.ts';
import { plane } from './profile.ts';
import { listOf, members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/**
 * One boolean over all targets and tools; the solids of the result with the names carried over. With free faces the library
 * sometimes gives something else without a word: there boxes have to fit and volumes to add up, at once or with what nearly
 * meets taken as meeting.
 */
export function combined(
  library: Library,
  scope: Scope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
): Result<NamedSolid[]> {
  const isSure = [...targets, ...tools].every(({ shape }) => !hasFreeFaces(library, scope, shape));
  if (isSure) return combinedOnce(library, scope, kind, targets, tools, 0);
  const overlap = overlapOf(library, scope, kind, targets, tools);
  let said: Result<NamedSolid[]> | undefined;
  for (const fuzzy of FUZZY) {
    const made = combinedOnce(library, scope, kind, targets, tools, fuzzy);
    const isRight =
      made.ok &&
      isPlausible(library, kind, targets, tools, made.value, overlap) &&
      keepsPlaces(library, scope, kind, targets, tools, made.value);
    if (isRight) return made;
    if (made.ok) made.value.forEach(({ shape }) => shape.delete());
    said ??= made;
  }
  return said!.ok ? fail('kernel.wrong') : said!;
}

/** How far apart, mm, counts as meeting: as ever, then more. */
const FUZZY = [0, 1e-5, 1e-4] as const;
/** Volumes that add up agree to this share, boxes to this share of their size. */
const AGREED = 1e-5;

/** The volume in which both overlap, where that tells what is left; several that are added may overlap each other. */
function overlapOf(
  library: Library,
  scope: Scope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
): number | undefined {
  if (kind === 'overlap' || (kind === 'add' && targets.length + tools.length > 2)) return undefined;
  const common = combinedOnce(library, scope, 'overlap', targets, tools, 0);
  if (!common.ok) return common.issue.code === 'kernel.empty' ? 0 : undefined;
  const volume = total(library, common.value);
  common.value.forEach(({ shape }) => shape.delete());
  return volume;
}

const total = (library: Library, solids: readonly NamedSolid[]): number =>
  solids.reduce((sum, { shape }) => sum + volumeOf(library, shape), 0);
const boxRoundAll = (library: Library, solids: readonly NamedSolid[]): Box3 =>
  boxRound(solids.map(({ shape }) => boxOf(library, shape)))!;

function isPlausible(
  library: Library,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
  made: readonly NamedSolid[],
  overlap: number | undefined,
): boolean {
  const [own, others, now] = [targets, tools, made].map((solids) => boxRoundAll(library, solids)) as [Box3, Box3, Box3];
  const slack = AGREED * Math.max(...[own, others].flatMap(({ low, high }) => high.map((c, k) => c - low[k]!)));
  const fits = (inner: Box3, outer: Box3) =>
    inner.low.every((c, k) => c > outer.low[k]! - slack) && inner.high.every((c, k) => c < outer.high[k]! + slack);
  const hull = boxRound([own, others])!;
  const boxed = {
    add: fits(now, hull) && fits(hull, now),
    cut: fits(now, own),
    overlap: fits(now, own) && fits(now, others),
  };
  if (!boxed[kind]) return false;
  if (overlap === undefined) return true;
  const before = total(library, targets);
  const expected = kind === 'add' ? before + total(library, tools) - overlap : before - overlap;
  return Math.abs(total(library, made) - expected) <= AGREED * before;
}

/**
 * Does everything that has to be left lie in what is left? The library takes two free faces that lie near each other for
 * one. Of bodies that are added every place has to be there, of one that is cut those that lie outside of what cuts it.
 */
function keepsPlaces(
  library: Library,
  scope: Scope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
  made: readonly NamedSolid[],
): boolean {
  if (kind === 'overlap') return true;
  const isIn = (solids: readonly NamedSolid[], at: Vec3) =>
    solids.some(({ shape }) => distanceTo(library, scope, shape, at) <= OUTSIDE);
  return [...targets, ...(kind === 'add' ? tools : [])]
    .flatMap(({ shape }) => freePlaces(library, scope, shape))
    .every((at) => (kind === 'cut' && isIn(tools, at)) || isIn(made, at));
}

/** The middles of the edges of all free faces. */
function freePlaces(library: Library, scope: Scope, shape: TopoDS_Shape): Vec3[] {
  const edges = subShapes(library, scope, shape, 'TopAbs_FACE')
    .filter((face) => isFree(library, scope, face))
    .flatMap((face) => subShapes(library, scope, face, 'TopAbs_EDGE'))
    .map((edge) => middleOf(library, scope, edge));
  return [...new Map(edges.map((at) => [at.map((c) => c.toFixed(4)).join(), at])).values()];
}

/** From so far away, mm, a place lies outside. */
const OUTSIDE = 1e-3;

/** How far a place is from a solid, mm; 0 within it, and where that can't be found. */
function distanceTo(library: Library, scope: Scope, solid: TopoDS_Shape, at: Vec3): number {
  const vertex = scope.keep(new library.BRepBuilderAPI_MakeVertex(point(library, scope, at)));
  const gap = nearest(library, scope, scope.keep(vertex.Vertex()), solid);
  return gap.ok ? gap.value.distance_mm : 0;
}

const hasFreeFaces = (library: Library, scope: Scope, shape: TopoDS_Shape): boolean =>
  subShapes(library, scope, shape, 'TopAbs_FACE').some((face) => isFree(library, scope, face));
const isFree = (library: Library, scope: Scope, face: TopoDS_Shape): boolean =>
  FREE.has(scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), false)).GetType());
/** Faces whose meetings the library follows step by step; of the others it knows them. */
const FREE = new Set<string>([
  ...['GeomAbs_BSplineSurface', 'GeomAbs_BezierSurface', 'GeomAbs_OffsetSurface'],
  ...['GeomAbs_SurfaceOfExtrusion', 'GeomAbs_SurfaceOfRevolution'],
]);

function combinedOnce(
  library: Library,
  scope: Scope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
  fuzzy: number,
): Result<NamedSolid[]> {
  const operation = scope.keepCleared(operationOf(library, kind));
  if (fuzzy > 0) operation.SetFuzzyValue(fuzzy);
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
