import { distance2, sub2, type Vec2 } from '../../math/index.ts';
import {
  along,
  boxesOverlap,
  boxOf,
  inTurn,
  leaving,
  lengthOf,
  intersections,
  reversed,
  stretch,
  type Piece,
} from '../pieces/index.ts';

/** A piece in one of its two directions; the area it bounds lies to its left. */
export interface HalfEdge {
  readonly piece: Piece;
  readonly from: number;
  readonly to: number;
  readonly twin: number;
  /** Number of the connected figure that it belongs to. */
  readonly figure: number;
}

/** The plane graph of all curves split at their meetings. */
interface Arrangement {
  readonly places: readonly Vec2[];
  readonly halfEdges: readonly HalfEdge[];
  /** Ends that meet nothing. */
  readonly openEnds: readonly { readonly at: Vec2; readonly entity: string }[];
}

/** Splits the curves at all meetings, merges ends that lie within `tolerance`, drops doubled and dangling pieces. */
export function arrange(curves: readonly Piece[], tolerance: number): Arrangement {
  const places = new Places(tolerance);
  const pieces = unique(splitAll(curves, places, tolerance), places);
  const { kept, openEnds } = withoutOpenEnds(pieces, places);
  return withoutBridges(assembled(kept, places, openEnds), places);
}

function assembled(pieces: readonly Piece[], places: Places, openEnds: Arrangement['openEnds']): Arrangement {
  const ends = pieces.map((piece) => [places.index(piece.from), places.index(piece.to)] as const);
  const figureOf = figures(ends, places.list.length);
  const halfEdges = pieces.flatMap((piece, k): HalfEdge[] => {
    const [from, to] = ends[k]!;
    const figure = figureOf[from]!;
    return [
      { piece, from, to, figure, twin: 2 * k + 1 },
      { piece: reversed(piece), from: to, to: from, figure, twin: 2 * k },
    ];
  });
  return { places: places.list, halfEdges, openEnds };
}

/** A piece with the same face on both sides bounds nothing, like a line from the rim to a hole: it is left out. */
function withoutBridges(arrangement: Arrangement, places: Places): Arrangement {
  const { halfEdges, openEnds } = arrangement;
  const loopOf = new Map<HalfEdge, number>();
  faces(arrangement).forEach((loop, k) => loop.forEach((edge) => loopOf.set(edge, k)));
  const forward = halfEdges.filter((_, k) => k % 2 === 0);
  const bounding = forward.filter((edge) => loopOf.get(edge) !== loopOf.get(halfEdges[edge.twin]!));
  if (bounding.length === forward.length) return arrangement;
  return assembled(
    bounding.map(({ piece }) => piece),
    places,
    openEnds,
  );
}

/** Follows the boundary with the face on the left: at each place the next half-edge clockwise from where we came. */
export function faces({ halfEdges, places }: Arrangement): HalfEdge[][] {
  const leavingAt: number[][] = places.map(() => []);
  halfEdges.forEach((edge, k) => leavingAt[edge.from]!.push(k));
  const rank = new Map<number, { at: number; ring: number[] }>();
  for (const ring of leavingAt) {
    const ahead = aheadOf(ring.map((edge) => halfEdges[edge]!.piece));
    const angles = new Map(ring.map((edge) => [edge, inTurn(ahead(halfEdges[edge]!.piece))]));
    ring.sort((a, b) => angles.get(a)! - angles.get(b)!);
    ring.forEach((edge, at) => rank.set(edge, { at, ring }));
  }
  const seen = new Uint8Array(halfEdges.length);
  const loops: HalfEdge[][] = [];
  for (let first = 0; first < halfEdges.length; first++) {
    if (seen[first]) continue;
    const loop: HalfEdge[] = [];
    for (let edge = first; !seen[edge];) {
      seen[edge] = 1;
      loop.push(halfEdges[edge]!);
      const { at, ring } = rank.get(halfEdges[edge]!.twin)!;
      edge = ring[(at - 1 + ring.length) % ring.length]!;
    }
    loops.push(loop);
  }
  return loops;
}

/** Numbers the connected figures: a label for each place, spread along the edges. */
function figures(ends: readonly (readonly [number, number])[], places: number): Int32Array {
  const neighbours: number[][] = Array.from({ length: places }, () => []);
  for (const [a, b] of ends) {
    neighbours[a]!.push(b);
    neighbours[b]!.push(a);
  }
  const label = new Int32Array(places).fill(-1);
  for (let first = 0; first < places; first++) {
    const queue = label[first] === -1 ? [first] : [];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      if (label[at] !== -1) continue;
      label[at] = first;
      queue.push(...neighbours[at]!);
    }
  }
  return label;
}

