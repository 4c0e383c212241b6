import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { Gap, PlaceOnBody, Result, Vec3 } from '@helb/core';
import { vec } from './edges.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import type { NamedSolid } from './names.ts';
import { partsOf } from './parts.ts';

/** Where two faces, edges or corners come nearest to each other. */
export function gapBetween(
  library: Library,
  scope: DisposalScope,
  places: readonly [PlaceOnBody, PlaceOnBody],
  bodyOf: (body: PlaceOnBody['body']) => NamedSolid,
): Result<Gap> {
  const [a, b] = places.map((place) => shapeOf(library, bodyOf(place.body), place));
  if (!a || !b) return fail('kernel.gone', { what: places[a ? 1 : 0].to });
  return nearest(library, scope, a, b);
}

/** Where two shapes come nearest to each other; 0 apart where one lies in the other. */
export function nearest(library: Library, scope: DisposalScope, a: TopoDS_Shape, b: TopoDS_Shape): Result<Gap> {
  const search = scope.keep(new library.BRepExtrema_DistShapeShape());
  search.LoadS1(a);
  search.LoadS2(b);
  search.Perform(scope.keep(new library.Message_ProgressRange()));
  if (!search.IsDone() || search.NbSolution() === 0) return fail('kernel.failed', { reason: 'no gap was found' });
  const [from, to] = [search.PointOnShape1(1), search.PointOnShape2(1)].map((place) => vec(scope.keep(place))) as [
    Vec3,
    Vec3,
  ];
  return ok({ distance_mm: search.Value(), from, to });
}

function shapeOf(library: Library, solid: NamedSolid, { to, name }: PlaceOnBody): TopoDS_Shape | undefined {
  const { faces, edges, vertices } = partsOf(library, solid);
  const all = { face: faces, edge: edges, vertex: vertices.all }[to];
  return all.find((part) => part.name === name)?.shape;
}
