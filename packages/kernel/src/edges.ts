import type { TopoDS_Edge, TopoDS_Vertex } from 'replicad-opencascadejs';
import { scale3, toSpace, type Frame, type RigidTransform, type Piece, type Vec2, type Vec3 } from '@helb/core';
import type { Library, DisposalScope } from './library.ts';

/** A place as the library has it. */
export const point = (library: Library, scope: DisposalScope, at: Vec3) => scope.keep(new library.gp_Pnt(...at));
/** A place or a direction of the library as numbers. */
export const vec = (p: { X(): number; Y(): number; Z(): number }): Vec3 => [p.X(), p.Y(), p.Z()];
/** A coordinate system of the library; y follows from z and x. */
export const axes = (library: Library, scope: DisposalScope, { origin, z, x }: Pick<Frame, 'origin' | 'z' | 'x'>) =>
  scope.keep(
    new library.gp_Ax3(point(library, scope, origin), direction(library, scope, z), direction(library, scope, x)),
  );
/** A motion of the library. */
export function motionOf(library: Library, scope: DisposalScope, transform: RigidTransform) {
  const motion = scope.keep(new library.gp_Trsf());
  motion.SetValues(...transform[0], ...transform[1], ...transform[2]);
  return motion;
}
/** Where something stands that is moved and shares all else with what it was. */
export const locationOf = (library: Library, scope: DisposalScope, transform: RigidTransform) =>
  scope.keep(new library.TopLoc_Location(motionOf(library, scope, transform)));
/** A direction as the library has it. */
export const direction = (library: Library, scope: DisposalScope, to: Vec3) => scope.keep(new library.gp_Dir(...to));

type Bezier = Extract<Piece, { form: 'bezier' }>;
type Round = Extract<Piece, { form: 'arc' | 'ellipse' }>;

/** Pieces of a loop that become one edge each: the spans of a spline go together, all else stands alone. */
export function smoothRuns(loop: readonly Piece[]): Piece[][] {
  const runs: Piece[][] = [];
  for (const piece of joined(loop)) {
    const before = runs.at(-1)?.at(-1);
    if (before && goesOn(before, piece)) runs.at(-1)!.push(piece);
    else runs.push([piece]);
  }
  const [first, last] = [runs[0]!, runs.at(-1)!];
  // the loop may begin within a spline
  if (runs.length > 1 && goesOn(last.at(-1)!, first[0]!)) runs.splice(0, 1, [...runs.pop()!, ...first]);
  return runs;
}

/**
 * A line that was divided is one edge still, and so one side: it carries the names of all its pieces. Else solids would
 * have faces that go on into each other, on which lofts, turns and walls fail.
 */
function joined(loop: readonly Piece[]): Piece[] {
  const pieces: Piece[] = [];
  for (const piece of loop) {
    const before = pieces.at(-1);
    const one = before && joinedPiece(before, piece);
    if (one) pieces.splice(-1, 1, one);
    else pieces.push(piece);
  }
  // the loop may begin within a line
  const [first, last] = [pieces[0]!, pieces.at(-1)!];
  const one = pieces.length > 3 ? joinedPiece(last, first) : undefined;
  return one ? [...pieces.slice(1, -1), one] : pieces;
}

function joinedPiece(a: Piece, b: Piece): Piece | undefined {
  if (a.form !== 'segment' || b.form !== 'segment') return undefined;
  const [along, on] = [vector(a.from, a.to), vector(b.from, b.to)];
  const scale = Math.hypot(...along) * Math.hypot(...on);
  const straight = Math.abs(along[0] * on[1] - along[1] * on[0]) <= 1e-9 * scale && dot(along, on) > 0;
  if (!straight) return undefined;
  const names = new Set([a, b].flatMap(({ entity }) => entity.split(',')));
  return { form: 'segment', entity: [...names].sort().join(','), from: a.from, to: b.to };
}

function goesOn(a: Piece, b: Piece): boolean {
  if (a.form !== 'bezier' || b.form !== 'bezier' || a.entity !== b.entity) return false;
  const [leave, arrive] = [vector(b.from, b.inner[0]), vector(a.inner[1], a.to)];
  const cross = leave[0] * arrive[1] - leave[1] * arrive[0];
  return Math.abs(cross) <= 1e-9 * Math.hypot(...leave) * Math.hypot(...arrive) && dot(leave, arrive) > 0;
}

