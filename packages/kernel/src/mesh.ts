import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyMesh, Fineness, NamedRange } from '@helb/core';
import { Scope, type Library } from './library.ts';
import type { NamedSolid } from './names.ts';
import { namedParts } from './topology.ts';

/** Triangles with one range a face and edge segments with one range an edge, copied out of WebAssembly memory. */
export function meshOf(library: Library, solid: NamedSolid, { deflection, angle }: Fineness): BodyMesh {
  const scope = new Scope();
  const { shape } = solid;
  const { faces, edges } = namedParts(library, scope, solid);
  const triangles = scope.keep(library.ReplicadMeshExtractor.extract(shape, deflection, angle, false));
  const segments = scope.keep(library.ReplicadEdgeMeshExtractor.extract(shape, deflection, angle));
  // only now: the memory may have grown, and older views of it are dead
  const memory = library.wasmMemory.buffer;
  const groups = new Int32Array(memory, triangles.getFaceGroupsPtr(), triangles.getFaceGroupsSize());
  const edgeGroups = new Int32Array(memory, segments.getEdgeGroupsPtr(), segments.getEdgeGroupsSize());
  const mesh: BodyMesh = {
    positions: new Float32Array(memory, triangles.getVerticesPtr(), triangles.getVerticesSize()).slice(),
    normals: new Float32Array(memory, triangles.getNormalsPtr(), triangles.getNormalsSize()).slice(),
    triangles: new Uint32Array(memory, triangles.getTrianglesPtr(), triangles.getTrianglesSize()).slice(),
    faces: ranges(groups, (k) => faces[k]!.name),
    ...realEdges(
      new Float32Array(memory, segments.getLinesPtr(), segments.getLinesSize()),
      rangesByShape(library, edgeGroups, edges),
    ),
  };
  scope.close();
  return mesh;
}

/** Groups come as triples start, count, hash. */
function ranges(groups: Int32Array, nameOf: (k: number) => string): NamedRange[] {
  const found: NamedRange[] = [];
  for (let at = 0; at < groups.length; at += 3)
    found.push({ name: nameOf(at / 3), start: groups[at]!, count: groups[at + 1]! });
  return found;
}

/** Edges without length have no group and seams no name: matched by hash. */
function rangesByShape(
  library: Library,
  groups: Int32Array,
  edges: readonly { readonly name: string; readonly shape: TopoDS_Shape }[],
): NamedRange[] {
  const names = new Map(
    edges.map(({ name, shape }) => [library.ReplicadShapeHasher.HashCode(shape, 2147483647), name]),
  );
  const found: NamedRange[] = [];
  for (let at = 0; at < groups.length; at += 3) {
    const name = names.get(groups[at + 2]!);
    if (name !== undefined) found.push({ name, start: groups[at]!, count: groups[at + 1]! });
  }
  return found;
}

/** The points of the edges that have a name, packed. */
function realEdges(points: Float32Array, kept: readonly NamedRange[]): Pick<BodyMesh, 'edgePoints' | 'edges'> {
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
