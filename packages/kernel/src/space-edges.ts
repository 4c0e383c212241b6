import type { TopoDS_Edge } from 'replicad-opencascadejs';
import { cross3, direction3, frameAcross, length3, type SpaceCurve } from '@helb/core';
import { direction, point } from './edges.ts';
import { helixEdge } from './helices.ts';
import type { Library, DisposalScope } from './library.ts';

/** A curve in space as an edge of the library. */
export function edgeOfCurve(library: Library, scope: DisposalScope, curve: SpaceCurve): TopoDS_Edge {
  const done = (maker: { Edge(): TopoDS_Edge; delete(): void }) => scope.keep(scope.keep(maker).Edge());
  const at = (place: readonly [number, number, number]) => point(library, scope, place);
  if (curve.form === 'line') return done(new library.BRepBuilderAPI_MakeEdge(at(curve.from), at(curve.to)));
  if (curve.form === 'free') {
    const places = curve.spans.flatMap((span, k) => (k === 0 ? [...span] : span.slice(1)));
    const poles = scope.keep(new library.NCollection_Array1_gp_Pnt(1, places.length));
    places.forEach((place, k) => poles.SetValue(k + 1, at(place)));
    const count = curve.spans.length;
    const knots = scope.keep(new library.NCollection_Array1_double(1, count + 1));
    const multiple = scope.keep(new library.NCollection_Array1_int(1, count + 1));
    for (let k = 0; k <= count; k++) {
      knots.SetValue(k + 1, k);
      multiple.SetValue(k + 1, k === 0 || k === count ? 4 : 3);
    }
    return done(
      new library.BRepBuilderAPI_MakeEdge(scope.keep(new library.Geom_BSplineCurve(poles, knots, multiple, 3, false))),
    );
  }
  if (curve.form === 'helix') return helixEdge(library, scope, curve);
  const round =
    curve.form === 'circle'
      ? scope.keep(
          new library.gp_Circ(
            scope.keep(
              new library.gp_Ax2(
                at(curve.centre),
                direction(library, scope, curve.axis),
                direction(library, scope, frameAcross(curve.centre, curve.axis).x),
              ),
            ),
            curve.radius,
          ),
        )
      : scope.keep(
          new library.gp_Elips(
            scope.keep(
              new library.gp_Ax2(
                at(curve.centre),
                direction(library, scope, direction3(cross3(curve.major, curve.minor))!),
                direction(library, scope, curve.major),
              ),
            ),
            length3(curve.major),
            length3(curve.minor),
          ),
        );
  return done(
    curve.from && curve.to
      ? new library.BRepBuilderAPI_MakeEdge(round, at(curve.from), at(curve.to))
      : new library.BRepBuilderAPI_MakeEdge(round),
  );
}
