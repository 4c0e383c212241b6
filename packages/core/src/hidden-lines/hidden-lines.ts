import {
  endToEnd,
  distance3,
  dot3,
  compose,
  frameToFrame,
  length3,
  transformPoint,
  sub3,
  transformDirection,
  inverse,
  type Frame,
  type RigidTransform,
  type Pair,
  type Vec3,
} from '../math/index.ts';
import { type SpaceCurve, endsOfCurve, transformCurve } from '../geometry/index.ts';
import type { BodyMesh, EdgeFacts, Topology } from '../kernel-port/index.ts';
import { ORIGIN_PLANES } from '../references/index.ts';
import type { Sign } from '../steps/index.ts';
import { OccluderGrid } from './occluder-grid.ts';
import { flatCurve } from './flat-curve.ts';
import { outlineOf, type Track } from './outlines.ts';
import { placeAt, runsOf } from './runs.ts';
import { pairOf, shellOf, squareOn, type Shell } from './shell.ts';
import { threadLines } from './thread-lines.ts';
import type { DrawnLine, DrawnView } from './views.ts';

/** A body that is looked at: its exact edges and faces, its triangles, and where it stands. */
export interface ViewedBody {
  readonly topology: Topology;
  readonly mesh: BodyMesh;
  readonly transform: RigidTransform;
  /** Which of the bodies it is, or is a piece of. */
  readonly body: number;
  /** The faces that it was cut open at, by name. */
  readonly opened?: ReadonlySet<string>;
  /** Threads on it that are shown by a sign; and whether a place of it was cut away. */
  readonly signs?: readonly Sign[];
  isGone?(place: Vec3): boolean;
}

/**
 * What an eye far away, that looks against the z of its frame, sees of bodies: their edges, and the lines at which their
 * faces turn away from it. What a line looks like is exact, wherever its curve is; where it goes behind something is as
 * exact as the triangles are.
 */
export function drawnView(looked: readonly ViewedBody[], eye: Frame): DrawnView {
  const sights = looked.map((body) => sightOf(body, eye));
  const size = sizeOf(sights);
  const pieces = looked.map(({ topology }) => topology);
  if (size === 0) return { lines: [], pieces, cutFaces: [] };
  const curtain = new OccluderGrid(...together(sights), size);
  const lines = sights.flatMap((sight, piece) =>
    tracksOf(sight, size).flatMap(({ track, turns = [], ...which }) =>
      runsOf(track.places, turns, curtain, SHORTEST * size).flatMap(({ places, hidden }): DrawnLine[] => {
        const curve = track.curve(places);
        return curve ? [{ ...which, hidden, body: sight.body, piece, curve }] : [];
      }),
    ),
  );
  return { lines, pieces, cutFaces: sights.flatMap(cutFacesOf) };
}
/** Stretches shorter than this share of the whole are not told apart from what they lie in. */
const SHORTEST = 3e-4;
/** How far the triangles may lie within what is round, as a share of the whole. */
const FINE = 5e-4;

/** A body as the eye has it. */
interface Sight extends ViewedBody {
  readonly shell: Shell;
  readonly toEye: RigidTransform;
  /** x, y, and height to the eye of each point of the shell. */
  readonly points: Float64Array;
}

function sightOf(looked: ViewedBody, eye: Frame): Sight {
  const shell = shellOf(looked.mesh);
  const toEye = compose(looked.transform, frameToFrame(eye, ORIGIN_PLANES.top));
  const points = new Float64Array(shell.points.length);
  for (const [i, [a, b, c, d]] of toEye.entries())
    for (let k = 0; k < points.length; k += 3)
      points[k + i] = a * shell.points[k]! + b * shell.points[k + 1]! + c * shell.points[k + 2]! + d;
  return { ...looked, shell, toEye, points };
}

/** The diagonal of the box round all, mm. */
function sizeOf(sights: readonly Sight[]): number {
  const [low, high] = [Array<number>(3).fill(Infinity), Array<number>(3).fill(-Infinity)];
  for (const { points } of sights)
    for (let i = 0; i < 3; i++) {
      let [least, most] = [low[i]!, high[i]!];
      for (let k = i; k < points.length; k += 3) {
        const c = points[k]!;
        if (c < least) least = c;
        if (c > most) most = c;
      }
      [low[i], high[i]] = [least, most];
    }
  return low[0] === Infinity ? 0 : Math.hypot(...low.map((c, k) => high[k]! - c));
}

