import type { NCollection_List_TopoDS_Shape, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Library, Scope } from './library.ts';
import { members, ShapeMap, subShapes } from './shapes.ts';

/** A solid with the lasting names of its faces, in the order of `subShapes`. */
export interface NamedSolid {
  readonly shape: TopoDS_Shape;
  readonly faceNames: readonly string[];
}

/** What an operation tells of the fate of faces. */
export interface FaceHistory {
  Modified(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape;
  IsDeleted(shape: TopoDS_Shape): boolean;
}

/**
 * Carries names through an operation (Capoyleas, Chen, Hoffmann 1996; Kripac 1997): a modified face keeps its name, a
 * face split into pieces keeps it with a discriminator, and where faces were merged the first name in order stays.
 * A piece is told from its siblings by the names of its neighbours, and only among equals by place.
 */
export function carried(
  library: Library,
  scope: Scope,
  before: readonly NamedSolid[],
  history: FaceHistory,
  after: readonly TopoDS_Shape[],
): NamedSolid[] {
  const claims = new ShapeMap<string[]>(library);
  const claim = (face: TopoDS_Shape, name: string) => claims.set(face, [...(claims.get(face) ?? []), name]);
  for (const { shape, faceNames } of before)
    subShapes(library, scope, shape, 'TopAbs_FACE').forEach((face, k) => {
      const pieces = members(library, scope, scope.keep(history.Modified(face)));
      if (pieces.length > 0) pieces.forEach((piece) => claim(piece, faceNames[k]!));
      else if (!history.IsDeleted(face)) claim(face, faceNames[k]!);
    });
  const faces = after.map((solid) => subShapes(library, scope, solid, 'TopAbs_FACE'));
  const base = faces.map((list) => list.map((face) => claims.get(face)?.toSorted()[0] ?? 'unnamed'));
  const final = distinct(library, scope, faces.flat(), base.flat());
  let at = 0;
  return after.map((shape, k) => ({ shape, faceNames: faces[k]!.map(() => final[at++]!) }));
}

/** Makes equal names distinct: by the names of neighbouring faces where these differ, then by place. */
export function distinct(
  library: Library,
  scope: Scope,
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
    const marks = group.map((k) => neighbours[k]!);
    const unique = marks.filter((mark, k) => marks.indexOf(mark) === k && mark !== '').length === group.length;
    const byPlace = group.toSorted((a, b) =>
      comparePlaces(placeOf(library, scope, faces[a]!), placeOf(library, scope, faces[b]!)),
    );
    group.forEach((k, n) => (result[k] = unique ? `${names[k]}@${marks[n]}` : `${names[k]}#${byPlace.indexOf(k) + 1}`));
  }
  return result;
}

/** For each face the names of its neighbours that not all pieces of the same face have. */
function neighbourNames(
  library: Library,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  names: readonly string[],
): string[] {
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
    return [...set]
      .filter((name) => !siblings.every((sibling) => sibling.has(name)))
      .sort()
      .join('&');
  });
}

function placeOf(library: Library, scope: Scope, face: TopoDS_Shape): readonly number[] {
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.SurfaceProperties(face, properties, false, false);
  const centre = scope.keep(properties.CentreOfMass());
  return [centre.X(), centre.Y(), centre.Z()];
}

/** x before y before z, differences below a micrometre do not count. */
export function comparePlaces(a: readonly number[], b: readonly number[]): number {
  const k = a.findIndex((coordinate, i) => Math.abs(coordinate - b[i]!) > 1e-3);
  return k < 0 ? 0 : a[k]! - b[k]!;
}
