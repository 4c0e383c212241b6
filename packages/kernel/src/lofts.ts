import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  direction3,
  dot3,
  frameOn,
  squareTo3,
  sub3,
  type LoftRequest,
  type Piece,
  type Profile,
  type Region,
  type Result,
  type Vec3,
  faceName,
} from '@helb/core';
import { point, vec } from './edges.ts';
import { normalIn, placeOfVertex } from './facts.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import type { MadeFace, NamedSolid } from './names.ts';
import { faceOf, plane, type ProfileLoop } from './profile.ts';
import { members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';
import { lessOpenings, namedSolid } from './swept.ts';
import { sideThrough, type Rib } from './tangent-lofts.ts';

/** A solid through sections; sides are named after the entities of the first that has any. */
export function lofted(library: Library, scope: DisposalScope, request: LoftRequest): Result<NamedSolid[]> {
  const drawn = request.sections.find((section): section is Profile => !('point' in section));
  const openings = drawn?.regions[0]!.holes.length ?? 0;
  const picks = Array.from({ length: openings }, (_, k) => (region: Region) => region.holes[k]!);
  const made = lessOpenings(
    library,
    scope,
    (region: Region) => region.outer,
    picks,
    (loopOf) =>
      request.square ? squareLoft(library, scope, request, loopOf) : plainLoft(library, scope, request, loopOf),
  );
  return made.ok ? ok([made.value]) : made;
}

/** One of the loops of a section. */
type LoopOf = (region: Region) => readonly Piece[];

function plainLoft(library: Library, scope: DisposalScope, request: LoftRequest, loopOf: LoopOf): Result<NamedSolid> {
  const loops: (ProfileLoop | Vec3)[] = [];
  for (const section of request.sections) {
    const face = 'point' in section ? ok(section.point) : faceOfLoop(library, scope, section, loopOf, request.matched);
    if (!face.ok) return face;
    loops.push('outer' in face.value ? face.value.outer : face.value);
  }
  return loftedLoops(library, scope, loops, request);
}

/** A face within one loop of a section, without openings. */
function faceOfLoop(
  library: Library,
  scope: DisposalScope,
  { frame, regions }: Profile,
  loopOf: LoopOf,
  divided = false,
) {
  return faceOf(library, scope, frame, { ...regions[0]!, outer: loopOf(regions[0]!), holes: [] }, divided);
}

/** A solid of sides that leave its first or its last section square, sewn together. */
function squareLoft(
  library: Library,
  scope: DisposalScope,
  { sections, square = {}, step }: LoftRequest,
  loopOf: LoopOf,
): Result<NamedSolid> {
  const sewing = scope.keep(new library.BRepBuilderAPI_Sewing(1e-5, true, true, true, false));
  const made: MadeFace[] = [];
  const add = (face: TopoDS_Face, name: string) => {
    sewing.Add(face);
    made.push({ face, name });
  };
  const first = sections.find((section): section is Profile => !('point' in section))!;
  loopOf(first.regions[0]!).forEach(({ entity }, k) => {
    const ribs = sections.map((section): Rib =>
      'point' in section ? section : { piece: loopOf(section.regions[0]!)[k]!, frame: section.frame },
    );
    add(sideThrough(library, scope, ribs, square), faceName(step, 'side', entity));
  });
  for (const [role, section] of [
    ['start', sections[0]!],
    ['end', sections.at(-1)!],
  ] as const) {
    if ('point' in section) continue;
    const cap = faceOfLoop(library, scope, section, loopOf, true);
    if (!cap.ok) return cap;
    add(cap.value.face, faceName(step, role));
  }
  sewing.Perform(scope.keep(new library.Message_ProgressRange()));
  const [shell] = subShapes(library, scope, scope.keep(sewing.SewedShape()), 'TopAbs_SHELL');
  if (!shell) return fail('kernel.failed', { reason: 'the sides do not close' });
  const solid = scope.keep(new library.BRepBuilderAPI_MakeSolid(scope.keep(library.TopoDS.Shell(shell)))).Solid();
  library.BRepLib.OrientClosedSolid(solid);
  const sewn = made.map(({ face, name }): MadeFace => ({ face: scope.keep(sewing.Modified(face)), name }));
  return ok(namedSolid(library, scope, solid, step, sewn));
}

/** A solid through single loops, and points at its ends. */
export function loftedLoops(
  library: Library,
  scope: DisposalScope,
  loops: readonly (ProfileLoop | Vec3)[],
  { straight, step, matched }: Pick<LoftRequest, 'straight' | 'step' | 'matched'>,
): Result<NamedSolid> {
  const maker = scope.keep(new library.BRepOffsetAPI_ThruSections(true, straight, 1e-6));
  for (const loop of loops) {
    if ('wire' in loop) maker.AddWire(loop.wire);
    else {
      const vertex = scope.keep(new library.BRepBuilderAPI_MakeVertex(point(library, scope, loop)));
      maker.AddVertex(scope.keep(vertex.Vertex()));
    }
  }
  maker.CheckCompatibility(!matched);
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('kernel.failed', { reason: 'the sections could not be joined' });
  const first = loops.find((loop): loop is ProfileLoop => 'wire' in loop)!;
  const faces: MadeFace[] = first.edges.flatMap(({ edge, entity }) =>
    members(library, scope, scope.keep(maker.Generated(edge))).map((face) => ({
      face,
      name: faceName(step, 'side', entity),
    })),
  );
  for (const [role, cap] of [
    ['start', maker.FirstShape()],
    ['end', maker.LastShape()],
  ] as const)
    if (!cap.IsNull()) faces.push({ face: scope.keep(cap), name: faceName(step, role) });
  const [solid] = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  if (!solid) return fail('kernel.failed', { reason: 'the sections enclose nothing' });
  const plain = namedSolid(library, scope, library.TopoDS.Solid(solid), step, faces);
  return ok(straight ? flattened(library, scope, plain) : plain);
}

/**
 * Ruled sides come as free surfaces even where they are flat. As planes everything after is exact and many times faster:
 * walls, sketches on them, cuts.
 */
function flattened(library: Library, scope: DisposalScope, solid: NamedSolid): NamedSolid {
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
function flatOf(library: Library, scope: DisposalScope, face: TopoDS_Shape): TopoDS_Shape | undefined {
  const surface = scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), true));
  if (surface.GetType() === 'GeomAbs_Plane') return undefined;
  const edges = subShapes(library, scope, face, 'TopAbs_EDGE');
  const places = subShapes(library, scope, face, 'TopAbs_VERTEX').map((vertex) =>
    placeOfVertex(library, scope, vertex),
  );
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
function lineLike(library: Library, scope: DisposalScope, edge: TopoDS_Shape): boolean {
  const curve = scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(edge))));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const at = (t: number): Vec3 => vec(scope.keep(curve.Value(first + t * (last - first))));
  const [from, to] = [at(0), at(1)];
  const along = direction3(sub3(to, from));
  return (
    along !== undefined && [0.25, 0.5, 0.75].every((t) => Math.hypot(...squareTo3(sub3(at(t), from), along)) < 1e-7)
  );
}
