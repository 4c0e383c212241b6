import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  cross3,
  direction3,
  dot3,
  issue,
  scale3,
  type Result,
  type ShellRequest,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { capped } from './capped.ts';
import { polesThrough } from './cubic-spline.ts';
import { detoured } from './detours.ts';
import { vec } from './edges.ts';
import { faceFacts } from './facts.ts';
import { lessHollow } from './inset-hollow.ts';
import { insetGrids, nearestOf, offFrom, type InsetGrid, type Plane, type Sheet } from './inset-grid.ts';
import { fail, type DisposalScope, type Library } from './library.ts';
import { volumeOf } from './measure.ts';
import { insideOf, type MadeFace, type NamedSolid } from './names.ts';
import { partsOf, type Parts } from './parts.ts';
import { splineSurface } from './spline-surface.ts';

// Walls of bodies between two flat ends with a ring of bent sides, such as lofts from a rectangle to a circle: their edges are
// sharp at one end and smooth at the other, where the library finds no inner corners. The inside is fitted to places that are
// found one by one.

/** So near, mm, walls are as thick as told. */
export const FIT_MM = 1e-4;
/** How finely the sides are looked at, until the fit is that near. */
const STEPS = [12, 24, 48];
/** One of so many places is held against all of the skin. */
const SPARSE = 5;

/**
 * A body with two flat ends and a ring of bent sides less a hollow that is fitted to its walls, open at one or both ends. Fails
 * with `shell.wall` for all other bodies, and where the walls leave no room or no fit comes near enough.
 */
export function fittedHollow(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
): Result<NamedSolid> {
  const { wall, open, step } = request;
  const found = wall > 0 ? ringOf(library, scope, body) : undefined;
  if (!found || !open.every((name) => found.ends.some((end) => end.name === name))) return fail('shell.wall');
  const { sides, ends } = found;
  const planes = ends.map(({ name, plane }) =>
    open.includes(name) ? plane : { ...plane, height: plane.height - wall },
  );
  const sheets = sides.map(({ sheet }) => sheet);
  for (const steps of STEPS) {
    const inset = insetGrids(sheets, wall, between(planes[0]!, planes[1]!, steps), steps);
    if (!inset) break;
    if (inset.thicker > FIT_MM) detoured(library, issue('kernel.sharp-corners'));
    const fits = inset.grids.map((grid) => fitted(library, scope, grid, steps));
    const off = fits.map(({ between: middles }, k) =>
      Math.max(...middles.map(({ at, near }) => offFrom(sheets[k]!, wall, at, near))),
    );
    if (!(Math.max(...off) < FIT_MM)) continue;
    // behind a side that bends more than the wall is thick lies what is nearer to another part of it
    const some = fits.flatMap(({ between: middles }) => middles.filter((_, k) => k % SPARSE === 0).map(({ at }) => at));
    if (nearestOf(sheets, some) < wall - FIT_MM) break;
    const made = fits.map(({ face }, k): MadeFace => ({ face, name: insideOf(step, sides[k]!.name) }));
    const over = (k: number, at: Vec3) => Math.abs(dot3(planes[k]!.normal, at) - planes[k]!.height);
    const nameOf = (at: Vec3) => insideOf(step, ends[over(0, at) < over(1, at) ? 0 : 1]!.name);
    const hollow = capped(library, scope, made, `${step}/hollow`, nameOf);
    return hollow ? lessHollow(library, scope, body, hollow, volumeOf(library, hollow.shape)) : fail('shell.wall');
  }
  return fail('shell.wall');
}

/** Planes from one to another that looks the other way, at equal steps; like the leaves of a book where these lean. */
function between(first: Plane, last: Plane, steps: number): Plane[] {
  return Array.from({ length: steps + 1 }, (_, k) => {
    const share = k / steps;
    const sum = first.normal.map((c, i) => share * last.normal[i]! - (1 - share) * c) as unknown as Vec3;
    const length = Math.hypot(...sum);
    const height = share * last.height - (1 - share) * first.height;
    return { normal: scale3(sum, 1 / length), height: height / length };
  });
}

/** The face through a grid of places, and places of it in the middle between these. */
function fitted(library: Library, scope: DisposalScope, grid: InsetGrid, steps: number) {
  const rows = grid.map((row) => polesThrough(row.map(({ at }) => at)));
  const poles = rows[0]!.map((_, k) => polesThrough(rows.map((row) => row[k]!)));
  const knots = Array.from({ length: steps + 1 }, (_, k) => ({ at: k / steps, times: k % steps === 0 ? 4 : 1 }));
  const surface = splineSurface(library, scope, poles, knots, knots);
  const face = scope.keep(scope.keep(new library.BRepBuilderAPI_MakeFace(surface, 1e-7)).Face());
  const seen = scope.keep(new library.BRepAdaptor_Surface(face, true));
  const middles = grid.slice(1).flatMap((row, i) =>
    row.slice(1).map((near, k) => {
      const place = seen.Value((k + 0.5) / steps, (i + 0.5) / steps);
      const at = vec(place);
      place.delete();
      return { at, near };
    }),
  );
  return { face, between: middles };
}

