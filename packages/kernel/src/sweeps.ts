import type { NCollection_List_TopoDS_Shape, TopoDS_Shape, TopoDS_Wire } from 'replicad-opencascadejs';
import {
  add3,
  cross3,
  direction3,
  dot3,
  frameOn,
  scale3,
  squareTo3,
  sub3,
  toSpace,
  type BodyHandle,
  type ExtrudeRequest,
  type Frame,
  type LoftRequest,
  type Profile,
  type Result,
  type RevolveRequest,
  type SpaceCurve,
  type SpiralRequest,
  type Stop,
  type SweepRequest,
  type Vec3,
} from '@helb/core';
import { combined, splitBy } from './booleans.ts';
import { direction, point } from './edges.ts';
import { normalIn } from './facts.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { distinct, type MadeFace, type NamedSolid } from './names.ts';
import { axisAt, faceOf, plane, type ProfileFace } from './profile.ts';
import { members, ShapeMap, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';
import { edgeOfCurve } from './space-edges.ts';

/** One named solid for each region of a profile, by what is made of its face. */
function ofRegions(
  library: Library,
  scope: Scope,
  { profile, step }: { readonly profile: Profile; readonly step: string },
  frame: Frame,
  make: (face: ProfileFace, suffix: string) => Result<NamedSolid>,
): Result<NamedSolid[]> {
  const solids: NamedSolid[] = [];
  for (const region of profile.regions) {
    const face = faceOf(library, scope, frame, region);
    if (!face.ok) return face;
    const made = make(face.value, profile.regions.length > 1 ? `/${region.key}` : '');
    if (!made.ok) return made;
    solids.push(made.value);
  }
  return solids.length > 0 ? ok(solids) : fail('kernel.profile', { reason: `${step} has no area` });
}

/** What all sweeps of a face tell of their faces. */
interface SweepMaker {
  Shape(): TopoDS_Shape;
  FirstShape(): TopoDS_Shape;
  LastShape(): TopoDS_Shape;
  Generated(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape;
}

/** The solid of a sweep with its sides named after the sketch entities and its caps by their role. */
function sweptSolid(
  library: Library,
  scope: Scope,
  maker: SweepMaker,
  { edges }: ProfileFace,
  { step, suffix, closed = false }: { readonly step: string; readonly suffix: string; readonly closed?: boolean },
): NamedSolid {
  const made: MadeFace[] = [];
  if (!closed) {
    made.push({ face: scope.keep(maker.FirstShape()), name: `${step}/start${suffix}` });
    made.push({ face: scope.keep(maker.LastShape()), name: `${step}/end${suffix}` });
  }
  for (const { edge, entity } of edges)
    for (const face of members(library, scope, scope.keep(maker.Generated(edge))))
      made.push({ face, name: `${step}/side/${entity}` });
  return namedSolid(library, scope, maker.Shape(), step, made);
}

function namedSolid(
  library: Library,
  scope: Scope,
  shape: TopoDS_Shape,
  step: string,
  made: readonly MadeFace[],
): NamedSolid {
  const names = new ShapeMap<string>(library);
  made.forEach(({ face, name }) => names.set(face, name));
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE');
  return {
    shape,
    name: step,
    faceNames: distinct(
      library,
      scope,
      faces,
      faces.map((face) => names.get(face) ?? `${step}/face`),
    ),
  };
}

/** A face swept along the frame's z; with a taper its sides lean about their lines in the sketch plane. */
export function extruded(
  library: Library,
  scope: Scope,
  request: ExtrudeRequest,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid[]> {
  const { profile, from, to, step, taper = 0 } = request;
  const base: Frame = { ...profile.frame, origin: toSpace(profile.frame, [0, 0], from) };
  return ofRegions(library, scope, request, base, (face, suffix) => {
    const along = scope.keep(new library.gp_Vec(...scale3(base.z, to - from)));
    const maker = scope.keep(new library.BRepPrimAPI_MakePrism(face.face, along, false, true));
    const plain = sweptSolid(library, scope, maker, face, { step, suffix });
    const prism = taper === 0 ? ok(plain) : tapered(library, scope, plain, profile.frame, taper);
    return prism.ok && request.until ? stopped(library, scope, prism.value, request, bodyOf) : prism;
  });
}

/**
 * The part of a prism between its sketch plane and what stops it; what ends it there becomes its end. Fails where it is
 * not stopped, or not over its whole area.
 */
function stopped(
  library: Library,
  scope: Scope,
  prism: NamedSolid,
  { until, step }: ExtrudeRequest,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid> {
  const [near, far] = until!.forwards ? ['start', 'end'] : ['end', 'start'];
  const pieces =
    until!.form === 'next'
      ? beforeBodies(library, scope, prism, until!.bodies.map(bodyOf))
      : beforeFace(library, scope, prism, until!, bodyOf);
  prism.shape.delete();
  if (!pieces.ok) return pieces;
  const kept = pieces.value.filter(({ faceNames }) => faceNames.some((name) => name.startsWith(`${step}/${near}`)));
  pieces.value.filter((piece) => !kept.includes(piece)).forEach(({ shape }) => shape.delete());
  const [only, ...more] = kept;
  // with its far end still there it was not stopped everywhere
  const free = only?.faceNames.some((name) => name.startsWith(`${step}/${far}`));
  if (!only || more.length > 0 || free) {
    kept.forEach(({ shape }) => shape.delete());
    return fail('extrude.stop');
  }
  const faces = subShapes(library, scope, only.shape, 'TopAbs_FACE');
  const roles = only.faceNames.map((name) =>
    name.startsWith(`${step}/side`) || name.startsWith(`${step}/${near}`) ? name : `${step}/${far}`,
  );
  return ok({ ...only, faceNames: distinct(library, scope, faces, roles) });
}

/** What is left of a prism outside of bodies. */
function beforeBodies(
  library: Library,
  scope: Scope,
  prism: NamedSolid,
  bodies: readonly NamedSolid[],
): Result<NamedSolid[]> {
  return bodies.length === 0 ? fail('extrude.stop') : combined(library, scope, 'cut', [prism], bodies);
}

/** The pieces of a prism on both sides of a plane or of the surface of a face, that made larger. */
function beforeFace(
  library: Library,
  scope: Scope,
  prism: NamedSolid,
  until: Exclude<Stop, { form: 'next' }>,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid[]> {
  if (until.form === 'plane') {
    const sheet = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, until.plane)));
    return splitBy(library, scope, prism, scope.keep(sheet.Face()), `${prism.name}/stop`);
  }
  const body = bodyOf(until.body);
  const k = body.faceNames.indexOf(until.face);
  if (k < 0) return fail('kernel.gone', { what: 'face' });
  const face = scope.keep(library.TopoDS.Face(subShapes(library, scope, body.shape, 'TopAbs_FACE')[k]!));
  const wide = scope.keep(new library.TopoDS_Face());
  library.BRepLib.ExtendFace(face, 1e3, true, true, true, true, wide);
  return splitBy(library, scope, prism, wide, `${prism.name}/stop`);
}

function tapered(library: Library, scope: Scope, prism: NamedSolid, frame: Frame, taper: number): Result<NamedSolid> {
  const maker = scope.keep(new library.BRepOffsetAPI_DraftAngle(prism.shape));
  const faces = subShapes(library, scope, prism.shape, 'TopAbs_FACE');
  for (const [k, face] of faces.entries()) {
    if (!prism.faceNames[k]!.includes('/side/')) continue;
    maker.Add(
      scope.keep(library.TopoDS.Face(face)),
      direction(library, scope, frame.z),
      taper,
      plane(library, scope, frame),
      true,
    );
    if (!maker.AddDone()) return fail('extrude.taper');
  }
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('extrude.taper');
  const made = faces.map((face, k): MadeFace => ({
    face: scope.keep(maker.ModifiedShape(face)),
    name: prism.faceNames[k]!,
  }));
  const leaning = namedSolid(library, scope, maker.Shape(), prism.name, made);
  prism.shape.delete();
  return ok(leaning);
}

/** A face turned about an axis in its plane. */
export function revolved(library: Library, scope: Scope, request: RevolveRequest): Result<NamedSolid[]> {
  const { profile, origin, axis, from, to, step } = request;
  const full = to - from > 2 * Math.PI - 1e-9;
  return ofRegions(library, scope, request, profile.frame, (face, suffix) => {
    const about = axisAt(library, scope, origin, axis);
    const start = scope.keep(new library.gp_Trsf());
    start.SetRotation(about, from);
    const location = scope.keep(new library.TopLoc_Location(start));
    const turned = from === 0 ? face.face : scope.keep(face.face.Moved(location, false));
    // a full turn forgets its flat faces unless it copies
    const maker = scope.keep(
      full
        ? new library.BRepPrimAPI_MakeRevol(turned, about, true)
        : new library.BRepPrimAPI_MakeRevol(turned, about, to - from, false),
    );
    if (!maker.IsDone()) return fail('kernel.failed', { reason: 'nothing could be turned' });
    const edges = face.edges.map(({ edge, entity }) => ({
      entity,
      edge: from === 0 ? edge : scope.keep(library.TopoDS.Edge(scope.keep(edge.Moved(location, false)))),
    }));
    return ok(sweptSolid(library, scope, maker, { ...face, edges }, { step, suffix, closed: full }));
  });
}

/** A face moved along a path of curves that go on into each other. */
export function sweptAlong(library: Library, scope: Scope, request: SweepRequest): Result<NamedSolid[]> {
  const path = wireOf(library, scope, request.path);
  if (!path.ok) return path;
  const upright = request.keep === 'fixed' ? planeNormal(request.path) : undefined;
  return ofRegions(library, scope, request, request.profile.frame, (face, suffix) =>
    piped(library, scope, path.value, face, { step: request.step, suffix, ...(upright ? { upright } : {}) }),
  );
}

interface PipeOptions {
  readonly step: string;
  readonly suffix: string;
  /** A direction that the profile keeps. */
  readonly upright?: Vec3;
}

/** A profile with openings is a pipe less the pipes of its openings: the library sweeps single loops. */
function piped(
  library: Library,
  scope: Scope,
  spine: TopoDS_Wire,
  face: ProfileFace,
  { step, suffix, upright }: PipeOptions,
): Result<NamedSolid> {
  const maker = scope.keep(new library.BRepOffsetAPI_MakePipeShell(spine));
  if (upright) maker.SetMode(direction(library, scope, upright));
  else maker.SetMode(false);
  maker.SetTransitionMode('BRepBuilderAPI_RightCorner');
  maker.Add(face.outer, false, false);
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone() || !maker.MakeSolid()) return fail('sweep.path');
  return ok(sweptSolid(library, scope, maker, face, { step, suffix }));
}

/** The direction square to the plane of a path; for a straight one any that is square to it. */
function planeNormal(path: readonly SpaceCurve[]): Vec3 {
  const round = path.find((curve) => curve.form === 'circle');
  if (round?.form === 'circle') return round.axis;
  const along = path.flatMap((curve) => (curve.form === 'line' ? [sub3(curve.to, curve.from)] : []));
  for (const other of along.slice(1)) {
    const normal = direction3(cross3(along[0]!, other));
    if (normal) return normal;
  }
  return along[0] ? frameOn([0, 0, 0], direction3(along[0])!).x : [0, 0, 1];
}

export function wireOf(library: Library, scope: Scope, curves: readonly SpaceCurve[]): Result<TopoDS_Wire> {
  const maker = scope.keep(new library.BRepBuilderAPI_MakeWire());
  for (const curve of curves) {
    maker.Add(edgeOfCurve(library, scope, curve));
    if (!maker.IsDone()) return fail('sweep.joined');
  }
  return ok(scope.keep(maker.Wire()));
}

/** A face moved along a helix, keeping its direction to the axis. */
export function spiralled(library: Library, scope: Scope, request: SpiralRequest): Result<NamedSolid[]> {
  const { profile, origin, axis, pitch, turns, left, taper, step } = request;
  const start = startOf(profile);
  const out = squareTo3(sub3(start, origin), axis);
  const radius = Math.hypot(...out);
  if (radius < 1e-6) return fail('spiral.axis');
  const foot = add3(origin, scale3(axis, dot3(sub3(start, origin), axis)));
  const at = scope.keep(
    new library.gp_Ax3(point(library, scope, foot), direction(library, scope, axis), direction(library, scope, out)),
  );
  const slope = Math.tan(taper);
  const surface =
    taper === 0
      ? scope.keep(new library.Geom_CylindricalSurface(at, radius))
      : scope.keep(new library.Geom_ConicalSurface(at, -taper, radius));
  // on a cone the second parameter runs along the slope
  const rise = taper === 0 ? pitch : pitch * Math.hypot(1, slope);
  const turn = left ? -2 * Math.PI : 2 * Math.PI;
  const line = scope.keep(
    new library.Geom2d_Line(scope.keep(new library.gp_Pnt2d(0, 0)), scope.keep(new library.gp_Dir2d(turn, rise))),
  );
  const edge = scope.keep(
    scope.keep(new library.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(turn, rise) * turns)).Edge(),
  );
  library.BRepLib.BuildCurves3d(edge);
  const maker = scope.keep(new library.BRepBuilderAPI_MakeWire(edge));
  const spine = scope.keep(maker.Wire());
  return ofRegions(library, scope, request, profile.frame, (face, suffix) =>
    piped(library, scope, spine, face, { step, suffix, upright: axis }),
  );
}