const vector = (a: Vec2, b: Vec2): Vec2 => [b[0] - a[0], b[1] - a[1]];
const dot = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];

/** Edges share vertices, so that the wire keeps them as they are and the prism's history knows them. */
export function edgeOf(
  library: Library,
  scope: DisposalScope,
  frame: Frame,
  run: readonly Piece[],
  vertices: Map<string, TopoDS_Vertex>,
): TopoDS_Edge {
  const vertex = (place: Vec2): TopoDS_Vertex => {
    const key = place.join(',');
    const known = vertices.get(key);
    if (known) return known;
    const made = scope.keep(
      scope.keep(new library.BRepBuilderAPI_MakeVertex(point(library, scope, toSpace(frame, place)))).Vertex(),
    );
    vertices.set(key, made);
    return made;
  };
  const [first, last] = [run[0]!, run.at(-1)!];
  const ends = [vertex(first.from), vertex(last.to)] as const;
  const keepEdge = (maker: { Edge(): TopoDS_Edge; delete(): void }) => scope.keep(scope.keep(maker).Edge());
  if (first.form === 'segment') return keepEdge(new library.BRepBuilderAPI_MakeEdge(...ends));
  if (first.form === 'bezier')
    return keepEdge(new library.BRepBuilderAPI_MakeEdge(splineOf(library, scope, frame, run as Bezier[]), ...ends));
  const carrier = carrierOf(library, scope, frame, first);
  const full = Math.abs(Math.abs(first.sweep) - 2 * Math.PI) < 1e-12;
  return keepEdge(
    full ? new library.BRepBuilderAPI_MakeEdge(carrier) : new library.BRepBuilderAPI_MakeEdge(carrier, ...ends),
  );
}

/** The whole circle or ellipse, turning the way of the piece. */
function carrierOf(library: Library, scope: DisposalScope, frame: Frame, piece: Round) {
  // a clockwise arc is a counter-clockwise one seen from behind
  const z = piece.sweep > 0 ? frame.z : scale3(frame.z, -1);
  const axisAlong = (x: Vec3) =>
    scope.keep(
      new library.gp_Ax2(
        point(library, scope, toSpace(frame, piece.centre)),
        direction(library, scope, z),
        direction(library, scope, x),
      ),
    );
  if (piece.form === 'arc') return scope.keep(new library.gp_Circ(axisAlong(frame.x), piece.radius));
  const [a, b] = [Math.hypot(...piece.major), Math.hypot(...piece.minor)];
  const [u, v] = a >= b ? piece.major : piece.minor;
  const long: Vec3 = [0, 1, 2].map((k) => u * frame.x[k]! + v * frame.y[k]!) as unknown as Vec3;
  return scope.keep(new library.gp_Elips(axisAlong(long), Math.max(a, b), Math.min(a, b)));
}

/**
 * Bezier spans as one B-spline. Knots are spaced so that the speed goes on over the joints; where the curvature does
 * too, as in a drawn spline, the inner knots become simple ones and the surface over the edge is smooth.
 */
function splineOf(library: Library, scope: DisposalScope, frame: Frame, run: readonly Bezier[]) {
  const places = run.flatMap((piece, k) => [...(k === 0 ? [piece.from] : []), ...piece.inner, piece.to]);
  const poles = scope.keep(new library.NCollection_Array1_gp_Pnt(1, places.length));
  places.forEach((place, k) => poles.SetValue(k + 1, point(library, scope, toSpace(frame, place))));
  const knots = scope.keep(new library.NCollection_Array1_double(1, run.length + 1));
  const counts = scope.keep(new library.NCollection_Array1_int(1, run.length + 1));
  let [knot, width] = [0, 1];
  run.forEach((piece, k) => {
    const before = run[k - 1];
    if (before)
      width *= Math.hypot(...vector(piece.from, piece.inner[0])) / Math.hypot(...vector(before.inner[1], before.to));
    knots.SetValue(k + 1, knot);
    counts.SetValue(k + 1, k === 0 ? 4 : 3);
    knot += width;
  });
  knots.SetValue(run.length + 1, knot);
  counts.SetValue(run.length + 1, 4);
  const curve = scope.keep(new library.Geom_BSplineCurve(poles, knots, counts, 3, false));
  for (let k = run.length; k >= 2; k--) curve.RemoveKnot(k, 1, 1e-7);
  return curve;
}
