import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add2,
  arcBetween,
  areaShare,
  cross2,
  direction2,
  distance2,
  dot3,
  frameOn,
  fullCircle,
  reversed,
  scale2,
  sub2,
  toPlane,
  toSpace,
  type Frame,
  type Piece,
  type Region,
  type Result,
  type SpaceCurve,
  type Vec2,
} from '@helb/core';
import { combined } from './booleans.ts';
import { edgeShape, faceFacts, normalAt } from './facts.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { lofted } from './lofts.ts';
import type { NamedSolid } from './names.ts';
import { partsOf, type Side } from './parts.ts';
import { extruded } from './extrude-revolve.ts';

// A flat face set off: what lies between it and where it comes to, its sides going on along the faces beside it. Sides that
// stood square on the face instead would leave fins beside it wherever its neighbours lean.

/** An edge of the face in its plane, and by how much its line goes sideways, to the left, once the face has moved. */
interface MovingEdge {
  readonly piece: Piece;
  readonly shift: number;
}
interface MovingLoop {
  readonly pieces: readonly Piece[];
  /** The same loop in the moved plane; absent where nothing of it goes sideways. */
  readonly after?: readonly Piece[];
}

/** A neighbour leans and bends at once: how the face would end there is not known. */
const LEANING = 'offset.leaning';

/**
 * The solid between a flat face and its place at a distance (mm, outwards); undefined where the face is not flat, or all of
 * its neighbours stand square on it. Fails where one of them leans and is not flat, and where no face is left.
 */
export function betweenFaces(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  face: { readonly name: string; readonly shape: TopoDS_Shape },
  distance: number,
): Result<NamedSolid> | undefined {
  const { surface } = faceFacts(library, scope, face.shape);
  if (surface.form !== 'plane') return undefined;
  const frame = frameOn(surface.origin, surface.normal);
  const edges = movingEdges(library, scope, body, face.name, frame, distance);
  if (!edges) return fail(LEANING);
  if (edges.every(({ shift }) => shift === 0)) return undefined;
  const loops = inLoops(edges)?.map(loopOf);
  if (!loops) return fail(LEANING);
  const known = loops.filter((loop): loop is MovingLoop => loop !== undefined);
  if (known.length < loops.length) return fail('offset.face');
  const [outer, ...holes] = known.toSorted((a, b) => Math.abs(areaOf(b.pieces)) - Math.abs(areaOf(a.pieces)));
  return lessHoles(library, scope, solidOf(library, scope, frame, outer!, distance), () =>
    holes.map((hole) => solidOf(library, scope, frame, hole, distance)),
  );
}

function lessHoles(
  library: Library,
  scope: DisposalScope,
  outer: Result<NamedSolid>,
  holes: () => Result<NamedSolid>[],
): Result<NamedSolid> {
  if (!outer.ok) return outer;
  const made = holes();
  const tools = made.flatMap((hole) => (hole.ok ? [hole.value] : []));
  const wrong = made.find((hole) => !hole.ok);
  const cut = wrong ?? (tools.length === 0 ? outer : combined(library, scope, 'cut', [outer.value], tools));
  if (cut !== outer) [outer.value, ...tools].forEach(({ shape }) => shape.delete());
  if (!cut.ok) return cut;
  const [one, ...more] = Array.isArray(cut.value) ? cut.value : [cut.value];
  more.forEach(({ shape }) => shape.delete());
  return one ? ok(one) : fail('offset.face');
}

/** What a loop encloses on the way of the face. */
function solidOf(
  library: Library,
  scope: DisposalScope,
  frame: Frame,
  { pieces, after }: MovingLoop,
  distance: number,
): Result<NamedSolid> {
  const left = areaOf(pieces) > 0;
  const region = (loop: readonly Piece[]): Region => ({
    ...{ key: 'slab', depth: 0, area: 0, holes: [] },
    outer: left ? loop : loop.toReversed().map(reversed),
  });
  if (!after) {
    const [from, to] = distance > 0 ? [0, distance] : [distance, 0];
    const profile = { frame, regions: [region(pieces)] };
    const made = extruded(library, scope, { profile, from, to, step: 'slab' }, () => {
      throw new Error('nothing stops it');
    });
    return made.ok ? ok(made.value[0]!) : made;
  }
  const beyond: Frame = { ...frame, origin: toSpace(frame, [0, 0], distance) };
  const made = lofted(library, scope, {
    ...{ step: 'slab', straight: true, matched: true },
    sections: [
      { frame, regions: [region(pieces)] },
      { frame: beyond, regions: [region(after)] },
    ],
  });
  return made.ok ? ok(made.value[0]!) : made;
}

const areaOf = (loop: readonly Piece[]): number => loop.reduce((sum, piece) => sum + areaShare(piece), 0);

function movingEdges(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  face: string,
  frame: Frame,
  distance: number,
): MovingEdge[] | undefined {
  const edges: MovingEdge[] = [];
  for (const { shape, sides } of partsOf(library, body).edges) {
    if (!sides.some(({ name }) => name === face)) continue;
    const other = sides.find(({ name }) => name !== face);
    const piece = pieceOf(edgeShape(library, scope, shape).curve, frame);
    const shift = other && piece && shiftOf(library, scope, piece, other, frame, distance);
    if (!piece || shift === undefined) return undefined;
    edges.push({ piece, shift });
  }
  return edges;
}