/**
 * Pieces that leave one place in counter-clockwise order: by where they cross a circle round it that all of them reach.
 * They do not cross each other on the way there; in which direction each leaves would tell as well, but not where curves
 * touch, since there it is not known so exactly.
 */
function aheadOf(ring: readonly Piece[]): (piece: Piece) => number {
  const far = (piece: Piece) => Math.max(...[0.25, 0.5, 0.75, 1].map((t) => distance2(along(piece, t), piece.from)));
  const radius = ring.length > 2 ? Math.min(...ring.map(far)) / 2 : 0;
  return (piece) => {
    if (radius === 0 || piece.form === 'segment') return leaving(piece);
    let k = 1;
    while (k < STEPS && distance2(along(piece, k / STEPS), piece.from) < radius) k++;
    const [x, y] = sub2(along(piece, crossedAt(piece, radius, (k - 1) / STEPS, k / STEPS)), piece.from);
    return Math.atan2(y, x);
  };
}
const STEPS = 32;

/** Where between two parameters a piece is just so far from its start. */
function crossedAt(piece: Piece, radius: number, low: number, high: number): number {
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    if (distance2(along(piece, middle), piece.from) < radius) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Places on a grid of cells, so that ends near each other become one. */
class Places {
  readonly list: Vec2[] = [];
  private readonly cells = new Map<string, number[]>();

  constructor(private readonly tolerance: number) {}

  index(place: Vec2): number {
    const [i, j] = place.map((c) => Math.floor(c / (this.tolerance * 4))) as [number, number];
    for (let di = -1; di <= 1; di++)
      for (let dj = -1; dj <= 1; dj++)
        for (const known of this.cells.get(`${i + di},${j + dj}`) ?? [])
          if (distance2(this.list[known]!, place) <= 2 * this.tolerance) return known;
    const index = this.list.push(place) - 1;
    const cell = this.cells.get(`${i},${j}`);
    if (cell) cell.push(index);
    else this.cells.set(`${i},${j}`, [index]);
    return index;
  }

  snapped = (place: Vec2): Vec2 => this.list[this.index(place)]!;
}

function splitAll(curves: readonly Piece[], places: Places, tolerance: number): Piece[] {
  const cuts: number[][] = curves.map(() => [0, 1]);
  const boxes = curves.map(boxOf);
  for (let i = 0; i < curves.length; i++)
    for (let k = i + 1; k < curves.length; k++) {
      if (!boxesOverlap(boxes[i]!, boxes[k]!, tolerance)) continue;
      for (const { t, u } of intersections(curves[i]!, curves[k]!, tolerance)) {
        cuts[i]!.push(t);
        cuts[k]!.push(u);
      }
    }
  return curves.flatMap((curve, i) => {
    const ordered = [...new Set(cuts[i])].sort((a, b) => a - b);
    return ordered.slice(1).flatMap((t1, k) => {
      const t0 = ordered[k]!;
      const piece = stretch(curve, t0, t1, places.snapped(along(curve, t0)), places.snapped(along(curve, t1)));
      return lengthOf(piece) <= 2 * tolerance ? [] : [piece];
    });
  });
}

/** Of pieces that lie on each other one is kept. */
function unique(pieces: readonly Piece[], places: Places): Piece[] {
  const seen = new Set<string>();
  return pieces.filter((piece) => {
    const ends = [places.index(piece.from), places.index(piece.to)].sort((a, b) => a - b);
    const key = [...ends, places.index(along(piece, 0.5))].join(',');
    return !seen.has(key) && seen.add(key);
  });
}

/** Takes away pieces with an end that meets nothing, again and again; the first such ends are the open ends. */
function withoutOpenEnds(pieces: readonly Piece[], places: Places) {
  const meeting = new Map<number, Set<Piece>>();
  const ends = (piece: Piece) => [places.index(piece.from), places.index(piece.to)] as const;
  for (const piece of pieces)
    for (const end of ends(piece)) meeting.set(end, (meeting.get(end) ?? new Set()).add(piece));
  // a closed piece meets itself: its one place is no end
  const isOpen = (end: number) => {
    const here = [...(meeting.get(end) ?? [])];
    return here.length === 1 && ends(here[0]!)[0] !== ends(here[0]!)[1];
  };
  const queue = [...meeting.keys()].filter(isOpen);
  const openEnds = queue.map((end) => ({ at: places.list[end]!, entity: [...meeting.get(end)!][0]!.entity }));
  for (let end = queue.pop(); end !== undefined; end = queue.pop()) {
    if (!isOpen(end)) continue;
    const [piece] = meeting.get(end)!;
    for (const other of ends(piece!)) {
      meeting.get(other)!.delete(piece!);
      if (isOpen(other)) queue.push(other);
    }
  }
  const kept = pieces.filter((piece) => meeting.get(places.index(piece.from))!.has(piece));
  return { kept, openEnds };
}