/** A place of the profile from which its helix starts: the first corner of its outline. */
function startOf({ frame, regions }: Profile): Vec3 {
  return toSpace(frame, regions[0]!.outer[0]!.from);
}

/** A solid through sections; sides are named after the entities of the first that has any. */
export function lofted(library: Library, scope: Scope, request: LoftRequest): Result<NamedSolid[]> {
  const { sections, straight, step } = request;
  const maker = scope.keep(new library.BRepOffsetAPI_ThruSections(true, straight, 1e-6));
  const made: ProfileFace[] = [];
  for (const section of sections) {
    if ('point' in section) {
      const vertex = scope.keep(new library.BRepBuilderAPI_MakeVertex(point(library, scope, section.point)));
      maker.AddVertex(scope.keep(vertex.Vertex()));
      continue;
    }
    const face = faceOf(library, scope, section.frame, section.regions[0]!);
    if (!face.ok) return face;
    maker.AddWire(face.value.outer);
    made.push(face.value);
  }
  maker.CheckCompatibility(true);
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('kernel.failed', { reason: 'the sections could not be joined' });
  const [first] = made as [ProfileFace];
  const faces: MadeFace[] = first.edges.flatMap(({ edge, entity }) =>
    members(library, scope, scope.keep(maker.Generated(edge))).map((face) => ({
      face,
      name: `${step}/side/${entity}`,
    })),
  );
  for (const [role, cap] of [
    ['start', maker.FirstShape()],
    ['end', maker.LastShape()],
  ] as const)
    if (!cap.IsNull()) faces.push({ face: scope.keep(cap), name: `${step}/${role}` });
  const [solid] = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  if (!solid) return fail('kernel.failed', { reason: 'the sections enclose nothing' });
  const plain = namedSolid(library, scope, library.TopoDS.Solid(solid), step, faces);
  return ok([straight ? flattened(library, scope, plain) : plain]);
}