/** All points and triangles. */
function together(sights: readonly Sight[]): [points: Float64Array, triangles: Uint32Array] {
  const count = (of: (sight: Sight) => number) => sights.reduce((sum, sight) => sum + of(sight), 0);
  const points = new Float64Array(count((sight) => sight.points.length));
  const triangles = new Uint32Array(count(({ shell }) => shell.triangles.length));
  let [at, next] = [0, 0];
  for (const { points: own, shell } of sights) {
    points.set(own, at);
    for (const corner of shell.triangles) triangles[next++] = corner + at / 3;
    at += own.length;
  }
  return [points, triangles];
}

interface SortedTrack extends Pick<DrawnLine, 'sort' | 'edge'> {
  readonly track: Track;
  /** Where along its places outlines end on it. */
  readonly turns?: readonly number[];
}

/** All lines of a body: its edges, those that are smooth told apart by whether a face turns away there, and outlines. */
function tracksOf(sight: Sight, size: number): SortedTrack[] {
  const { topology, mesh, toEye } = sight;
  const { byFace, atEdges } = turnsOf(sight);
  const surfaces = new Map(topology.faces.map(({ name, surface }) => [name, surface]));
  const outlines = [...byFace].flatMap(([face, pairs]) => {
    const { name } = mesh.faces[face]!;
    const tracks = endToEnd(pairs).map((chain) =>
      outlineOf(surfaces.get(name)!, placesAt(sight, chain), toEye, FINE * size),
    );
    return onceEach(tracks).map((track) => ({ face: name, track }));
  });
  const endsOn = new Map<string, Vec3[]>();
  for (const { face, track } of outlines) {
    const known = endsOn.get(face);
    if (known) known.push(...ends(track));
    else endsOn.set(face, [...ends(track)]);
  }
  const risers = risersOf(sight);
  const edges = topology.edges.flatMap((edge): SortedTrack[] => {
    const along = alongEdge(sight, edge);
    if (!along || edge.faces.some((face) => risers.has(face))) return [];
    const curve = flatCurve(along.curve);
    const ended = edge.faces.flatMap((face) => endsOn.get(face) ?? []);
    const track = (sort: DrawnLine['sort'], places: readonly Vec3[]): SortedTrack => ({
      ...{ sort, edge: edge.name },
      track: { places, curve },
      turns: ended.flatMap((end) => passedAt(places, end, FINE * size)),
    });
    if (edge.turn !== 'smooth') return [track('sharp', along.places)];
    const { line, places } = along;
    return stretches(line, (a, b) => atEdges.has(pairOf(a, b))).map(({ from, to, is }) =>
      track(is ? 'outline' : 'smooth', from === 0 && to === line.length - 1 ? places : places.slice(from, to + 1)),
    );
  });
  const threads = threadsOn(sight, FINE * size).map((track) => ({ track, sort: 'thread' as const }));
  return [...edges, ...outlines.map(({ track }) => ({ track, sort: 'outline' as const })), ...threads];
}

/** The lines of threads that are left of it. */
function threadsOn({ signs = [], toEye, isGone }: Sight, before: number): Track[] {
  const back = inverse(toEye);
  return signs
    .flatMap((sign) => threadLines(sign, toEye, before))
    .filter(({ places }) => !isGone?.(transformPoint(back, placeAt(places, (places.length - 1) / 2))));
}

/** An edge as the eye has it: its exact curve, and places along it that begin and end where that does. */
function alongEdge(
  sight: Sight,
  edge: EdgeFacts,
): { readonly line: readonly number[]; readonly curve: SpaceCurve; readonly places: readonly Vec3[] } | undefined {
  const line = sight.shell.lines.get(edge.name);
  if (!line || line.length < 2) return undefined;
  const curve = transformCurve(edge.curve, sight.toEye);
  const places = placesAt(sight, line);
  const [first, last] = places[0] === places.at(-1) ? [] : endsOfCurve(curve);
  if (first && last) {
    const isTurned = distance3(first, places[0]!) > distance3(last, places[0]!);
    [places[0], places[places.length - 1]] = isTurned ? [last, first] : [first, last];
  }
  return { line, curve, places };
}

