import { dot3, toPlane, type Vec2, type Vec3 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { EdgeFacts, SpaceCurve, Topology } from '../kernel-port/index.ts';
import { armsOf, bezierAt, printOfEdge, printOfFace, printOfVertex, type Reference } from '../references/index.ts';
import type { MarkedView, Scene } from './marked.ts';

/** Something that can be picked in a view: what it stands for, and where it is seen, mm on paper. */
export interface Handle {
  readonly view: Id;
  readonly reference: Reference;
  /** A line that is followed, or one place. */
  readonly path: readonly Vec2[];
}

/**
 * The edges and corners of a part as they are seen in a view. A line stands for the flat or round face that is seen as it,
 * which lasts longer than an edge; where there is none, for the edge.
 */
export function handlesIn(view: MarkedView, { topologies }: Scene): Handle[] {
  const flat = (place: Vec3): Vec2 => {
    const [x, y] = toPlane(view.eye, place);
    return [x * view.factor + view.at[0], y * view.factor + view.at[1]];
  };
  return topologies.flatMap((topology) => [
    ...topology.edges.flatMap((edge): Handle[] => {
      const path = tracks(edge).map(flat);
      const isPlace = path.every(([x, y]) => Math.hypot(x - path[0]![0], y - path[0]![1]) < 0.05);
      if (isPlace) return [];
      return [{ view: view.id, reference: standsFor(edge, topology, view.eye.z), path }];
    }),
    ...topology.vertices.map((vertex): Handle => ({
      view: view.id,
      reference: { to: 'vertex', name: vertex.name, print: printOfVertex(vertex) },
      path: [flat(vertex.at)],
    })),
  ]);
}

function standsFor(edge: EdgeFacts, { faces }: Topology, towards: Vec3): Reference {
  const seen = faces.find(({ name, surface }) => {
    if (!edge.faces.includes(name)) return false;
    if (surface.form === 'plane') return edge.curve.form === 'line' && Math.abs(dot3(surface.normal, towards)) < 1e-9;
    return (
      surface.form === 'cylinder' && edge.curve.form === 'circle' && Math.abs(dot3(surface.axis, towards)) > 1 - 1e-9
    );
  });
  if (seen) return { to: 'face', name: seen.name, print: printOfFace(seen) };
  return { to: 'edge', name: edge.name, print: printOfEdge(edge) };
}

const STEPS = 24;

/** Places along an edge, near enough for the eye. */
function tracks({ curve, middle }: EdgeFacts): Vec3[] {
  if (curve.form === 'line') return [curve.from, curve.to];
  if (curve.form === 'free')
    return curve.spans.flatMap((span) => [0, 0.25, 0.5, 0.75, 1].map((t) => bezierAt(span, t)));
  return curve.form === 'helix' ? [middle] : roundTrack(curve);
}

function roundTrack(curve: Extract<SpaceCurve, { form: 'circle' | 'ellipse' }>): Vec3[] {
  const [u, v] = armsOf(curve);
  const { centre, from, to } = curve;
  const angleOf = (place: Vec3) => {
    const arm = [0, 1, 2].map((k) => place[k]! - centre[k]!) as unknown as Vec3;
    return Math.atan2(dot3(arm, v) / dot3(v, v), dot3(arm, u) / dot3(u, u));
  };
  const start = from ? angleOf(from) : 0;
  const sweep = from && to ? (angleOf(to) - start + 4 * Math.PI) % (2 * Math.PI) || 2 * Math.PI : 2 * Math.PI;
  return Array.from({ length: STEPS + 1 }, (_, k): Vec3 => {
    const [c, s] = [Math.cos(start + (sweep * k) / STEPS), Math.sin(start + (sweep * k) / STEPS)];
    return [0, 1, 2].map((i) => centre[i]! + c * u[i]! + s * v[i]!) as unknown as Vec3;
  });
}
