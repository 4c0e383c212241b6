import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { type Vec3, edgeName, numberedEdge, vertexName } from '@helb/core';
import { middleOf, placeOfVertex } from './facts.ts';
import { DisposalScope, type Library } from './library.ts';
import { comparePlaces, type NamedSolid } from './names.ts';
import { ShapeMap, subShapes } from './shapes.ts';

/** A face that an edge bounds, and the edge as it runs round that face: counter-clockwise seen from outside. */
export interface Side {
  readonly name: string;
  readonly face: TopoDS_Shape;
  readonly edge: TopoDS_Shape;
}

interface NamedEdge {
  readonly name: string;
  readonly shape: TopoDS_Shape;
  /** Sorted. */
  readonly faces: readonly string[];
  readonly sides: readonly Side[];
}

export type Parts = ReturnType<typeof namedParts>;

const known = new WeakMap<NamedSolid, { readonly scope: DisposalScope; readonly parts: Parts }>();

/** The sub-shapes of a body that is held, with their names; found once. */
export function partsOf(library: Library, solid: NamedSolid): Parts {
  const found = known.get(solid);
  if (found) return found.parts;
  const scope = new DisposalScope();
  const parts = namedParts(library, scope, solid);
  known.set(solid, { scope, parts });
  return parts;
}

/** Lets a solid go that nobody holds, with what is known of it. */
export function drop(solid: NamedSolid): void {
  forgetParts(solid);
  solid.shape.delete();
}

/** To be called when a body goes. */
export function forgetParts(solid: NamedSolid): void {
  known.get(solid)?.scope.close();
  known.delete(solid);
}

/** An edge is named by the faces that meet there, a vertex by all of its faces. */
function namedParts(library: Library, scope: DisposalScope, { shape, faceNames }: NamedSolid) {
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE').map((face, k) => ({
    name: faceNames[k]!,
    shape: face,
  }));
  const ofEdge = new ShapeMap<Side[]>(library);
  const ofVertex = new ShapeMap<Set<string>>(library);
  for (const { name, shape: face } of faces) {
    for (const edge of subShapes(library, scope, face, 'TopAbs_EDGE'))
      ofEdge.set(edge, [...(ofEdge.get(edge) ?? []), { name, face, edge }]);
    for (const vertex of subShapes(library, scope, face, 'TopAbs_VERTEX'))
      ofVertex.set(vertex, (ofVertex.get(vertex) ?? new Set()).add(name));
  }
  // where a round face meets only itself there is nothing to see or to pick
  const real = subShapes(library, scope, shape, 'TopAbs_EDGE').filter((edge) => ofEdge.get(edge)!.length > 1);
  const facesOf = real.map((edge) =>
    ofEdge
      .get(edge)!
      .map(({ name }) => name)
      .sort(),
  );
  const edgeNames = numbered(facesOf.map(edgeName), (k) => middleOf(library, scope, real[k]!));
  const edges = real.map((edge, k): NamedEdge => ({
    name: edgeNames[k]!,
    shape: edge,
    faces: facesOf[k]!,
    sides: ofEdge.get(edge)!,
  }));
  return { faces, edges, vertices: namedVertices(library, scope, shape, ofVertex), sidesAt: ofEdge };
}

function namedVertices(library: Library, scope: DisposalScope, shape: TopoDS_Shape, ofVertex: ShapeMap<Set<string>>) {
  // a vertex of two faces only lies on a seam: nobody sees a corner there
  const corners = subShapes(library, scope, shape, 'TopAbs_VERTEX').filter((vertex) => ofVertex.get(vertex)!.size > 2);
  const places = corners.map((vertex) => placeOfVertex(library, scope, vertex));
  const names = numbered(
    corners.map((vertex) => vertexName([...ofVertex.get(vertex)!])),
    (k) => places[k]!,
  );
  const all = corners.map((vertex, k) => ({ name: names[k]!, at: places[k]!, shape: vertex }));
  const byPlace = new Map(all.map(({ name, at }) => [at.join(), name]));
  return { all, nameAt: (place: Vec3): string | undefined => byPlace.get(place.join()) };
}

/** Equal names get a number by place, x before y before z. */
export function numbered(names: readonly string[], place: (k: number) => Vec3): string[] {
  const groups = new Map<string, number[]>();
  names.forEach((name, k) => groups.set(name, [...(groups.get(name) ?? []), k]));
  const result = [...names];
  for (const [name, group] of groups) {
    if (group.length === 1) continue;
    const places = new Map(group.map((k) => [k, place(k)]));
    group
      .toSorted((a, b) => comparePlaces(places.get(a)!, places.get(b)!))
      .forEach((k, n) => (result[k] = numberedEdge(name, n + 1)));
  }
  return result;
}
