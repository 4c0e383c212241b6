import { distance3, dot3, toPlane, toSpace, type Frame, type Vec2, type Vec3 } from '../../math/index.ts';
import type { Profile } from '../../kernel-port/index.ts';
import { along, lengthOf, nearestParameter, reversed, stretch, type Piece } from '../../sketch/index.ts';

// Which places of the sections of a loft belong together: from a start on each, by shares of the way round.

/** Nearer than this share of the way round two places count as one. */
const SAME = 1e-7;

/**
 * The sections with their outlines begun where they start and divided at the same shares of the way round: each piece of
 * one goes over into the piece with the same place in the others. A start lies on the outline that is nearest to it; an
 * outline without one starts nearest to the start of the section before it. Openings are matched by their order. Round
 * pieces are a quarter turn at most.
 */
export function matched(sections: readonly Profile[], starts: readonly Vec3[]): Profile[] {
  const loopsOf = (pick: (section: Profile) => readonly Piece[]) =>
    matchedLoops(
      sections.map((section) => ({
        frame: section.frame,
        loop: dot3(section.frame.z, sections[0]!.frame.z) < 0 ? turned(pick(section)) : pick(section),
      })),
      starts,
    );
  const outer = loopsOf(({ regions }) => regions[0]!.outer);
  const holes = sections[0]!.regions[0]!.holes.map((_, k) => loopsOf(({ regions }) => regions[0]!.holes[k]!));
  return sections.map((section, k) => {
    const region = { ...section.regions[0]!, outer: outer[k]!, holes: holes.map((loops) => loops[k]!) };
    return { ...section, regions: [region] };
  });
}

interface Loop {
  readonly frame: Frame;
  readonly loop: readonly Piece[];
}

function matchedLoops(loops: readonly Loop[], starts: readonly Vec3[]): Piece[][] {
  const given = new Map<number, Vec3>();
  for (const start of starts) {
    const apart = loops.map((loop) => distance3(nearestPlace(loop, start), start));
    given.set(apart.indexOf(Math.min(...apart)), start);
  }
  const { frame, loop: first } = loops[0]!;
  let before = starts[0] ?? toSpace(frame, first[0]!.from);
  const begun = loops.map((loop, k) => {
    before = nearestPlace(loop, given.get(k) ?? before);
    return quartered(beginning(loop.loop, toPlane(loop.frame, before)));
  });
  const shares = distinct(begun.flatMap(cornersOf));
  return begun.map((pieces) => divided(pieces, shares));
}

const turned = (loop: readonly Piece[]): Piece[] => loop.toReversed().map(reversed);

/** Round pieces in parts of a quarter turn at most. */
const quartered = (loop: readonly Piece[]): Piece[] =>
  loop.flatMap((piece) => {
    const parts = 'sweep' in piece ? Math.ceil(Math.abs(piece.sweep) / (Math.PI / 2) - 1e-9) : 1;
    return inParts(
      piece,
      Array.from({ length: parts - 1 }, (_, k) => (k + 1) / parts),
    );
  });

function nearestPlace({ frame, loop }: Loop, place: Vec3): Vec3 {
  const [piece, t] = nearestOf(loop, toPlane(frame, place));
  return toSpace(frame, along(piece, t));
}

function nearestOf(outline: readonly Piece[], place: Vec2): readonly [Piece, number] {
  const found = outline.map((piece) => [piece, nearestParameter(piece, place)] as const);
  const apart = ([piece, t]: readonly [Piece, number]) => {
    const at = along(piece, t);
    return Math.hypot(at[0] - place[0], at[1] - place[1]);
  };
  return found.reduce((a, b) => (apart(b) < apart(a) ? b : a));
}

/** The same loop from a place of it on; the piece in which that lies is divided. */
function beginning(outline: readonly Piece[], at: Vec2): Piece[] {
  const [piece, t] = nearestOf(outline, at);
  const k = outline.indexOf(piece);
  const rest = [...outline.slice(k + 1), ...outline.slice(0, k)];
  // a whole circle or ellipse begins anywhere
  if (rest.length === 0 && 'sweep' in piece)
    return [{ ...piece, from: at, to: at, start: piece.start + t * piece.sweep }];
  if (t < SAME) return [piece, ...rest];
  if (t > 1 - SAME) return [...rest, piece];
  return [stretch(piece, t, 1, at, piece.to), ...rest, stretch(piece, 0, t, piece.from, at)];
}

/** Where the pieces of a loop begin, as shares of the way round. */
function cornersOf(outline: readonly Piece[]): number[] {
  const whole = total(outline);
  let way = 0;
  return outline.map((piece) => {
    const share = way / whole;
    way += lengthOf(piece);
    return share;
  });
}

const total = (outline: readonly Piece[]): number => outline.reduce((sum, piece) => sum + lengthOf(piece), 0);

const distinct = (shares: readonly number[]): number[] =>
  shares.toSorted((a, b) => a - b).filter((share, k, all) => k === 0 || share - all[k - 1]! > SAME);

/** Every piece divided at the shares that lie within it. */
function divided(outline: readonly Piece[], shares: readonly number[]): Piece[] {
  const whole = total(outline);
  let way = 0;
  return outline.flatMap((piece) => {
    const [from, length] = [way / whole, lengthOf(piece)];
    way += length;
    const inside = shares.filter((share) => share > from + SAME && share < way / whole - SAME);
    return inParts(
      piece,
      inside.map((share) => parameterAt(piece, (share - from) * whole)),
    );
  });
}

/** A piece divided at parameters within it, rising. */
function inParts(piece: Piece, cuts: readonly number[]): Piece[] {
  const ts = [0, ...cuts, 1];
  const at = (t: number): Vec2 => (t === 0 ? piece.from : t === 1 ? piece.to : along(piece, t));
  return ts.slice(1).map((t, k) => stretch(piece, ts[k]!, t, at(ts[k]!), at(t)));
}

/** The parameter of a piece after so much of its length: by bisection, since a Bezier curve does not go evenly. */
function parameterAt(piece: Piece, way: number): number {
  const whole = lengthOf(piece);
  if (piece.form === 'segment' || piece.form === 'arc') return way / whole;
  let [low, high] = [0, 1];
  for (let k = 0; k < 50; k++) {
    const t = (low + high) / 2;
    if (lengthOf(stretch(piece, 0, t, piece.from, along(piece, t))) < way) low = t;
    else high = t;
  }
  return (low + high) / 2;
}