/** A straight or round edge in the plane of the frame. */
function pieceOf(curve: SpaceCurve, frame: Frame): Piece | undefined {
  if (curve.form === 'line')
    return { form: 'segment', entity: 'e', from: toPlane(frame, curve.from), to: toPlane(frame, curve.to) };
  if (curve.form !== 'circle') return undefined;
  const centre = toPlane(frame, curve.centre);
  if (!curve.from || !curve.to) return fullCircle('e', centre, curve.radius);
  const [from, to] = [toPlane(frame, curve.from), toPlane(frame, curve.to)];
  return dot3(curve.axis, frame.z) > 0
    ? arcBetween('e', centre, curve.radius, from, to)
    : reversed(arcBetween('e', centre, curve.radius, to, from));
}

/** By how much an edge goes to its left: 0 where its neighbour stands square on the face; undefined where it is not known. */
function shiftOf(
  library: Library,
  scope: DisposalScope,
  piece: Piece,
  { face, edge }: Side,
  frame: Frame,
  distance: number,
): number | undefined {
  const { surface } = faceFacts(library, scope, face);
  if (surface.form === 'plane' && piece.form === 'segment') {
    const along = direction2(sub2(piece.to, piece.from));
    if (!along) return undefined;
    const left = [0, 1, 2].map((k) => -along[1] * frame.x[k]! + along[0] * frame.y[k]!) as unknown as Frame['x'];
    const [flat, up] = [dot3(surface.normal, left), dot3(surface.normal, frame.z)];
    if (Math.abs(flat) < LEAST) return undefined;
    return Math.abs(up) < LEAST ? 0 : (-up / flat) * distance;
  }
  const isRound = surface.form === 'cylinder' && Math.abs(dot3(surface.axis, frame.z)) > 1 - LEAST;
  const isFree = surface.form === 'free' && piece.form === 'segment';
  if (!isRound && !isFree) return undefined;
  return Math.abs(dot3(normalAt(library, scope, face, edge), frame.z)) < LEAST ? 0 : undefined;
}
const LEAST = 1e-9;

/** Edges end to end, all the same way round; undefined where they do not close. */
function inLoops(edges: readonly MovingEdge[]): MovingEdge[][] | undefined {
  const rest = [...edges];
  const loops: MovingEdge[][] = [];
  while (rest.length > 0) {
    const loop = [rest.shift()!];
    while (distance2(loop[0]!.piece.from, loop.at(-1)!.piece.to) > NEAR) {
      const end = loop.at(-1)!.piece.to;
      const k = rest.findIndex(({ piece }) => distance2(piece.from, end) <= NEAR || distance2(piece.to, end) <= NEAR);
      if (k < 0) return undefined;
      const [{ piece, shift }] = rest.splice(k, 1) as [MovingEdge];
      const forwards = distance2(piece.from, end) <= NEAR;
      loop.push(forwards ? { piece, shift } : { piece: reversed(piece), shift: -shift });
    }
    loops.push(loop);
  }
  return loops;
}
const NEAR = 1e-5;

/** A loop before and after; undefined where a side would vanish, turn over, or go on round one that leans. */
function loopOf(loop: readonly MovingEdge[]): MovingLoop | undefined {
  const pieces = loop.map(({ piece }) => piece);
  if (loop.every(({ shift }) => shift === 0)) return { pieces };
  if (pieces.some(({ form }) => form !== 'segment')) return undefined;
  const corners = loop.map((edge, k) => cornerOf(edge, loop[(k + 1) % loop.length]!));
  if (corners.some((corner) => !corner)) return undefined;
  const after = pieces.map((piece, k): Piece => {
    const [from, to] = [corners[(k + loop.length - 1) % loop.length]!, corners[k]!];
    return { form: 'segment', entity: piece.entity, from, to };
  });
  const turns = after.some(({ from, to }, k) => {
    const [is, was] = [sub2(to, from), sub2(pieces[k]!.to, pieces[k]!.from)];
    return is[0] * was[0] + is[1] * was[1] <= 1e-9;
  });
  return turns ? undefined : { pieces, after };
}

/** Where the lines of two neighbours meet once they have moved. */
function cornerOf(a: MovingEdge, b: MovingEdge): Vec2 | undefined {
  const [u, v] = [a, b].map(({ piece }) => direction2(sub2(piece.to, piece.from))) as [Vec2, Vec2];
  const moved = ({ piece, shift }: MovingEdge, along: Vec2): Vec2 =>
    add2(piece.from, [-along[1] * shift, along[0] * shift]);
  const [p, q] = [moved(a, u), moved(b, v)];
  const across = cross2(u, v);
  // one line in two pieces: both go the same way
  if (Math.abs(across) < 1e-9) return Math.abs(a.shift - b.shift) < 1e-9 ? moved({ ...b }, v) : undefined;
  return add2(p, scale2(u, cross2(sub2(q, p), v) / across));
}
