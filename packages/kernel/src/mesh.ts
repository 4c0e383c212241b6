import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { formatAmount, type BodyMesh, type Fineness, type NamedRange } from '@helb/core';
import { Scope, type Library } from './library.ts';
import type { NamedSolid } from './names.ts';
import { ShapeMap, subShapes } from './shapes.ts';

/** Triangles with one range a face and edge segments with one range an edge, copied out of WebAssembly memory. */
export function meshOf(library: Library, { shape, faceNames }: NamedSolid, { deflection, angle }: Fineness): BodyMesh {
  const scope = new Scope();
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE');
  const triangles = scope.keep(library.ReplicadMeshExtractor.extract(shape, deflection, angle, false));
  const segments = scope.keep(library.ReplicadEdgeMeshExtractor.extract(shape, deflection, angle));
  // only now: the memory may have grown, and older views of it are dead
  const memory = library.wasmMemory.buffer;
  const groups = new Int32Array(memory, triangles.getFaceGroupsPtr(), triangles.getFaceGroupsSize());
  const edgeGroups = new Int32Array(memory, segments.getEdgeGroupsPtr(), segments.getEdgeGroupsSize());
  const edges = subShapes(library, scope, shape, 'TopAbs_EDGE');
  const edgeNames = namesOfEdges(library, scope, faces, faceNames, edges);
  const mesh: BodyMesh = {
    positions: new Float32Array(memory, triangles.getVerticesPtr(), triangles.getVerticesSize()).slice(),
    normals: new Float32Array(memory, triangles.getNormalsPtr(), triangles.getNormalsSize()).slice(),
    triangles: new Uint32Array(memory, triangles.getTrianglesPtr(), triangles.getTrianglesSize()).slice(),
    faces: ranges(groups, (k) => ({ name: faceNames[k]!, words: faceWords(library, scope, faces[k]!) })),
    ...realEdges(
      new Float32Array(memory, segments.getLinesPtr(), segments.getLinesSize()),
      rangesByShape(library, edgeGroups, edges, edgeNames, (edge) => edgeWords(library, scope, edge)),
    ),
  };
  scope.close();
  return mesh;
}

/** Groups come as triples start, count, hash. */
function ranges(groups: Int32Array, describe: (k: number) => Pick<NamedRange, 'name' | 'words'>): NamedRange[] {
  const found: NamedRange[] = [];
  for (let at = 0; at < groups.length; at += 3)
    found.push({ ...describe(at / 3), start: groups[at]!, count: groups[at + 1]! });
  return found;
}

/** Edges without length (poles, seams that are left out) have no group: matched by hash, in order. */
function rangesByShape(
  library: Library,
  groups: Int32Array,
  edges: readonly TopoDS_Shape[],
  names: readonly string[],
  words: (edge: TopoDS_Shape) => string,
): NamedRange[] {
  const hashes = edges.map((edge) => library.ReplicadShapeHasher.HashCode(edge, 2147483647));
  const found: NamedRange[] = [];
  for (let at = 0; at < groups.length; at += 3) {
    const k = hashes.indexOf(groups[at + 2]!);
    if (k >= 0) found.push({ name: names[k]!, words: words(edges[k]!), start: groups[at]!, count: groups[at + 1]! });
  }
  return found;
}

/** Leaves out seams: where a round face meets only itself there is nothing to see or to pick. */
function realEdges(points: Float32Array, all: readonly NamedRange[]): Pick<BodyMesh, 'edgePoints' | 'edges'> {
  const kept = all.filter(({ name }) => name.includes(' | '));
  const edgePoints = new Float32Array(3 * kept.reduce((sum, { count }) => sum + count, 0));
  let at = 0;
  const edges = kept.map((range) => {
    edgePoints.set(points.subarray(3 * range.start, 3 * (range.start + range.count)), 3 * at);
    const moved = { ...range, start: at };
    at += range.count;
    return moved;
  });
  return { edgePoints, edges };
}

/** An edge is named by the two faces that meet there; several between the same two by their order. */
function namesOfEdges(
  library: Library,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  faceNames: readonly string[],
  edges: readonly TopoDS_Shape[],
): string[] {
  const meeting = new ShapeMap<string[]>(library);
  faces.forEach((face, k) => {
    for (const edge of subShapes(library, scope, face, 'TopAbs_EDGE'))
      meeting.set(edge, [...(meeting.get(edge) ?? []), faceNames[k]!]);
  });
  const plain = edges.map((edge) => (meeting.get(edge) ?? []).sort().join(' | '));
  return plain.map((name, k) => {
    const same = plain.filter((other) => other === name).length;
    return same === 1 ? name : `${name}#${plain.slice(0, k + 1).filter((other) => other === name).length}`;
  });
}

function faceWords(library: Library, scope: Scope, face: TopoDS_Shape): string {
  const surface = scope.keep(new library.BRepAdaptor_Surface(library.TopoDS.Face(face), true));
  const kind = surface.GetType();
  if (kind === 'GeomAbs_Plane') return 'flat';
  if (kind === 'GeomAbs_Cylinder') return `round ⌀${formatAmount(2 * scope.keep(surface.Cylinder()).Radius())}`;
  return 'curved';
}

function edgeWords(library: Library, scope: Scope, edge: TopoDS_Shape): string {
  const curve = scope.keep(new library.BRepAdaptor_Curve(library.TopoDS.Edge(edge)));
  if (curve.GetType() === 'GeomAbs_Circle') return `rim ⌀${formatAmount(2 * scope.keep(curve.Circle()).Radius())}`;
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.LinearProperties(edge, properties, false, false);
  return `${curve.GetType() === 'GeomAbs_Line' ? 'straight' : 'curved'} ${formatAmount(properties.Mass())}`;
}
