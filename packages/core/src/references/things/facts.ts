import { transformPoint, type RigidTransform } from '../../math/index.ts';
import { transformCurve, transformSurface } from '../../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology, VertexFacts } from '../../kernel-port/index.ts';

// Faces, edges and vertices elsewhere, under their own names. All transforms are without reflection.

/** A face elsewhere. */
export const transformFace = (face: FaceFacts, by: RigidTransform): FaceFacts => ({
  ...face,
  surface: transformSurface(face.surface, by),
  centre: transformPoint(by, face.centre),
});

/** An edge elsewhere. */
export const transformEdge = (edge: EdgeFacts, by: RigidTransform): EdgeFacts => ({
  ...edge,
  curve: transformCurve(edge.curve, by),
  middle: transformPoint(by, edge.middle),
});

/** A vertex elsewhere. */
export const transformVertex = (vertex: VertexFacts, by: RigidTransform): VertexFacts => ({
  ...vertex,
  at: transformPoint(by, vertex.at),
});

/** A body in the space of another part. */
export const transformTopology = ({ name, faces, edges, vertices }: Topology, by: RigidTransform): Topology => ({
  name,
  faces: faces.map((face) => transformFace(face, by)),
  edges: edges.map((edge) => transformEdge(edge, by)),
  vertices: vertices.map((vertex) => transformVertex(vertex, by)),
});