interface End {
  readonly name: string;
  readonly plane: Plane;
}
interface BentSide {
  readonly name: string;
  readonly sheet: Sheet;
}

/** The two flat ends of a body and the ring of its bent sides; undefined where it is no such body. */
function ringOf(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
): { readonly ends: readonly End[]; readonly sides: readonly BentSide[] } | undefined {
  const { faces, edges } = partsOf(library, body);
  const ends: End[] = [];
  const bent: string[] = [];
  for (const { name, shape } of faces) {
    const { surface } = faceFacts(library, scope, shape);
    if (surface.form === 'plane')
      ends.push({ name, plane: { normal: surface.normal, height: dot3(surface.normal, surface.origin) } });
    else bent.push(name);
  }
  if (ends.length !== 2 || bent.length < 2) return undefined;
  const isBent = (edge: Parts['edges'][number]) => edge.faces.every((name) => bent.includes(name));
  const ofSide = (name: string) => edges.filter((edge) => edge.faces.includes(name));
  if (bent.some((name) => ofSide(name).length !== 4 || ofSide(name).filter(isBent).length !== 2)) return undefined;
  const sides: BentSide[] = [];
  let [name, left] = [bent[0]!, ofSide(bent[0]!).find(isBent)!];
  do {
    const right = ofSide(name).find((edge) => isBent(edge) && edge !== left)!;
    const sheet = sheetOf(library, scope, faces.find((face) => face.name === name)!.shape, [
      left.sides.find((side) => side.name === name)!.edge,
      right.sides.find((side) => side.name === name)!.edge,
    ]);
    if (!sheet) return undefined;
    sides.push({ name, sheet });
    [name, left] = [right.faces.find((other) => other !== name)!, right];
  } while (sides.length < bent.length && name !== bent[0]);
  return sides.length === bent.length ? { ends, sides } : undefined;
}

/** A free face by its own parameters, from its edge with one neighbour to that with the other; both must lie along these. */
function sheetOf(
  library: Library,
  scope: DisposalScope,
  shape: TopoDS_Shape,
  rims: readonly [TopoDS_Shape, TopoDS_Shape],
): Sheet | undefined {
  const face = scope.keep(library.TopoDS.Face(shape));
  const surface = scope.keep(new library.BRepAdaptor_Surface(face, true));
  if (surface.GetType() !== 'GeomAbs_BSplineSurface') return undefined;
  const spans = [
    [surface.FirstUParameter(), surface.LastUParameter()],
    [surface.FirstVParameter(), surface.LastVParameter()],
  ] as const;
  const drawn = rims.map((rim) => placesAlong(library, scope, face, rim)) as [Vec2[], Vec2[]];
  const isLevel = (axis: 0 | 1) =>
    drawn.every((places) =>
      places.every((at) => Math.abs(at[axis] - places[0]![axis]) < LEVEL * (spans[axis][1] - spans[axis][0])),
    );
  const axis = ([0, 1] as const).find(isLevel);
  if (axis === undefined) return undefined;
  const [from, to] = [drawn[0][0]![axis], drawn[1][0]![axis]];
  const [low, high] = spans[1 - axis]!;
  const turned = shape.Orientation() === 'TopAbs_REVERSED' ? -1 : 1;
  const place = scope.keep(new library.gp_Pnt(0, 0, 0));
  const du = scope.keep(new library.gp_Vec(0, 0, 0));
  const dv = scope.keep(new library.gp_Vec(0, 0, 0));
  return (across, along) => {
    const [p, q] = [from + across * (to - from), low + along * (high - low)];
    surface.D1(axis === 0 ? p : q, axis === 0 ? q : p, place, du, dv);
    const [byU, byV] = [vec(du), vec(dv)];
    const normal = scale3(direction3(cross3(byU, byV)) ?? [0, 0, 1], turned);
    const [byP, byQ] = axis === 0 ? [byU, byV] : [byV, byU];
    return { at: vec(place), across: scale3(byP, to - from), along: scale3(byQ, high - low), normal };
  };
}
/** How level, as a share of the parameters. */
const LEVEL = 1e-6;

/** An edge of a face in its parameters. */
function placesAlong(library: Library, scope: DisposalScope, face: TopoDS_Shape, edge: TopoDS_Shape): Vec2[] {
  const curve = scope.keep(
    new library.BRepAdaptor_Curve2d(scope.keep(library.TopoDS.Edge(edge)), scope.keep(library.TopoDS.Face(face))),
  );
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  return [0, 0.3, 0.7, 1].map((share) => {
    const at = scope.keep(curve.Value((1 - share) * first + share * last));
    return [at.X(), at.Y()];
  });
}
