import { dot3, transformFrame, toPlane, inverse, type Vec2, type Vec3 } from '../math/index.ts';
import { placesAlong, centreOfCurve } from '../geometry/index.ts';
import { once, type Id } from '../records/index.ts';
import type { EdgeFacts, Topology } from '../kernel-port/index.ts';
import {
  fingerprintOfEdge,
  fingerprintOfFace,
  fingerprintOfVertex,
  type Fingerprint,
  type Reference,
} from '../references/index.ts';
import type { DrawnView } from '../hidden-lines/index.ts';
import { runsWithin } from './clip.ts';
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
 * The edges and corners of bodies as they lie in a view; of the whole, and from a corner, those that are seen, of a detail
 * what of them lies in its circle. A line stands for the flat or round face that is seen as it, which lasts longer than an
 * edge; where there is none, for the edge.
 */
export function handlesIn({ seen, circle, ...placing }: PlacedView): Handle[] {
  const { id, view, bodies, drawn, eye } = seen;
  return bodies.flatMap(({ topology, transform, at }, body) => {
    const own = transformFrame(eye, inverse(transform));
    const flat = (place: Vec3): Vec2 => onPaper(placing, toPlane(own, place));
    const handle = (to: Named, name: string, path: readonly Vec2[]): Handle[] => {
      const print = printsIn(topology).get(`${to} ${name}`);
      // what a cut has made is of no body
      if (!print) return [];
      const on = { to, name, print };
      const reference: Reference = at === undefined ? on : { to: 'other', at, on };
      return (circle ? runsWithin(path, circle) : [path]).map((run) => ({ view: id, path: run, reference }));
    };
    const shown = at === undefined && view.kind !== 'corner' ? [topology] : seenPieces(drawn, body);
    return shown.flatMap((piece) => [
      ...piece.edges.flatMap((edge): Handle[] => {
        const path = tracks(edge).map(flat);
        const isPlace = path.every(([x, y]) => Math.hypot(x - path[0]![0], y - path[0]![1]) < 0.05);
        return isPlace ? [] : handle(...standsFor(edge, piece, own.z), path);
      }),
      ...piece.vertices.flatMap(({ name, at: place }) => handle('vertex', name, [flat(place)])),
    ]);
  });
}

type Named = 'face' | 'edge' | 'vertex';

/** Of the pieces of a body the edges that are seen, with the corners at their ends. */
function seenPieces({ lines, pieces }: DrawnView, body: number): Topology[] {
  const names = new Map<number, Set<string>>();
  for (const { hidden, body: of, piece, edge } of lines) {
    if (hidden || of !== body || edge === undefined) continue;
    const known = names.get(piece);
    if (known) known.add(edge);
    else names.set(piece, new Set([edge]));
  }
  return [...names].map(([piece, seen]) => {
    const { vertices, edges, ...rest } = pieces[piece]!;
    const shown = edges.filter(({ name }) => seen.has(name));
    const ends = new Set(shown.flatMap((edge) => edge.ends ?? []));
    return { ...rest, edges: shown, vertices: vertices.filter(({ name }) => ends.has(name)) };
  });
}

/** What everything of a body looks like, by what it is and how it is called. */
const printsIn = once(
  ({ faces, edges, vertices }: Topology): ReadonlyMap<string, Fingerprint> =>
    new Map([
      ...faces.map((face) => [`face ${face.name}`, fingerprintOfFace(face)] as const),
      ...edges.map((edge) => [`edge ${edge.name}`, fingerprintOfEdge(edge)] as const),
      ...vertices.map((vertex) => [`vertex ${vertex.name}`, fingerprintOfVertex(vertex)] as const),
    ]),
);

function standsFor(edge: EdgeFacts, { faces }: Topology, towards: Vec3): [to: Named, name: string] {
  const seen = faces.find(({ name, surface }) => {
    if (!edge.faces.includes(name)) return false;
    if (surface.form === 'plane') return edge.curve.form === 'line' && Math.abs(dot3(surface.normal, towards)) < 1e-9;
    return (
      surface.form === 'cylinder' && edge.curve.form === 'circle' && Math.abs(dot3(surface.axis, towards)) > 1 - 1e-9
    );
  });
  return seen ? ['face', seen.name] : ['edge', edge.name];
}

/** Of what is round every so many of the places along it are enough for picking. */
const ROUND_STEP = 3;

/** Places along an edge, near enough for the eye. */
const tracks = once(({ curve }: EdgeFacts): readonly Vec3[] => {
  const isRound = centreOfCurve(curve) !== undefined;
  return placesAlong(curve).filter((_, k) => !isRound || k % ROUND_STEP === 0);
});
