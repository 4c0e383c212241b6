import { distance3, dot3, toPlane, toSpace, type Vec2, type Vec3 } from '../../math/index.ts';
import type { Profile } from '../../kernel-port/index.ts';
import { along, lengthOf, nearestParameter, reversed, stretch, type Piece } from '../../sketch/index.ts';

// Which places of the sections of a loft belong together: from a start on each, by shares of the way round.

/** Nearer than this share of the way round two places count as one. */
const SAME = 1e-7;

/**
 * The sections with their outlines begun where they start and divided at the same shares of the way round: each piece of
 * one goes over into the piece with the same place in the others. A start lies on the outline that is nearest to it; an
 * outline without one starts nearest to the start of the section before it.
 */
export function matched(sections: readonly Profile[], starts: readonly Vec3[]): Profile[] {
  const outlines = sections.map((section) => outlineLike(section, sections[0]!));
  const given = new Map<number, Vec3>();
  for (const start of starts) {
    const apart = outlines.map((outline, k) => distance3(nearestPlace(sections[k]!, outline, start), start));
    given.set(apart.indexOf(Math.min(...apart)), start);
  }
  let before = starts[0]!;
  const begun = outlines.map((outline, k) => {
    before = nearestPlace(sections[k]!, outline, given.get(k) ?? before);
    return beginning(outline, toPlane(sections[k]!.frame, before));
  });
  const shares = distinct(begun.flatMap(cornersOf));
  return sections.map((section, k) => {
    const [region] = section.regions;
    return { ...section, regions: [{ ...region!, outer: divided(begun[k]!, shares) }] };
  });
}

/** The outline of a section, running the same way round as that of another. */
function outlineLike({ frame, regions }: Profile, first: Profile): readonly Piece[] {
  const { outer } = regions[0]!;
  return dot3(frame.z, first.frame.z) < 0 ? outer.toReversed().map(reversed) : outer;
}

function nearestPlace({ frame }: Profile, outline: readonly Piece[], place: Vec3): Vec3 {
  const [piece, t] = nearestOf(outline, toPlane(frame, place));
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
  const turned = [...outline.slice(k + 1), ...outline.slice(0, k)];
  // a whole circle or ellipse begins anywhere
  if (turned.length === 0 && 'sweep' in piece) return [{ ...piece, from: at, to: at, start: piece.start + t * piece.sweep }];
  if (t < SAME) return [piece, ...turned];
  if (t > 1 - SAME) return [...turned, piece];
  return [stretch(piece, t, 1, at, piece.to), ...turned, stretch(piece, 0, t, piece.from, at)];
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
    const cuts = inside.map((share) => parameterAt(piece, (share - from) * whole));
    const ts = [0, ...cuts, 1];
    const at = (t: number): Vec2 => (t === 0 ? piece.from : t === 1 ? piece.to : along(piece, t));
    return ts.slice(1).map((t, k) => stretch(piece, ts[k]!, t, at(ts[k]!), at(t)));
  });
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
