import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape, TopoDS_Vertex } from 'replicad-opencascadejs';
import { scale3, toSpace, type ExtrudeRequest, type Frame, type Region, type Vec3 } from '@helb/core';
import { direction, edgeOf, point, smoothRuns } from './edges.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { distinct, type NamedSolid } from './names.ts';
import { subShapes, ShapeMap } from './shapes.ts';

/** One named solid for each region: a face from its loops, swept along the frame's z. */
export function extrudeRegions(library: Library, scope: Scope, request: ExtrudeRequest) {
  const { profile, from, to, step } = request;
  const base: Frame = { ...profile.frame, origin: toSpace(profile.frame, [0, 0], from) };
  const solids: NamedSolid[] = [];
  for (const region of profile.regions) {
    const made = faceOf(library, scope, base, region);
    if (!made.ok) return made;
    const suffix = profile.regions.length > 1 ? `/${region.key}` : '';
    solids.push(prism(library, scope, made.value, scale3(base.z, to - from), step, suffix));
  }
  return ok(solids);
}

interface ProfileFace {
  readonly face: TopoDS_Face;
  readonly edges: readonly { readonly edge: TopoDS_Edge; readonly entity: string }[];
}

function faceOf(library: Library, scope: Scope, frame: Frame, region: Region) {
  const edges: { edge: TopoDS_Edge; entity: string }[] = [];
  const wires = [region.outer, ...region.holes].map((loop) => {
    const vertices = new Map<string, TopoDS_Vertex>();
    const maker = scope.keep(new library.BRepBuilderAPI_MakeWire());
    for (const run of smoothRuns(loop)) {
      const edge = edgeOf(library, scope, frame, run, vertices);
      maker.Add(edge);
      edges.push({ edge, entity: run[0]!.entity });
    }
    return maker.IsDone() ? scope.keep(maker.Wire()) : undefined;
  });
  const [outer, ...holes] = wires;
  if (!outer || holes.some((hole) => !hole)) return fail('kernel.profile', { reason: 'its lines do not join' });
  const plane = scope.keep(new library.gp_Pln(axes(library, scope, frame)));
  const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane, outer, true));
  // loops of openings run clockwise already, as the library wants them
  for (const hole of holes) maker.Add(hole!);
  if (!maker.IsDone()) return fail('kernel.profile', { reason: 'no flat face' });
  const face = scope.keep(maker.Face());
  const check = scope.keep(new library.BRepCheck_Analyzer(face, true, false, false));
  if (!check.IsValid()) return fail('kernel.profile', { reason: 'the outline crosses itself' });
  return ok<ProfileFace>({ face, edges });
}

/** Names by origin: the sides after the sketch entities, the caps by their role. */
function prism(
  library: Library,
  scope: Scope,
  { face, edges }: ProfileFace,
  along: Vec3,
  step: string,
  suffix: string,
): NamedSolid {
  const maker = scope.keep(
    new library.BRepPrimAPI_MakePrism(face, scope.keep(new library.gp_Vec(...along)), false, true),
  );
  const solid = maker.Shape();
  const names = new ShapeMap<string>(library);
  names.set(scope.keep(maker.FirstShape()), `${step}/start${suffix}`);
  names.set(scope.keep(maker.LastShape()), `${step}/end${suffix}`);
  for (const { edge, entity } of edges) {
    const side = scope.keep(scope.keep(maker.Generated(edge)).First());
    names.set(side, `${step}/side/${entity}`);
  }
  const faces = subShapes(library, scope, solid, 'TopAbs_FACE');
  return {
    shape: solid,
    faceNames: distinct(
      library,
      scope,
      faces,
      faces.map((f) => names.get(f) ?? `${step}/unnamed`),
    ),
  };
}

const axes = (library: Library, scope: Scope, frame: Frame) =>
  scope.keep(
    new library.gp_Ax3(
      point(library, scope, frame.origin),
      direction(library, scope, frame.z),
      direction(library, scope, frame.x),
    ),
  );

export type { TopoDS_Shape };
