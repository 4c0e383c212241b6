import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyHandle, BodyMesh, TessellationQuality, NamedRange } from '@helb/core';
import { normalIn } from './facts.ts';
import { flatPatch, loopOf, type Patch, type Polyline } from './flat-mesh.ts';
import { DisposalScope, type Library } from './library.ts';
import type { NamedSolid } from './names.ts';
import { partsOf } from './parts.ts';
import { subShapes } from './shapes.ts';
import { ShapeCache } from './shape-cache.ts';

/** What there is at one quality. */
interface Shelves {
  readonly faces: ShapeCache<Patch>;
  readonly edges: ShapeCache<Polyline>;
}

/**
 * Meshes bodies face by face and keeps the pieces: an edit pays only for the faces that it made. The library triangulates
 * what is curved; flat faces, for which it is slow, are cut into triangles here, between the points that it has put on
 * their edges, so that neighbours fit without a gap.
 */
export class Mesher {
  private readonly shelves = new Map<string, Shelves>();
  private readonly inUse = new Map<BodyHandle, (() => void)[]>();

  constructor(private readonly library: Library) {}

  mesh(body: BodyHandle, solid: NamedSolid, quality: TessellationQuality): BodyMesh {
    const scope = new DisposalScope();
    try {
      return this.meshIn(scope, body, solid, quality);
    } finally {
      scope.close();
    }
  }

  /** Forgets what only this body had. */
  release(body: BodyHandle): void {
    this.inUse.get(body)?.forEach((drop) => drop());
    this.inUse.delete(body);
  }

  private meshIn(scope: DisposalScope, body: BodyHandle, solid: NamedSolid, quality: TessellationQuality): BodyMesh {
    const { library } = this;
    const shelves = this.shelvesFor(quality);
    const { faces, edges } = partsOf(library, solid);
    const fresh = faces.map(({ shape }) => shape).filter((face) => !shelves.faces.get(face));
    const flat = fresh.filter((face) => this.isFlat(scope, face));
    const curved = fresh.filter((face) => !flat.includes(face));
    this.addCurved(scope, shelves, curved, quality);
    for (const face of flat) shelves.faces.put(face, this.flatIn(scope, shelves, face, quality));
    const patches = faces.map(({ name, shape }) => ({ name, patch: shelves.faces.get(shape)! }));
    const lines = edges.map(({ name, shape }) => ({ name, line: this.lineOf(scope, shelves, shape, quality) }));
    this.inUse.set(body, [
      ...(this.inUse.get(body) ?? []),
      shelves.faces.hold(faces.map(({ shape }) => shape)),
      shelves.edges.hold(subShapes(library, scope, solid.shape, 'TopAbs_EDGE')),
    ]);
    return { ...facesOf(patches), ...edgesOf(lines) };
  }

  private shelvesFor({ deflection, angle }: TessellationQuality): Shelves {
    const key = `${deflection} ${angle}`;
    let shelves = this.shelves.get(key);
    if (!shelves) {
      shelves = { faces: new ShapeCache(this.library, 'faces'), edges: new ShapeCache(this.library, 'edges') };
      this.shelves.set(key, shelves);
    }
    return shelves;
  }

  private isFlat(scope: DisposalScope, face: TopoDS_Shape): boolean {
    const surface = scope.keep(new this.library.BRepAdaptor_Surface(scope.keep(this.library.TopoDS.Face(face)), true));
    return surface.GetType() === 'GeomAbs_Plane';
  }

  private flatIn(scope: DisposalScope, shelves: Shelves, face: TopoDS_Shape, quality: TessellationQuality): Patch {
    const loops = subShapes(this.library, scope, face, 'TopAbs_WIRE').map((wire) =>
      loopOf(
        subShapes(this.library, scope, wire, 'TopAbs_EDGE').map((edge) => this.lineOf(scope, shelves, edge, quality)),
      ),
    );
    return flatPatch(loops, normalIn(this.library, scope, face).normal);
  }

  /** An edge that no curved face has brought along is straight, or lies between flat faces that go on into each other. */
  private lineOf(scope: DisposalScope, shelves: Shelves, edge: TopoDS_Shape, quality: TessellationQuality): Polyline {
    const known = shelves.edges.get(edge);
    if (known) return known;
    const curve = scope.keep(new this.library.BRepAdaptor_Curve(scope.keep(this.library.TopoDS.Edge(edge))));
    const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
    const points: number[] = [];
    const add = (place: { X(): number; Y(): number; Z(): number }) => points.push(place.X(), place.Y(), place.Z());
    // corners just as the curved neighbours have them: on the vertices
    if (curve.GetType() === 'GeomAbs_Line')
      for (const vertex of subShapes(this.library, scope, edge, 'TopAbs_VERTEX'))
        add(scope.keep(this.library.BRep_Tool.Pnt(scope.keep(this.library.TopoDS.Vertex(vertex)))));
    else {
      const { angle, deflection } = quality;
      const along = scope.keep(
        new this.library.GCPnts_TangentialDeflection(curve, first, last, angle, deflection, 2, 1e-9, 1e-7),
      );
      for (let k = 1; k <= along.NbPoints(); k++) add(scope.keep(along.Value(k)));
    }
    return shelves.edges.put(edge, new Float32Array(points));
  }

