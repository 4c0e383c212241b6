import type { Geom_BSplineSurface } from 'replicad-opencascadejs';
import type { Vec3 } from '@helb/core';
import { point } from './edges.ts';
import type { DisposalScope, Library } from './library.ts';

/** A knot of a spline and how many times it counts. */
interface Knot {
  readonly at: number;
  readonly times: number;
}

/** A bicubic B-spline surface of the library. @param poles by u, then by v @param weights the same way; all 1 where absent */
export function splineSurface(
  library: Library,
  scope: DisposalScope,
  poles: readonly (readonly Vec3[])[],
  u: readonly Knot[],
  v: readonly Knot[],
  weights?: readonly (readonly number[])[],
): Geom_BSplineSurface {
  const [rows, columns] = [poles.length, poles[0]!.length];
  const places = scope.keep(new library.NCollection_Array2_gp_Pnt(1, rows, 1, columns));
  const weighing = scope.keep(new library.NCollection_Array2_double(1, rows, 1, columns));
  poles.forEach((row, i) =>
    row.forEach((at, k) => {
      places.SetValue(i + 1, k + 1, point(library, scope, at));
      weighing.SetValue(i + 1, k + 1, weights ? weights[i]![k]! : 1);
    }),
  );
  const knots = (list: readonly Knot[]) => {
    const array = scope.keep(new library.NCollection_Array1_double(1, list.length));
    list.forEach(({ at }, k) => array.SetValue(k + 1, at));
    return array;
  };
  const times = (list: readonly Knot[]) => {
    const array = scope.keep(new library.NCollection_Array1_int(1, list.length));
    list.forEach((knot, k) => array.SetValue(k + 1, knot.times));
    return array;
  };
  return scope.keep(
    new library.Geom_BSplineSurface(places, weighing, knots(u), knots(v), times(u), times(v), 3, 3, false, false),
  );
}
