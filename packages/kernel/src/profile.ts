import type { TopoDS_Edge, TopoDS_Face, TopoDS_Vertex, TopoDS_Wire } from 'replicad-opencascadejs';
import type { Frame, Region, Vec3 } from '@helb/core';
import { axes, direction, edgeOf, point, smoothRuns } from './edges.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { isValid } from './soundness.ts';

interface ProfileEdge {
  readonly edge: TopoDS_Edge;
  /** The sketch entity that it is drawn by. */
  readonly entity: string;
}

/** A closed loop of edges. */
export interface ProfileLoop {
  readonly wire: TopoDS_Wire;
  readonly edges: readonly ProfileEdge[];
}

export interface ProfileFace extends Pick<ProfileLoop, 'edges'> {
  readonly face: TopoDS_Face;
  readonly outer: ProfileLoop;
  readonly openings: readonly ProfileLoop[];
}

/** The plane of a frame as the library has it. */
export const plane = (library: Library, scope: DisposalScope, frame: Frame) =>
  scope.keep(new library.gp_Pln(axes(library, scope, frame)));

/** An axis as the library has it. */
export const axisAt = (library: Library, scope: DisposalScope, origin: Vec3, along: Vec3) =>
  scope.keep(new library.gp_Ax1(point(library, scope, origin), direction(library, scope, along)));

/**
 * A flat face from the loops of a region.
 * @param divided each piece of its loops is an edge by itself, even where it goes on straight
 */
export function faceOf(library: Library, scope: DisposalScope, frame: Frame, region: Region, divided = false) {
  const loops: ProfileLoop[] = [];
  for (const loop of [region.outer, ...region.holes]) {
    const vertices = new Map<string, TopoDS_Vertex>();
    const maker = scope.keep(new library.BRepBuilderAPI_MakeWire());
    const runs = divided ? loop.map((piece) => [piece]) : smoothRuns(loop);
    const edges = runs.map((run): ProfileEdge => {
      const edge = edgeOf(library, scope, frame, run, vertices);
      maker.Add(edge);
      return { edge, entity: run[0]!.entity };
    });
    if (!maker.IsDone()) return fail('kernel.profile', { reason: 'its lines do not join' });
    loops.push({ wire: scope.keep(maker.Wire()), edges });
  }
  const [outer, ...openings] = loops as [ProfileLoop, ...ProfileLoop[]];
  const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, frame), outer.wire, true));
  // loops of openings run clockwise already, as the library wants them
  for (const { wire } of openings) maker.Add(wire);
  if (!maker.IsDone()) return fail('kernel.profile', { reason: 'no flat face' });
  const face = scope.keep(maker.Face());
  if (!isValid(library, face)) return fail('kernel.profile', { reason: 'the outline crosses itself' });
  return ok<ProfileFace>({ face, outer, openings, edges: loops.flatMap(({ edges }) => edges) });
}
