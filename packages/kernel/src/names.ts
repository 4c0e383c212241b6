import { faceName, numberedBody, pieceBeside, pieceNumber, stepOfFace, withoutNumber } from '@helb/core';
import type { NCollection_List_TopoDS_Shape, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Library, DisposalScope } from './library.ts';
import { areaOf, centreOf } from './measure.ts';
import { members, ShapeMap, subShapes } from './shapes.ts';

/** A solid with its own lasting name and those of its faces, in the order of `subShapes`. */
export interface NamedSolid {
  readonly shape: TopoDS_Shape;
  /** The step that made it first; with a number where that made several. */
  readonly name: string;
  readonly faceNames: readonly string[];
}

/** A face that an operation has made, and what it is called. */
export interface MadeFace {
  readonly face: TopoDS_Shape;
  readonly name: string;
}

/** What an operation tells of the fate of faces. */
export interface FaceHistory {
  Modified(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape;
  IsDeleted(shape: TopoDS_Shape): boolean;
}

/** Carries names through an operation, and gives names of their own to faces and bodies that are called alike then. */
export const carried = (...of: Parameters<typeof carriedOver>): NamedSolid[] =>
  toldApart(of[0], of[1], carriedOver(...of));

/**
 * Carries names through an operation (Capoyleas, Chen, Hoffmann 1996; Kripac 1997): a modified face keeps its name, a
 * face split into pieces leaves it to each of them, and where faces were merged the first name in order stays.
 * @param before what went in; the first ones are those whose names the bodies keep
 * @param made faces that are new
 */
export function carriedOver(
  library: Library,
  scope: DisposalScope,
  before: readonly NamedSolid[],
  history: FaceHistory,
  after: readonly TopoDS_Shape[],
  made: readonly MadeFace[] = [],
): NamedSolid[] {
  const claims = new ShapeMap<Claim[]>(library);
  const claim = (face: TopoDS_Shape, entry: Claim) => claims.set(face, [...(claims.get(face) ?? []), entry]);
  made.forEach(({ face, name }) => claim(face, { name, from: before.length }));
  for (const [from, { shape, faceNames }] of before.entries())
    subShapes(library, scope, shape, 'TopAbs_FACE').forEach((face, k) => {
      const pieces = members(library, scope, scope.keep(history.Modified(face)));
      const name = faceNames[k]!;
      if (pieces.length > 0) pieces.forEach((piece) => claim(piece, { name, from }));
      else if (!history.IsDeleted(face)) claim(face, { name, from });
    });
  const faces = after.map((solid) => subShapes(library, scope, solid, 'TopAbs_FACE'));
  const fallback = made[0]?.name ?? before[0]?.faceNames[0] ?? 'x';
  const unnamed = faceName(stepOfFace(fallback), 'face');
  const owners = faces.map((list) =>
    list.reduce((least, face) => Math.min(least, ...(claims.get(face) ?? []).map(({ from }) => from)), before.length),
  );
  return after.map((shape, k) => ({
    shape,
    name: before[owners[k]!]?.name ?? before[0]!.name,
    faceNames: faces[k]!.map((face) => firstName(claims.get(face)) ?? unnamed),
  }));
}

/**
 * Gives faces and bodies that are called alike names of their own: a piece is told from its siblings by the names of its
 * neighbours, and only among equals by place.
 */
export function toldApart(library: Library, scope: DisposalScope, solids: readonly NamedSolid[]): NamedSolid[] {
  const shapes = solids.map(({ shape }) => shape);
  const faces = shapes.flatMap((shape) => subShapes(library, scope, shape, 'TopAbs_FACE'));
  const faceNames = distinct(
    library,
    scope,
    faces,
    solids.flatMap((solid) => solid.faceNames),
  );
  const names = numberedBodies(
    library,
    scope,
    shapes,
    solids.map(({ name }) => name),
  );
  let at = 0;
  return solids.map((solid, k) => ({
    ...solid,
    name: names[k]!,
    faceNames: solid.faceNames.map(() => faceNames[at++]!),
  }));
}

/** What a face may be called, and from which of the solids before. */
interface Claim {
  readonly name: string;
  readonly from: number;
}

/** Where faces were merged: the name of what was there first stays, of one step the first in order. */
function firstName(claims: readonly Claim[] | undefined): string | undefined {
  const earliest = new Map<string, number>();
  for (const { name, from } of claims ?? [])
    earliest.set(stepOfFace(name), Math.min(from, earliest.get(stepOfFace(name)) ?? from));
  const rank = ({ name }: Claim): number => earliest.get(stepOfFace(name))!;
  return claims?.toSorted((a, b) => rank(a) - rank(b) || (a.name < b.name ? -1 : 1))[0]?.name;
}

/** Bodies of one origin get numbers by place. */
function numberedBodies(
  library: Library,
  scope: DisposalScope,
  solids: readonly TopoDS_Shape[],
  names: readonly string[],
): string[] {
  const base = names.map(withoutNumber);
  return names.map((name, k) => {
    const same = base.flatMap((other, n) => (other === base[k] ? [n] : []));
    if (same.length === 1) return name;
    const places = new Map(same.map((n) => [n, centreOf(library, solids[n]!)]));
    const order = same.toSorted((a, b) => comparePlaces(places.get(a)!, places.get(b)!));
    return numberedBody(base[k]!, order.indexOf(k) + 1);
  });
}

/** A short sign for a long name: the same for the same name (FNV-1a, 32 bits, twice). */
export function signOf(name: string): string {
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (let k = 0; k < name.length; k++) {
    a = Math.imul(a ^ name.charCodeAt(k), 0x01000193);
    b = Math.imul(b ^ name.charCodeAt(name.length - 1 - k), 0x01000193);
  }
  return [a, b].map((half) => (half >>> 0).toString(36)).join('');
}

/** What the inner face of a wall is called, by its outer one. */
export const insideOf = (step: string, face: string): string => faceName(step, 'inside', signOf(face));

/** Makes equal names distinct: by the names of neighbouring faces where these differ, then by place. */
export function distinct(
  library: Library,
  scope: DisposalScope,
  faces: readonly TopoDS_Shape[],
  names: readonly string[],
): string[] {
  const groups = new Map<string, number[]>();
  names.forEach((name, k) => groups.set(name, [...(groups.get(name) ?? []), k]));
  const result = [...names];
  const doubled = [...groups.values()].filter((group) => group.length > 1);
  if (doubled.length === 0) return result;
  const neighbours = neighbourNames(library, scope, faces, names);
  for (const group of doubled) {
    const marks = group.map((k) => neighbours[k]!.join('\n'));
    const isTold = marks.filter((mark, k) => marks.indexOf(mark) === k && mark !== '').length === group.length;
    const byPlace = group.toSorted((a, b) =>
      comparePlaces(areaOf(library, faces[a]!).centre, areaOf(library, faces[b]!).centre),
    );
    for (const k of group)
      result[k] = isTold ? pieceBeside(names[k]!, neighbours[k]!) : pieceNumber(names[k]!, byPlace.indexOf(k) + 1);
  }
  return result;
}

/** For each face the names of its neighbours that not all pieces of the same face have. */
function neighbourNames(
  library: Library,
  scope: DisposalScope,
  faces: readonly TopoDS_Shape[],
  names: readonly string[],
): string[][] {
  const facesOfEdge = new ShapeMap<number[]>(library);
  const edges = faces.map((face) => subShapes(library, scope, face, 'TopAbs_EDGE'));
  edges.forEach((list, k) => list.forEach((edge) => facesOfEdge.set(edge, [...(facesOfEdge.get(edge) ?? []), k])));
  const around = edges.map(
    (list, k) =>
      new Set(
        list
          .flatMap((edge) => facesOfEdge.get(edge)!)
          .filter((other) => other !== k)
          .map((other) => names[other]!),
      ),
  );
  return around.map((set, k) => {
    const siblings = around.filter((_, other) => other !== k && names[other] === names[k]);
    return [...set].filter((name) => !siblings.every((sibling) => sibling.has(name))).sort();
  });
}

/** x before y before z, differences below a micrometre do not count. */
export function comparePlaces(a: readonly number[], b: readonly number[]): number {
  const k = a.findIndex((coordinate, i) => Math.abs(coordinate - b[i]!) > 1e-3);
  return k < 0 ? 0 : a[k]! - b[k]!;
}
