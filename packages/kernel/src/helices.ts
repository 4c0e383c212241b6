import type { TopoDS_Wire } from 'replicad-opencascadejs';
import type { Frame } from '@helb/core';
import { axes } from './edges.ts';
import type { Library, Scope } from './library.ts';

export interface Helix {
  readonly radius: number;
  /** Where it begins along the axis, mm. */
  readonly height: number;
  readonly pitch: number;
  readonly turns: number;
  readonly left: boolean;
  /** How much it closes in on the way, rad. */
  readonly taper: number;
}

/** A helix about the z of a frame, beginning over its x. */
export function helixWire(
  library: Library,
  scope: Scope,
  frame: Pick<Frame, 'origin' | 'z' | 'x'>,
  { radius, height, pitch, turns, left, taper }: Helix,
): TopoDS_Wire {
  const at = axes(library, scope, frame);
  const surface =
    taper === 0
      ? scope.keep(new library.Geom_CylindricalSurface(at, radius))
      : scope.keep(new library.Geom_ConicalSurface(at, -taper, radius));
  // on a cone the second parameter runs along the slope
  const rise = taper === 0 ? pitch : pitch * Math.hypot(1, Math.tan(taper));
  const turn = left ? -2 * Math.PI : 2 * Math.PI;
  const line = scope.keep(
    new library.Geom2d_Line(scope.keep(new library.gp_Pnt2d(0, height)), scope.keep(new library.gp_Dir2d(turn, rise))),
  );
  const maker = scope.keep(new library.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(turn, rise) * turns));
  const edge = scope.keep(maker.Edge());
  library.BRepLib.BuildCurves3d(edge);
  return scope.keep(scope.keep(new library.BRepBuilderAPI_MakeWire(edge)).Wire());
}
