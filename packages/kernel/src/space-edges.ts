import type { BRepBuilderAPI_MakeEdge, gp_Circ, gp_Elips, TopoDS_Edge } from 'replicad-opencascadejs';
import { cross3, direction3, frameAcross, length3, type SpaceCurve, type Vec3 } from '@helb/core';
import { direction, point } from './edges.ts';
import { helixEdge } from './helices.ts';
import type { Library, DisposalScope } from './library.ts';

type Maker<F extends SpaceCurve['form']> = (
  library: Library,
  scope: DisposalScope,
  curve: Extract<SpaceCurve, { form: F }>,
) => TopoDS_Edge;

const done = (scope: DisposalScope, maker: BRepBuilderAPI_MakeEdge): TopoDS_Edge =>
  scope.keep(scope.keep(maker).Edge());

/** The place, the axis and the x direction of what is round. */
const placing = (library: Library, scope: DisposalScope, centre: Vec3, axis: Vec3, x: Vec3) =>
  scope.keep(
    new library.gp_Ax2(point(library, scope, centre), direction(library, scope, axis), direction(library, scope, x)),
  );

/** What is round from one of its places to another, or all of it. */
function roundEdge(
  library: Library,
  scope: DisposalScope,
  round: gp_Circ | gp_Elips,
  { from, to }: { readonly from?: Vec3; readonly to?: Vec3 },
): TopoDS_Edge {
  return done(
    scope,
    from && to
      ? new library.BRepBuilderAPI_MakeEdge(round, point(library, scope, from), point(library, scope, to))
      : new library.BRepBuilderAPI_MakeEdge(round),
  );
}

const MAKERS: { readonly [F in SpaceCurve['form']]: Maker<F> } = {
  line: (library, scope, { from, to }) =>
    done(scope, new library.BRepBuilderAPI_MakeEdge(point(library, scope, from), point(library, scope, to))),
  circle: (library, scope, curve) => {
    const { centre, axis, radius } = curve;
    const placed = placing(library, scope, centre, axis, frameAcross(centre, axis).x);
    return roundEdge(library, scope, scope.keep(new library.gp_Circ(placed, radius)), curve);
  },
  ellipse: (library, scope, curve) => {
    const { centre, major, minor } = curve;
    const placed = placing(library, scope, centre, direction3(cross3(major, minor))!, major);
    const round = scope.keep(new library.gp_Elips(placed, length3(major), length3(minor)));
    return roundEdge(library, scope, round, curve);
  },
  helix: helixEdge,
  free: (library, scope, { spans }) => {
    const places = spans.flatMap((span, k) => (k === 0 ? [...span] : span.slice(1)));
    const poles = scope.keep(new library.NCollection_Array1_gp_Pnt(1, places.length));
    places.forEach((place, k) => poles.SetValue(k + 1, point(library, scope, place)));
    const count = spans.length;
    const knots = scope.keep(new library.NCollection_Array1_double(1, count + 1));
    const multiple = scope.keep(new library.NCollection_Array1_int(1, count + 1));
    for (let k = 0; k <= count; k++) {
      knots.SetValue(k + 1, k);
      multiple.SetValue(k + 1, k === 0 || k === count ? 4 : 3);
    }
    const curve = scope.keep(new library.Geom_BSplineCurve(poles, knots, multiple, 3, false));
    return done(scope, new library.BRepBuilderAPI_MakeEdge(curve));
  },
};

/** A curve in space as an edge of the library. */
export const edgeOfCurve = (library: Library, scope: DisposalScope, curve: SpaceCurve): TopoDS_Edge =>
  MAKERS[curve.form](library, scope, curve as never);
