import type { TopoDS_Edge, TopoDS_Face } from 'replicad-opencascadejs';
import { type ChamferRequest, type Result, isFaceOf } from '@helb/core';
import { finished, madeFrom, named } from './local-operations.ts';
import { edgeShape, faceFacts, normalAt } from './facts.ts';
import { fail, type Library, type DisposalScope } from './library.ts';
import { areaOf } from './measure.ts';
import type { NamedSolid } from './names.ts';
import { drop, partsOf } from './parts.ts';
import { subShapes } from './shapes.ts';
import { turnBetween } from './topology.ts';

/**
 * Cuts edges off flat. Where inner and outer edges meet, and another edge there stays sharp, the library fills the corner
 * with a sheet that bulges at will: there the inner edges are filled first, and the outer ones cut off after that.
 */
export function chamfered(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ChamferRequest,
): Result<NamedSolid> {
  const inner = request.edges.filter((name) => isInner(library, scope, body, name));
  const outer = request.edges.filter((name) => !inner.includes(name));
  const isMixed = inner.length > 0 && outer.length > 0;
  const once = chamferedOnce(library, scope, body, request);
  if (once.ok && hasClearCorners(library, scope, once.value, request, isMixed ? 0 : LARGEST_CORNER)) return once;
  if (once.ok) drop(once.value);
  if (!isMixed) return once.ok ? fail('chamfer.corner') : once;
  const filled = chamferedOnce(library, scope, body, { ...request, edges: inner });
  const twice = filled.ok ? chamferedOnce(library, scope, filled.value, { ...request, edges: outer }) : filled;
  if (filled.ok) drop(filled.value);
  if (twice.ok && hasClearCorners(library, scope, twice.value, request, LARGEST_CORNER)) return twice;
  if (twice.ok) drop(twice.value);
  return once.ok ? fail('chamfer.corner') : once;
}

function chamferedOnce(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ChamferRequest,
): Result<NamedSolid> {
  const { edges, faces, vertices } = partsOf(library, body);
  const found = named(edges, request.edges, 'edge');
  if (!found.ok) return found;
  const maker = scope.keep(new library.BRepFilletAPI_MakeChamfer(body.shape));
  for (const [k, shape] of found.value.entries()) {
    const edge: TopoDS_Edge = scope.keep(library.TopoDS.Edge(shape));
    if (maker.Contour(edge) > 0) continue;
    const of = edges.find(({ name }) => name === request.edges[k])!;
    const first = of.faces[request.onSecond?.includes(of.name) ? 1 : 0];
    const face: TopoDS_Face = scope.keep(library.TopoDS.Face(faces.find(({ name }) => name === first)!.shape));
    if (request.angle !== undefined) maker.AddDA(request.distance, request.angle, edge, face);
    else if (request.other !== undefined) maker.Add(request.distance, request.other, edge, face);
    else maker.Add(request.distance, edge);
  }
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('chamfer.size');
  const made = [
    ...madeFrom(library, scope, maker, edges, [request.step, 'bevel']),
    ...madeFrom(library, scope, maker, vertices.all, [request.step, 'corner']),
  ];
  return finished(library, scope, body, maker, scope.keep(maker.Shape()), made);
}

/** Is no corner between flat bevels a free sheet that is larger than so many squares of their size? */
function hasClearCorners(
  library: Library,
  scope: DisposalScope,
  { shape, faceNames }: NamedSolid,
  { step, distance, other = 0, angle = 0 }: ChamferRequest,
  largest: number,
): boolean {
  const size = Math.max(distance, other, distance * Math.tan(angle));
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE').map((face, k) => ({ face, name: faceNames[k]! }));
  const isFlat = (face: (typeof faces)[number]) => faceFacts(library, scope, face.face).surface.form === 'plane';
  const own = (role: string) => faces.filter(({ name }) => isFaceOf(name, step, role));
  return (
    !own('bevel').every(isFlat) ||
    own('corner').every((corner) => isFlat(corner) || areaOf(library, corner.face).area < largest * size ** 2)
  );
}
/** Corners of outer edges only, or of inner ones only, are smaller: that of a cube has 0.87. */
const LARGEST_CORNER = 1.5;

function isInner(library: Library, scope: DisposalScope, body: NamedSolid, name: string): boolean {
  const edge = partsOf(library, body).edges.find((other) => other.name === name);
  if (!edge) return false;
  const { along } = edgeShape(library, scope, edge.shape);
  return turnBetween(edge.sides, along, (side) => normalAt(library, scope, side.face, side.edge)) === 'inner';
}