/**
 * Ruled sides come as free surfaces even where they are flat. As planes everything after is exact and many times faster:
 * walls, sketches on them, cuts.
 */
function flattened(library: Library, scope: Scope, solid: NamedSolid): NamedSolid {
  const faces = subShapes(library, scope, solid.shape, 'TopAbs_FACE');
  const flats = faces.map((face) => flatOf(library, scope, face));
  if (flats.every((flat) => flat === undefined)) return solid;
  const builder = scope.keep(new library.TopoDS_Builder());
  const shell = scope.keep(new library.TopoDS_Shell());
  builder.MakeShell(shell);
  const kept = faces.map((face, k) => flats[k] ?? face);
  kept.forEach((face) => builder.Add(shell, face));
  shell.Closed(true);
  const made = scope.keep(scope.keep(new library.BRepBuilderAPI_MakeSolid(shell)).Solid());
  library.BRepLib.OrientClosedSolid(made);
  if (!isSound(library, made)) return solid;
  solid.shape.delete();
  const named = kept.map((face, k): MadeFace => ({ face, name: solid.faceNames[k]! }));
  return namedSolid(library, scope, library.TopoDS.Solid(made), solid.name, named);
}

/** The same face on a plane, where it is flat but does not say so. */
function flatOf(library: Library, scope: Scope, face: TopoDS_Shape): TopoDS_Shape | undefined {
  const surface = scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), true));
  if (surface.GetType() === 'GeomAbs_Plane') return undefined;
  const edges = subShapes(library, scope, face, 'TopAbs_EDGE');
  const places = subShapes(library, scope, face, 'TopAbs_VERTEX').map((vertex): Vec3 => {
    const place = scope.keep(library.BRep_Tool.Pnt(scope.keep(library.TopoDS.Vertex(vertex))));
    return [place.X(), place.Y(), place.Z()];
  });
  const straight = edges.every(
    (edge) =>
      scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(edge)))).GetType() === 'GeomAbs_Line' ||
      lineLike(library, scope, edge),
  );
  const { at, normal } = normalIn(library, scope, face);
  const off = places.map((place) => Math.abs(dot3(sub3(place, at), normal)));
  if (!straight || Math.max(...off) > 1e-7) return undefined;
  const wire = scope.keep(library.BRepTools.OuterWire(scope.keep(library.TopoDS.Face(face))));
  const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, frameOn(at, normal)), wire, true));
  if (!maker.IsDone()) return undefined;
  const flat = scope.keep(maker.Face());
  return dot3(normalIn(library, scope, flat).normal, normal) > 0 ? flat : scope.keep(flat.Reversed());
}

/** Is an edge straight, whatever it is called? */
function lineLike(library: Library, scope: Scope, edge: TopoDS_Shape): boolean {
  const curve = scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(edge))));
  const at = (t: number): Vec3 => {
    const place = scope.keep(
      curve.Value(curve.FirstParameter() + t * (curve.LastParameter() - curve.FirstParameter())),
    );
    return [place.X(), place.Y(), place.Z()];
  };
  const [from, to] = [at(0), at(1)];
  const along = direction3(sub3(to, from));
  return (
    along !== undefined && [0.25, 0.5, 0.75].every((t) => Math.hypot(...squareTo3(sub3(at(t), from), along)) < 1e-7)
  );
}
