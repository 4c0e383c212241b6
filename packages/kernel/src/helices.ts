import type { TopoDS_Edge, TopoDS_Wire } from 'replicad-opencascadejs';
import type { Helix } from '@helb/core';
import { axes } from './edges.ts';
import type { Library, DisposalScope } from './library.ts';

/** A helix as an edge on the cylinder or cone that it winds round. */
export function helixEdge(library: Library, scope: DisposalScope, helix: Helix): TopoDS_Edge {
  const { axis: z, origin, x, radius, pitch, turns, left, taper } = helix;
  const at = axes(library, scope, { origin, z, x });
  const surface =
    taper === 0
      ? scope.keep(new library.Geom_CylindricalSurface(at, radius))
      : scope.keep(new library.Geom_ConicalSurface(at, -taper, radius));
  // on a cone the second parameter runs along the slope
  const rise = taper === 0 ? pitch : pitch * Math.hypot(1, Math.tan(taper));
  const turn = left ? -2 * Math.PI : 2 * Math.PI;
  const line = scope.keep(
    new library.Geom2d_Line(scope.keep(new library.gp_Pnt2d(0, 0)), scope.keep(new library.gp_Dir2d(turn, rise))),
  );
  const maker = scope.keep(new library.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(turn, rise) * turns));
  const edge = scope.keep(maker.Edge());
  library.BRepLib.BuildCurves3d(edge);
  return edge;
}

/** A helix as a wire of one edge. */
export const helixWire = (library: Library, scope: DisposalScope, helix: Helix): TopoDS_Wire =>
  scope.keep(scope.keep(new library.BRepBuilderAPI_MakeWire(helixEdge(library, scope, helix))).Wire());
