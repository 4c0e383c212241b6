import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  arcBetween,
  areaShare,
  cross3,
  direction3,
  distance3,
  dot3,
  frameOn,
  reversed,
  scale3,
  sub3,
  toPlane,
  type Frame,
  type Piece,
  type Result,
  type Vec2,
  type Vec3,
  faceName,
} from '@helb/core';
import { combined } from './booleans.ts';
import { vec } from './edges.ts';
import { edgeShape, faceFacts, normalAt, placeOfVertex } from './facts.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { volumeOf } from './measure.ts';
import { signOf, type NamedSolid } from './names.ts';
import { partsOf, type Parts } from './parts.ts';
import { subShapes } from './shapes.ts';
import { extruded } from './extrude-revolve.ts';

// Rounds that the library is not asked for: of straight outer edges between flat faces, where an opening or a step of the
// outline lies within the round. It breaks over some of these. Cutting the corner off needs nothing of it but a cut.

type Edge = Parts['edges'][number];

interface Side {
  readonly face: string;
  /** Out of the face, and into it square to the edge. */
  readonly normal: Vec3;
  readonly into: Vec3;
}

/** A straight outer edge between two flat faces, that ends square on flat faces. */
export interface Corner {
  readonly name: string;
  readonly from: Vec3;
  readonly along: Vec3;
  readonly length: number;
  readonly sides: readonly [Side, Side];
  /** Half the angle between the faces, rad. */
  readonly half: number;
  /** The flat faces at its beginning and at its end; does the body end there? */
  readonly ends: readonly { readonly face: string; readonly isFree: boolean }[];
}

/** An edge that is to be rounded. */
interface Rounded {
  readonly name: string;
  readonly radius: number;
  readonly to?: number;
}

/** Of the edges that are to be rounded those that can be cut off, and whether something is in the way of the ball there. */
export function cornersOf(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  edges: readonly Rounded[],
): { readonly corner: Corner; readonly isCrowded: boolean }[] {
  const parts = partsOf(library, body);
  const chosen = parts.edges.filter(({ name }) => edges.some((edge) => edge.name === name));
  return chosen.flatMap((edge) => {
    const { radius, to } = edges.find(({ name }) => name === edge.name)!;
    const corner = to === undefined ? cornerOf(library, scope, parts, edge, chosen) : undefined;
    if (!corner) return [];
    const { along, length, sides, half, ends } = corner;
    const reach = radius / Math.tan(half);
    const seen = sides.map(({ face, into }) => seenOn(library, scope, parts, corner, face, [along, into]));
    // somewhere it has to come out on both faces
    if (!seen.every((lines) => SHARES.some((share) => isInside(lines, [share * length, reach])))) return [];
    const centre = scale3(direction3(add3(sides[0].into, sides[1].into))!, radius / Math.sin(half));
    const across = frameOn([0, 0, 0], along, sides[0].into);
    const [cx, cy] = toPlane(across, centre);
    const goes = ([x, y]: Vec2) =>
      [sides[0].into, sides[1].into].every((into) => {
        const off = x * dot3(across.x, into) + y * dot3(across.y, into);
        return off > NEAR && off < reach - NEAR;
      }) && Math.hypot(x - cx, y - cy) > radius + NEAR;
    const capped = ends.map(({ face }) => seenOn(library, scope, parts, corner, face, [across.x, across.y]));
    const isCrowded = seen.some((lines) => lines.some(within(length, reach))) || capped.flat(2).some(goes);
    return [{ corner, isCrowded }];
  });
}
const SHARES = Array.from({ length: 15 }, (_, k) => (k + 0.5) / 15);

/** What the tool that cuts a corner off is called, and its round face. */
const TOOL = 'corner';
const ROUND = faceName(TOOL, 'side', 'round');

/** The body with a corner cut off round; its round face is called after the edge. */
export function cutFillet(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  corner: Corner,
  radius: number,
  step: string,
): Result<NamedSolid> {
  const { from, along, length, sides, half, ends } = corner;
  const [a, b] = sides;
  const frame: Frame = frameOn(from, along, a.into);
  const flat = (at: Vec3): Vec2 => toPlane(frame, at);
  const reach = radius / Math.tan(half);
  const out = radius / 4;
  const on = (side: Side, off: number) => flat(add3(from, add3(scale3(side.into, reach), scale3(side.normal, off))));
  const middle = direction3(add3(a.into, b.into))!;
  const beyond = flat(add3(from, scale3(middle, -out / Math.sin(half))));
  const centre = flat(add3(from, scale3(middle, radius / Math.sin(half))));
  // from the one face round the corner outside of the body to the other, and back along the round
  const corners = [on(a, 0), on(a, out), beyond, on(b, out), on(b, 0)];
  const lines = corners.slice(1).map((to, k): Piece => ({ form: 'segment', entity: `${k}`, from: corners[k]!, to }));
  const [start, end] = [corners.at(-1)!, corners[0]!];
  const inner = arcBetween('round', centre, radius, start, end);
  const arc = inner.sweep < Math.PI ? inner : reversed(arcBetween('round', centre, radius, end, start));
  const loop: Piece[] = [...lines, arc];
  const isLeft = loop.reduce((sum, piece) => sum + areaShare(piece), 0) > 0;
  const region = {
    key: 'corner',
    depth: 0,
    area: 0,
    holes: [],
    outer: isLeft ? loop : loop.toReversed().map(reversed),
  };
  const margin = ends.map(({ isFree }) => (isFree ? out : 0));
  const range = { from: -margin[0]!, to: length + margin[1]! };
  const made = extruded(library, scope, { profile: { frame, regions: [region] }, ...range, step: TOOL }, () => {
    throw new Error('nothing stops it');
  });
  if (!made.ok) return made;
  const [tool] = made.value as [NamedSolid];
  const name = faceName(step, 'round', signOf(corner.name));
  const faceNames = tool.faceNames.map((face) => (face === ROUND ? name : faceName(step, face)));
  const cut = combined(library, scope, 'cut', [body], [{ ...tool, faceNames }]);
  tool.shape.delete();
  if (!cut.ok) return cut;
  const [one, ...more] = cut.value;
  const isCut = one && volumeOf(library, one.shape) < volumeOf(library, body.shape) * (1 - 1e-9);
  if (isCut && more.length === 0) return ok(one);
  cut.value.forEach(({ shape }) => shape.delete());
  return fail('round.size');
}