/** Faces of a cut that goes on elsewhere: they are seen edge-on, and nothing is drawn there (ISO 128-3). */
function risersOf({ topology, opened, toEye }: Sight): ReadonlySet<string> {
  const isRiser = ({ name, surface }: Topology['faces'][number]) =>
    opened?.has(name) && surface.form === 'plane' && Math.abs(transformDirection(toEye, surface.normal)[2]) < 1e-6;
  return new Set(topology.faces.filter(isRiser).map(({ name }) => name));
}

/** The rims of the faces at which a body is cut open, but for those that are seen edge-on. */
function cutFacesOf(sight: Sight): DrawnView['cutFaces'] {
  if (!sight.opened) return [];
  const risers = risersOf(sight);
  return [...sight.opened].flatMap((face) => {
    if (risers.has(face)) return [];
    const rims = sight.topology.edges.flatMap((edge) => {
      const along = edge.faces.includes(face) ? alongEdge(sight, edge) : undefined;
      const rim = along && flatCurve(along.curve)(along.places);
      return rim ? [rim] : [];
    });
    return [{ body: sight.body, rims }];
  });
}

/** Without straight tracks that lie on another: triangles that are seen edge-on turn away on both sides. */
const onceEach = (tracks: readonly Track[]): Track[] =>
  tracks.filter(
    ({ places }, k) =>
      places.length > 2 ||
      !tracks.some(
        (other, i) =>
          i !== k &&
          other.places.length === 2 &&
          distance3(...ends(other)) > distance3(...ends({ places })) &&
          places.every((place) => passedAt(other.places, place, SAME).length > 0),
      ),
  );
const ends = ({ places }: Pick<Track, 'places'>) => [places[0]!, places.at(-1)!] as const;
const SAME = 1e-6;

/** Where along places something lies that is near to a way between two of them. */
function passedAt(places: readonly Vec3[], place: Vec3, near: number): number[] {
  return places.slice(1).flatMap((to, k) => {
    const way = sub3(to, places[k]!);
    const share = dot3(sub3(place, places[k]!), way) / dot3(way, way);
    return share >= 0 && share <= 1 && distance3(placeAt(places, k + share), place) < near ? [k + share] : [];
  });
}

/** Places at points; where the last is the first, they are the same object. */
function placesAt({ points }: Sight, along: readonly number[]): Vec3[] {
  const places = along.map((k): Vec3 => [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!]);
  if (along.length > 2 && along[0] === along.at(-1)) places[places.length - 1] = places[0]!;
  return places;
}

/** Where the skin turns away from the eye: within faces, and at edges of the body. What is seen edge-on is turned away. */
function turnsOf({ shell, points }: Sight): {
  readonly byFace: ReadonlyMap<number, Pair[]>;
  readonly atEdges: ReadonlySet<number>;
} {
  const { triangles, meetings, faceOf, lineAt } = shell;
  const front = new Uint8Array(triangles.length / 3);
  for (let k = 0; k < front.length; k++) front[k] = isFront(points, triangles, 3 * k) ? 1 : 0;
  const byFace = new Map<number, Pair[]>();
  const atEdges = new Set<number>();
  for (let k = 0; k < meetings.length; k += 4) {
    const [a, b, t, u] = [meetings[k]!, meetings[k + 1]!, meetings[k + 2]!, meetings[k + 3]!];
    if (front[t] === front[u]) continue;
    if (lineAt.has(pairOf(a, b))) {
      atEdges.add(pairOf(a, b));
      continue;
    }
    const face = faceOf[front[t] ? t : u]!;
    const pairs = byFace.get(face);
    if (pairs) pairs.push([a, b]);
    else byFace.set(face, [[a, b]]);
  }
  return { byFace, atEdges };
}

const EDGE_ON = 1e-5;

function isFront(points: Float64Array, triangles: Uint32Array, k: number): boolean {
  const normal = squareOn(points, triangles, k);
  return normal[2] > EDGE_ON * length3(normal);
}

/** Stretches of a line on which something holds from point to point, or does not: from which point to which. */
function stretches(
  line: readonly number[],
  holds: (a: number, b: number) => boolean,
): { readonly from: number; to: number; readonly is: boolean }[] {
  const found: { readonly from: number; to: number; readonly is: boolean }[] = [];
  for (let k = 1; k < line.length; k++) {
    const is = holds(line[k - 1]!, line[k]!);
    const last = found.at(-1);
    if (last?.is === is) last.to = k;
    else found.push({ from: k - 1, to: k, is });
  }
  return found;
}
