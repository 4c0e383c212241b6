import type { TopoDS_Face } from 'replicad-opencascadejs';
import { add3, distance3, heightOver, scale3, toSpace, type Frame, type Piece, type Vec2, type Vec3 } from '@helb/core';
import { spansThrough, type EndSlopes } from './cubic-spline.ts';
import type { Library, DisposalScope } from './library.ts';
import { splineSurface } from './spline-surface.ts';

// Sides of a loft that leave its ends square: B-spline surfaces through the pieces of matched sections. The pieces are
// rational cubics, so that arcs stay exact; across the sections their control points go by cubic splines in homogeneous
// coordinates (Piegl, Tiller 1997, 9.3 and 10.3).

/** A control point times its weight, and the weight. */
type Control = readonly [x: number, y: number, z: number, w: number];
type Row = readonly [Control, Control, Control, Control];

/** A piece of an outline on a plane, or the point in which a loft ends. */
export type Rib = { readonly piece: Piece; readonly frame: Frame } | { readonly point: Vec3 };

/** How far a loft goes on square to its first and its last section, mm; it comes as it may where that is not told. */
interface Square {
  readonly first?: number;
  readonly last?: number;
}

const weighed = ([x, y, z]: Vec3, w: number): Control => [w * x, w * y, w * z, w];
const mixed = (a: Control, b: Control, p: number, q: number): Control =>
  a.map((c, k) => p * c + q * b[k]!) as unknown as Control;

type PieceOf<F extends Piece['form']> = Extract<Piece, { form: F }>;
type Weighing = (place: Vec2, weight?: number) => Control;

/** What is round as a rational cubic, of its two half axes. */
function roundCubic(
  { from, to, start, sweep, centre }: PieceOf<'arc' | 'ellipse'>,
  [u, v]: readonly [Vec2, Vec2],
  at: Weighing,
): Row {
  const [a, d] = [at(from), at(to)];
  const half = sweep / 2;
  // where the tangents at its ends meet
  const [c, s] = [Math.cos(start + half) / Math.cos(half), Math.sin(start + half) / Math.cos(half)];
  const b = at([centre[0] + c * u[0] + s * v[0], centre[1] + c * u[1] + s * v[1]], Math.cos(half));
  return [a, mixed(a, b, 1 / 3, 2 / 3), mixed(b, d, 2 / 3, 1 / 3), d];
}

const CUBICS: { readonly [F in Piece['form']]: (piece: PieceOf<F>, at: Weighing) => Row } = {
  segment({ from, to }, at) {
    const [a, d] = [at(from), at(to)];
    return [a, mixed(a, d, 2 / 3, 1 / 3), mixed(a, d, 1 / 3, 2 / 3), d];
  },
  bezier: ({ from, inner, to }, at) => [at(from), at(inner[0]), at(inner[1]), at(to)],
  arc: (piece, at) =>
    roundCubic(
      piece,
      [
        [piece.radius, 0],
        [0, piece.radius],
      ],
      at,
    ),
  ellipse: (piece, at) => roundCubic(piece, [piece.major, piece.minor], at),
};

/** A piece as a rational cubic; arcs of at most a quarter turn. */
const cubicOf = ({ piece, frame }: { readonly piece: Piece; readonly frame: Frame }): Row =>
  CUBICS[piece.form](piece as never, (place, w = 1) => weighed(toSpace(frame, place), w));

/** The knots of one span. */
const SPAN = [0, 1].map((at) => ({ at, times: 4 }));

/** The side through one piece of each section. */
export function sideThrough(library: Library, scope: DisposalScope, ribs: readonly Rib[], square: Square): TopoDS_Face {
  const rows = rowsOf(ribs);
  const ways = waysAlong(rows);
  const columns = [0, 1, 2, 3].map((k) =>
    spansThrough(
      rows.map((row) => row[k]!),
      ways,
      endsOf(ribs, rows, k, square),
    ),
  );
  const places = columns.map((column) => column.map(([x, y, z, w]): Vec3 => [x / w, y / w, z / w]));
  const weights = columns.map((column) => column.map(([, , , w]) => w));
  const across = ways.map((_, k) => (k === 0 || k === ways.length - 1 ? 4 : 3));
  const surface = splineSurface(
    library,
    scope,
    places,
    SPAN,
    ways.map((at, k) => ({ at, times: across[k]! })),
    weights,
  );
  // it goes on over the sections with its curvature: they need no break in it
  for (let k = ways.length - 1; k >= 2; k--) surface.RemoveVKnot(k, 1, 1e-6);
  return scope.keep(scope.keep(new library.BRepBuilderAPI_MakeFace(surface, 1e-7)).Face());
}

/** Points have the weights of the section beside them, so that all goes straight towards them. */
function rowsOf(ribs: readonly Rib[]): Row[] {
  const known = ribs.map((rib) => ('piece' in rib ? cubicOf(rib) : undefined));
  return ribs.map((rib, k) => {
    if ('piece' in rib) return known[k]!;
    const beside = known[k - 1] ?? known[k + 1]!;
    return beside.map(([, , , w]) => weighed(rib.point, w)) as unknown as Row;
  });
}

/** Where the sections lie on the way across: by the distances of their middles. */
function waysAlong(rows: readonly Row[]): number[] {
  const middles = rows.map((row) =>
    row.reduce((sum: Vec3, [x, y, z, w]) => add3(sum, [x / w / 4, y / w / 4, z / w / 4]), [0, 0, 0]),
  );
  const ways = [0];
  middles.slice(1).forEach((middle, k) => ways.push(ways[k]! + Math.max(distance3(middle, middles[k]!), 1e-6)));
  return ways;
}

/** The slopes at both ends: square to the planes there, towards the neighbours; none where it comes as it may. */
function endsOf(ribs: readonly Rib[], rows: readonly Row[], column: number, { first, last }: Square): EndSlopes {
  const ways = waysAlong(rows);
  const slope = (at: number, beside: number, lead: number | undefined): Control | undefined => {
    const rib = ribs[at]!;
    if (lead === undefined || !('piece' in rib)) return undefined;
    const [x, y, z, w] = rows[beside]![column]!;
    const side = Math.sign(heightOver(rib.frame, [x / w, y / w, z / w])) || 1;
    const weight = rows[at]![column]![3];
    const length = (3 * lead) / Math.abs(ways[beside]! - ways[at]!);
    const [dx, dy, dz] = scale3(rib.frame.z, side * length * weight * Math.sign(ways[beside]! - ways[at]!));
    return [dx, dy, dz, 0];
  };
  const end = ribs.length - 1;
  return [slope(0, 1, first), slope(end, end - 1, last)];
}