function cornerOf(
  library: Library,
  scope: DisposalScope,
  parts: Parts,
  { name, shape, sides }: Edge,
  chosen: readonly Edge[],
): Corner | undefined {
  const { curve } = edgeShape(library, scope, shape);
  if (curve.form !== 'line' || sides.length !== 2) return undefined;
  const way = sub3(curve.to, curve.from);
  const along = direction3(way);
  if (!along || sides.some(({ face }) => faceFacts(library, scope, face).surface.form !== 'plane')) return undefined;
  const [a, b] = sides.map(({ name: face, face: of, edge }): Side => {
    const normal = normalAt(library, scope, of, edge);
    const forth = edgeShape(library, scope, edge).along;
    const into = direction3(cross3(normal, edge.Orientation() === 'TopAbs_REVERSED' ? scale3(forth, -1) : forth))!;
    return { face, normal, into };
  }) as [Side, Side];
  // outer: each face falls away behind the other
  if (dot3(a.normal, b.into) > -1e-6) return undefined;
  const ends = [curve.from, curve.to].map((place, k) => {
    const others = parts.faces.filter(
      (face) => face.name !== a.face && face.name !== b.face && touches(library, scope, face.shape, place),
    );
    const beside = chosen.filter((edge) => edge.name !== name && touches(library, scope, edge.shape, place));
    const [end, ...more] = others;
    if (!end || more.length > 0 || beside.length > 0) return undefined;
    const { surface } = faceFacts(library, scope, end.shape);
    if (surface.form !== 'plane' || Math.abs(dot3(surface.normal, along)) < 1 - 1e-9) return undefined;
    return { face: end.name, isFree: dot3(surface.normal, along) > 0 === (k === 1) };
  });
  if (ends.includes(undefined)) return undefined;
  return {
    ...{ name, along, from: curve.from, length: Math.hypot(...way), sides: [a, b] },
    half: Math.acos(Math.max(-1, Math.min(1, dot3(a.into, b.into)))) / 2,
    ends: ends as Corner['ends'],
  };
}

const touches = (library: Library, scope: DisposalScope, shape: TopoDS_Shape, place: Vec3): boolean =>
  subShapes(library, scope, shape, 'TopAbs_VERTEX').some(
    (vertex) => distance3(placeOfVertex(library, scope, vertex), place) < 1e-7,
  );

type Line = readonly Vec2[];
/** In how many steps a bent edge is followed. */
const STEPS = 24;

/** The edges of a face but for the corner itself, by two directions from where the corner begins. */
function seenOn(
  library: Library,
  scope: DisposalScope,
  { edges }: Parts,
  corner: Pick<Corner, 'name' | 'from'>,
  face: string,
  [x, y]: readonly [Vec3, Vec3],
): Line[] {
  return edges
    .filter(({ name, faces }) => name !== corner.name && faces.includes(face))
    .map(({ shape }): Line => {
      const curve = scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(shape))));
      const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
      return Array.from({ length: STEPS + 1 }, (_, k) => {
        const way = sub3(vec(scope.keep(curve.Value(first + (k / STEPS) * (last - first)))), corner.from);
        return [dot3(way, x), dot3(way, y)];
      });
    });
}

/** Does a line come into the strip beside a corner? */
const within =
  (length: number, reach: number) =>
  (line: Line): boolean =>
    line.some(([u, v]) => u > NEAR && u < length - NEAR && v < reach - NEAR);
const NEAR = 1e-6;

/** Does a place lie in the face? Counted by how often its edges are crossed on the way out. */
const isInside = (lines: readonly Line[], [u, v]: Vec2): boolean =>
  lines.reduce((count, line) => {
    const crossed = line.slice(1).filter((to, k) => {
      const from = line[k]!;
      if (from[0] > u === to[0] > u) return false;
      return from[1] + ((u - from[0]) / (to[0] - from[0])) * (to[1] - from[1]) > v;
    });
    return count + crossed.length;
  }, 0) %
    2 ===
  1;
