import type { TopoDS_Edge, TopoDS_Face, TopoDS_Vertex, TopoDS_Wire } from 'replicad-opencascadejs';
import type { Frame, Region, Vec3 } from '@helb/core';
import { direction, edgeOf, point, smoothRuns } from './edges.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { isValid } from './soundness.ts';

export interface ProfileEdge {
  readonly edge: TopoDS_Edge;
  /** The sketch entity that it is drawn by. */
  readonly entity: string;
}

export interface ProfileFace {
  readonly face: TopoDS_Face;
  readonly outer: TopoDS_Wire;
  readonly edges: readonly ProfileEdge[];
}

export const plane = (library: Library, scope: Scope, { origin, z, x }: Frame) =>
  scope.keep(
    new library.gp_Pln(
      scope.keep(
        new library.gp_Ax3(point(library, scope, origin), direction(library, scope, z), direction(library, scope, x)),
      ),
    ),
  );

export const axisAt = (library: Library, scope: Scope, origin: Vec3, along: Vec3) =>
  scope.keep(new library.gp_Ax1(point(library, scope, origin), direction(library, scope, along)));

/** A flat face from the loops of a region. */
export function faceOf(library: Library, scope: Scope, frame: Frame, region: Region) {
  const edges: ProfileEdge[] = [];
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
  const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, frame), outer, true));
  // loops of openings run clockwise already, as the library wants them
  for (const hole of holes) maker.Add(hole!);
  if (!maker.IsDone()) return fail('kernel.profile', { reason: 'no flat face' });
  const face = scope.keep(maker.Face());
  if (!isValid(library, face)) return fail('kernel.profile', { reason: 'the outline crosses itself' });
  return ok<ProfileFace>({ face, outer, edges });
}