  /** Triangulates curved faces together, with the points on their edges. */
  private addCurved(
    scope: DisposalScope,
    shelves: Shelves,
    faces: readonly TopoDS_Shape[],
    { deflection, angle }: TessellationQuality,
  ): void {
    if (faces.length === 0) return;
    const { library } = this;
    const builder = scope.keep(new library.TopoDS_Builder());
    const sheet = scope.keep(new library.TopoDS_Compound());
    builder.MakeCompound(sheet);
    faces.forEach((face) => builder.Add(sheet, face));
    const triangles = scope.keep(library.ReplicadMeshExtractor.extract(sheet, deflection, angle, false));
    const segments = scope.keep(library.ReplicadEdgeMeshExtractor.extract(sheet, deflection, angle));
    // only now: the memory may have grown, and older views of it are dead
    const memory = library.wasmMemory.buffer;
    const positions = new Float32Array(memory, triangles.getVerticesPtr(), triangles.getVerticesSize());
    const normals = new Float32Array(memory, triangles.getNormalsPtr(), triangles.getNormalsSize());
    const corners = new Uint32Array(memory, triangles.getTrianglesPtr(), triangles.getTrianglesSize());
    const groups = new Int32Array(memory, triangles.getFaceGroupsPtr(), triangles.getFaceGroupsSize());
    const patches = faces.map((_, k) =>
      patchOf(positions, normals, corners.subarray(groups[3 * k], groups[3 * k]! + groups[3 * k + 1]!)),
    );
    const points = new Float32Array(memory, segments.getLinesPtr(), segments.getLinesSize());
    const lines = linesByHash(
      points,
      new Int32Array(memory, segments.getEdgeGroupsPtr(), segments.getEdgeGroupsSize()),
    );
    faces.forEach((face, k) => shelves.faces.put(face, patches[k]!));
    for (const edge of subShapes(library, scope, sheet, 'TopAbs_EDGE')) {
      const line = lines.get(library.ReplicadShapeHasher.HashCode(edge, 2147483647));
      if (line && !shelves.edges.get(edge)) shelves.edges.put(edge, line);
    }
  }
}

/** The corners of one face out of those of many, copied out of WebAssembly memory. Its points lie together. */
function patchOf(positions: Float32Array, normals: Float32Array, corners: Uint32Array): Patch {
  let [low, high] = [Infinity, -1];
  for (const corner of corners) {
    low = Math.min(low, corner);
    high = Math.max(high, corner);
  }
  if (high < 0) return { positions: new Float32Array(), normals: new Float32Array(), triangles: new Uint32Array() };
  const part = (list: Float32Array) => list.slice(3 * low, 3 * (high + 1));
  return { positions: part(positions), normals: part(normals), triangles: corners.map((corner) => corner - low) };
}

/** Edges come as separate segments, inner points doubled, in groups of start, count and hash. */
function linesByHash(points: Float32Array, groups: Int32Array): Map<number, Polyline> {
  const lines = new Map<number, Polyline>();
  for (let at = 0; at < groups.length; at += 3) {
    const [start, count, hash] = groups.subarray(at, at + 3) as unknown as [number, number, number];
    const line = new Float32Array(3 * (count / 2 + 1));
    line.set(points.subarray(3 * start, 3 * start + 3));
    for (let k = 1; k <= count / 2; k++) line.set(points.subarray(3 * (start + 2 * k - 1), 3 * (start + 2 * k)), 3 * k);
    lines.set(hash, line);
  }
  return lines;
}

function facesOf(patches: readonly { readonly patch: Patch; readonly name: string }[]) {
  const total = (of: (patch: Patch) => number) => patches.reduce((sum, { patch }) => sum + of(patch), 0);
  const size = total(({ positions }) => positions.length);
  const [positions, normals] = [new Float32Array(size), new Float32Array(size)];
  const triangles = new Uint32Array(total((patch) => patch.triangles.length));
  const faces: NamedRange[] = [];
  let [at, start] = [0, 0];
  for (const { patch, name } of patches) {
    positions.set(patch.positions, at);
    normals.set(patch.normals, at);
    const first = at / 3;
    patch.triangles.forEach((corner, k) => (triangles[start + k] = corner + first));
    faces.push({ name, start, count: patch.triangles.length });
    at += patch.positions.length;
    start += patch.triangles.length;
  }
  return { positions, normals, triangles, faces };
}

function edgesOf(lines: readonly { readonly line: Polyline; readonly name: string }[]) {
  const segments = (line: Polyline) => 2 * (line.length / 3 - 1);
  const edgePoints = new Float32Array(3 * lines.reduce((sum, { line }) => sum + segments(line), 0));
  const edges: NamedRange[] = [];
  let start = 0;
  for (const { line, name } of lines) {
    const count = segments(line);
    for (let k = 0; k < count / 2; k++) edgePoints.set(line.subarray(3 * k, 3 * k + 6), 3 * (start + 2 * k));
    edges.push({ name, start, count });
    start += count;
  }
  return { edgePoints, edges };
}
