import { dot3, movedFrame, toPlane, undone, type Vec2, type Vec3 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { EdgeFacts, Topology } from '../kernel-port/index.ts';
import {
  placesAlong,
  printOfEdge,
  printOfFace,
  printOfVertex,
  type BodyReference,
  type Reference,
} from '../references/index.ts';
import type { PlacedView } from './placed-view.ts';
import { onPaper } from './placing.ts';

/** Something that can be picked in a view: what it stands for, and where it is seen, mm on paper. */
export interface Handle {
  readonly view: Id;
  readonly reference: Reference;
  /** A line that is followed, or one place. */
  readonly path: readonly Vec2[];
}

/**
 * The edges and corners of bodies as they lie in a view; of the whole those that are seen, since most are within others. A
 * line stands for the flat or round face that is seen as it, which lasts longer than an edge; where there is none, for the
 * edge.
 */
export function handlesIn(view: PlacedView): Handle[] {
  const { id, bodies, drawn, eye } = view.seen;
  const seen = new Set(drawn.lines.flatMap(({ hidden, body, edge }) => (hidden || !edge ? [] : [`${body} ${edge}`])));
  return bodies.flatMap(({ topology, movement, at }, body) => {
    const own = movedFrame(eye, undone(movement));
    const flat = (place: Vec3): Vec2 => onPaper(view, toPlane(own, place));
    const handle = (on: BodyReference, path: readonly Vec2[]): Handle => ({
      ...{ view: id, path },
      reference: at === undefined ? on : { to: 'other', at, on },
    });
    const edges = at === undefined ? topology.edges : topology.edges.filter(({ name }) => seen.has(`${body} ${name}`));
    const ends = new Set(at === undefined ? [] : edges.flatMap((edge) => edge.ends ?? []));
    return [
      ...edges.flatMap((edge): Handle[] => {
        const path = tracks(edge).map(flat);
        const isPlace = path.every(([x, y]) => Math.hypot(x - path[0]![0], y - path[0]![1]) < 0.05);
        return isPlace ? [] : [handle(standsFor(edge, topology, own.z), path)];
      }),
      ...topology.vertices.flatMap((vertex) =>
        at === undefined || ends.has(vertex.name)
          ? [handle({ to: 'vertex', name: vertex.name, print: printOfVertex(vertex) }, [flat(vertex.at)])]
          : [],
      ),
    ];
  });
}

function standsFor(edge: EdgeFacts, { faces }: Topology, towards: Vec3): BodyReference {
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

/** Of what is round every so many of the places along it are enough for picking. */
const ROUND_STEP = 3;

/** Places along an edge, near enough for the eye. */
function tracks(edge: EdgeFacts): readonly Vec3[] {
  let known = followed.get(edge);
  if (!known) {
    const { curve } = edge;
    const isRound = curve.form === 'circle' || curve.form === 'ellipse';
    followed.set(edge, (known = placesAlong(curve).filter((_, k) => !isRound || k % ROUND_STEP === 0)));
  }
  return known;
}
/** The same in every view. */
const followed = new WeakMap<EdgeFacts, readonly Vec3[]>();
