import type { BRepBuilderAPI_Sewing, TopoDS_Shape } from 'replicad-opencascadejs';
import { distance3, type Vec3 } from '@helb/core';
import { placeOfVertex } from './facts.ts';
import type { DisposalScope, Library } from './library.ts';
import type { MadeFace, NamedSolid } from './names.ts';
import { drop } from './parts.ts';
import { listOf, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';
import { namedSolid } from './swept.ts';

/**
 * The solid of faces that meet edge to edge and are closed by flat caps; undefined where they do not close one.
 * @param nameOf what the cap at a place of its rim is called
 */
export function capped(
  library: Library,
  scope: DisposalScope,
  sides: readonly MadeFace[],
  step: string,
  nameOf: (rim: Vec3) => string,
): NamedSolid | undefined {
  const sewing = scope.keep(new library.BRepBuilderAPI_Sewing(MEETING, true, true, true, false));
  sides.forEach(({ face }) => sewing.Add(face));
  sewing.Perform(scope.keep(new library.Message_ProgressRange()));
  const caps = ringsOf(library, scope, sewing).map(({ edges, rim }): MadeFace | undefined => {
    const wire = scope.keep(new library.BRepBuilderAPI_MakeWire());
    wire.Add(listOf(library, scope, edges));
    const maker = wire.IsDone()
      ? scope.keep(new library.BRepBuilderAPI_MakeFace(scope.keep(wire.Wire()), true))
      : undefined;
    return maker?.IsDone() ? { face: scope.keep(maker.Face()), name: nameOf(rim) } : undefined;
  });
  if (caps.length === 0 || caps.includes(undefined)) return undefined;
  const all = [...sides, ...(caps as MadeFace[])];
  const again = scope.keep(new library.BRepBuilderAPI_Sewing(MEETING, true, true, true, false));
  all.forEach(({ face }) => again.Add(face));
  again.Perform(scope.keep(new library.Message_ProgressRange()));
  const [shell] = subShapes(library, scope, scope.keep(again.SewedShape()), 'TopAbs_SHELL');
  if (!shell) return undefined;
  const solid = scope.keep(new library.BRepBuilderAPI_MakeSolid(scope.keep(library.TopoDS.Shell(shell)))).Solid();
  library.BRepLib.OrientClosedSolid(solid);
  const sewn = all.map(({ face, name }): MadeFace => ({ face: scope.keep(again.Modified(face)), name }));
  const named = namedSolid(library, scope, solid, step, sewn);
  if (isSound(library, solid)) return named;
  drop(named);
  return undefined;
}
/** So near, mm, edges of faces meet. */
const MEETING = 1e-5;

/** A ring of edges, with a place on it. */
interface Ring {
  readonly edges: readonly TopoDS_Shape[];
  readonly rim: Vec3;
}

/** The free edges of what is sewn, by the rings that they make. */
function ringsOf(library: Library, scope: DisposalScope, sewing: BRepBuilderAPI_Sewing): Ring[] {
  const edges = Array.from({ length: sewing.NbFreeEdges() }, (_, k) => scope.keep(sewing.FreeEdge(k + 1)));
  const ends = edges.map((edge) =>
    subShapes(library, scope, edge, 'TopAbs_VERTEX').map((at) => placeOfVertex(library, scope, at)),
  );
  const meet = (a: readonly Vec3[], b: readonly Vec3[]) => a.some((p) => b.some((q) => distance3(p, q) < MEETING));
  const rings: number[][] = [];
  for (const k of edges.keys()) {
    const beside = rings.filter((ring) => ring.some((other) => meet(ends[other]!, ends[k]!)));
    const joined = [...beside.flat(), k];
    for (const ring of beside) rings.splice(rings.indexOf(ring), 1);
    rings.push(joined);
  }
  return rings.map((ring) => ({ edges: ring.map((k) => edges[k]!), rim: ends[ring[0]!]![0]! }));
}
