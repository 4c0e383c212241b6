import {
  cross3,
  direction3,
  dot3,
  scale3,
  type BodyHandle,
  type EdgeFacts,
  type FaceFacts,
  type Frame,
  type Topology,
  type Turn,
  type Vec3,
} from '@helb/core';
import { edgeShape, faceFacts, middleOf, normalAt, type EdgeShape } from './facts.ts';
import { DisposalScope, type Library } from './library.ts';
import type { NamedSolid } from './names.ts';
import { numbered, partsOf, type Side } from './parts.ts';
import { plane } from './profile.ts';
import { ShapeMap, subShapes } from './shapes.ts';
import { ShapeCache } from './shape-cache.ts';

/** Tells of bodies by their lasting names, with exact geometry; what bodies have in common is found out once. */
export class TopologyReader {
  private readonly faces: ShapeCache<Omit<FaceFacts, 'name'>>;
  private readonly edges: ShapeCache<EdgeShape>;
  private readonly inUse = new Map<BodyHandle, () => void>();

  constructor(private readonly library: Library) {
    this.faces = new ShapeCache(library, 'faces');
    this.edges = new ShapeCache(library, 'edges');
  }

  /** Faces, edges and vertices. Seams are left out. */
  topology(body: BodyHandle, solid: NamedSolid): Topology {
    const { library } = this;
    const scope = new DisposalScope();
    const { faces, edges, vertices } = partsOf(library, solid);
    const facts = new Map(
      faces.map(({ name, shape }): [string, FaceFacts] => [
        name,
        { name, ...(this.faces.get(shape) ?? this.faces.put(shape, faceFacts(library, scope, shape))) },
      ]),
    );
    const topology: Topology = {
      name: solid.name,
      faces: [...facts.values()],
      edges: edges.map(({ name, shape, faces: meeting, sides }): EdgeFacts => {
        const edge = this.edges.get(shape) ?? this.edges.put(shape, edgeShape(library, scope, shape));
        const [from, to] = edge.ends.map(vertices.nameAt);
        const turn = turnBetween(sides, edge.along, (side) => {
          const { surface } = facts.get(side.name)!;
          return surface.form === 'plane' ? surface.normal : normalAt(library, scope, side.face, side.edge);
        });
        return {
          name,
          faces: meeting,
          curve: edge.curve,
          ...(from !== undefined && to !== undefined ? { ends: [from, to] as const } : {}),
          length: edge.length,
          middle: edge.middle,
          ...(turn ? { turn } : {}),
        };
      }),
      vertices: vertices.all.map(({ name, at }) => ({ name, at })),
    };
    const drops = [this.faces.hold(faces.map(({ shape }) => shape)), this.edges.hold(edges.map(({ shape }) => shape))];
    this.release(body);
    this.inUse.set(body, () => drops.forEach((drop) => drop()));
    scope.close();
    return topology;
  }

  /** Forgets what only this body had. */
  release(body: BodyHandle): void {
    this.inUse.get(body)?.();
    this.inUse.delete(body);
  }
}

/**
 * Whether the way from one face over an edge to the other goes down or up: seen along the edge, with outside above.
 * @param along the direction of the edge where the normals are taken
 */
export function turnBetween(
  [first, second]: readonly Side[],
  along: Vec3,
  normal: (side: Side) => Vec3,
): Turn | undefined {
  if (!first || !second) return undefined;
  const forth = direction3(first.edge.Orientation() === 'TopAbs_REVERSED' ? scale3(along, -1) : along);
  if (!forth) return undefined;
  // into the first face, square to the edge; the face lies left of it
  const rise = dot3(cross3(normal(first), forth), normal(second));
  if (Math.abs(rise) < SMOOTH) return 'smooth';
  return rise < 0 ? 'outer' : 'inner';
}

/** The sine of the angle, below which two faces go on into each other. */
const SMOOTH = 1e-4;

/** The curves in which a plane crosses a body, named by the faces that they lie on. */
export function crossingOf(library: Library, solid: NamedSolid, frame: Frame): EdgeFacts[] {
  const scope = new DisposalScope();
  const section = scope.keepCleared(new library.BRepAlgoAPI_Section(solid.shape, plane(library, scope, frame), false));
  section.Build(scope.keep(new library.Message_ProgressRange()));
  const { faces, sidesAt } = partsOf(library, solid);
  const names = new ShapeMap<string>(library);
  faces.forEach(({ name, shape }) => names.set(shape, name));
  const edges = subShapes(library, scope, scope.keep(section.Shape()), 'TopAbs_EDGE').map((edge) => {
    const face = scope.keep(new library.TopoDS_Shape());
    // where the plane goes along a seam or an edge of the body, that edge itself is found
    const known = section.HasAncestorFaceOn1(edge, face) ? names.get(face) : firstName(sidesAt.get(edge));
    return { edge, face: known ?? '' };
  });
  const labels = numbered(
    edges.map(({ face }) => face),
    (k) => middleOf(library, scope, edges[k]!.edge),
  );
  const found = edges.map(({ edge, face }, k): EdgeFacts => {
    const { curve, length, middle } = edgeShape(library, scope, edge);
    return { name: labels[k]!, faces: [face], curve, length, middle };
  });
  scope.close();
  return found.filter(({ faces: [face] }) => face !== '');
}

const firstName = (sides: readonly Side[] | undefined): string | undefined => sides?.map(({ name }) => name).sort()[0];
