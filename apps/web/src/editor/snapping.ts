import {
  along,
  cross2,
  derivatives,
  direction2,
  distance2,
  footOnLine2,
  intersections,
  isBuiltIn,
  middle2,
  nearestOn,
  ORIGIN,
  X_AXIS,
  Y_AXIS,
  type Geometry,
  type Id,
  type Piece,
  type Vec2,
} from '@helb/core';
import type { Anchor, Apart } from './placing.ts';

/** Where the pointer is taken to be, and what is guessed from it. */
export interface Snap {
  readonly place: Vec2;
  /** An existing point to be used as it is. */
  readonly point?: Id;
  /** A curve on which the new point shall lie. */
  readonly on?: Id;
  /** Another curve that crosses it there. */
  readonly also?: Id;
  /** A line in whose middle the new point shall lie. */
  readonly middleOf?: Id;
  /** The line from the last point is kept level or upright. */
  readonly level?: 'horizontal' | 'vertical';
  /** The place is level with, or above or below, existing points. */
  readonly aligned?: readonly Alignment[];
  /** The arc that ends there has turned by a quarter: its end is level with its centre, or above or below it. */
  readonly quarter?: 'horizontal' | 'vertical';
  /** Its typed distances from a point. */
  readonly apart?: readonly Apart[];
}

interface Alignment {
  readonly kind: 'horizontal' | 'vertical';
  readonly point: Id;
  readonly from: Vec2;
}

export interface SnapQuery {
  /** What places line up with, if not with all. */
  readonly drawn?: Geometry;
  readonly at: Vec2;
  /** How near counts, mm. */
  readonly reach: number;
  /** Hold all guesses off. */
  readonly free: boolean;
  /** Lines that are only seen: a place is taken from them, and nothing is held there. */
  readonly underlay?: readonly (readonly Vec2[])[];
  /** Lines that nothing is drawn to. */
  readonly helpers?: ReadonlySet<Id>;
  /** Where a line would begin: level and upright are guessed from it. */
  readonly from?: Vec2;
  /** The point that was touched last, and those where a chain and its arc began: places line up with them however far they are. */
  readonly anchor?: Anchor | undefined;
  readonly begun?: readonly Anchor[];
}

/** The best guess for a place: a point, the middle of a line, a curve, level with the last point; else the place itself. */
export function snap(geometry: Geometry, query: SnapQuery): Snap {
  const { at, reach, free, from, drawn = geometry, underlay = [], helpers = new Set() } = query;
  const point = nearest(pointIds(geometry), (id) => distance2(geometry.point(id), at), reach);
  // an existing point is no guess: it is what was clicked
  if (point) return { place: geometry.point(point), point };
  if (free) return { place: at };
  const curves = [...curveIds(geometry).filter((id) => !helpers.has(id)), X_AXIS, Y_AXIS];
  const crossing = crossingNear(geometry, curves, at, reach);
  if (crossing) return crossing;
  const lines = Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) === 'line' && !helpers.has(id));
  const middle = nearest(lines, (id) => distance2(middleOf(geometry, id), at), reach);
  if (middle) return { place: middleOf(geometry, middle), middleOf: middle };
  const level = from && levelOf(from, at, reach);
  const on = nearest(curves, (id) => distance2(footOn(geometry, id, at), at), reach);
  const near: Near = { geometry, drawn, at, reach, from, anchor: query.anchor, begun: query.begun ?? [] };
  if (on) return onCurve(near, on, level);
  const under = nearestOnLines(underlay, at, reach);
  if (under) return { place: under };
  const place: Vec2 = level ? (level === 'horizontal' ? [at[0], from[1]] : [from[0], at[1]]) : at;
  return withAlignments(near, { place, ...(level ? { level } : {}) });
}

/** Where two curves cross near a place. */
function crossingNear(geometry: Geometry, curves: readonly Id[], at: Vec2, reach: number): Snap | undefined {
  const near = curves.filter((id) => distance2(footOn(geometry, id, at), at) <= reach);
  const found = near.flatMap((on, k) =>
    near
      .slice(k + 1)
      .flatMap((also) =>
        crossings(piecesOf(geometry, on), piecesOf(geometry, also)).map((place) => ({ place, on, also })),
      ),
  );
  const within = found.filter(({ place }) => distance2(place, at) <= reach);
  return within.toSorted((a, b) => distance2(a.place, at) - distance2(b.place, at))[0];
}

/** Not where they lie on each other, or touch: that is no place of its own. */
const crossings = (some: readonly Piece[], others: readonly Piece[]): Vec2[] =>
  some.flatMap((one) =>
    others.flatMap((other) =>
      intersections(one, other, SAME_mm).flatMap(({ t, u }) => (isAcross(one, t, other, u) ? [along(one, t)] : [])),
    ),
  );

const nearestPlace = (places: readonly Vec2[], at: Vec2, reach: number): Vec2 | undefined =>
  places.filter((place) => distance2(place, at) <= reach).toSorted((a, b) => distance2(a, at) - distance2(b, at))[0];

function isAcross(one: Piece, t: number, other: Piece, u: number): boolean {
  const [p, q] = [direction2(derivatives(one, t)[0]), direction2(derivatives(other, u)[0])];
  return p !== undefined && q !== undefined && Math.abs(cross2(p, q)) > ACROSS;
}
/** The sine of the smallest angle at which curves cross clearly. */
const ACROSS = 0.05;

/** Axes are as long as anything that is drawn. */
const piecesOf = (geometry: Geometry, id: Id): readonly Piece[] => {
  const [x, y]: Vec2 = id === X_AXIS ? [ENDLESS_mm, 0] : [0, ENDLESS_mm];
  return isBuiltIn(id) ? [{ form: 'segment', entity: id, from: [-x, -y], to: [x, y] }] : geometry.pieces(id);
};
const [SAME_mm, TIE_mm, ENDLESS_mm] = [1e-6, 1e-9, 1e5];

/** The place on lines that is nearest to another, where one is within reach. */
function nearestOnLines(lines: readonly (readonly Vec2[])[], at: Vec2, reach: number): Vec2 | undefined {
  let best: Vec2 | undefined;
  let least = reach;
  for (const line of lines)
    for (let k = 1; k < line.length; k++) {
      const foot = nearestOn({ form: 'segment', entity: '', from: line[k - 1]!, to: line[k]! }, at);
      const apart = distance2(foot, at);
      if (apart <= least) [best, least] = [foot, apart];
    }
  return best;
}

/** How far an alignment reaches, in reaches of the pointer: farther points would fill the sheet with guesses. */
const FAR = 40;

export const COORDINATE = { vertical: 0, horizontal: 1 } as const;
export const KINDS = ['vertical', 'horizontal'] as const;
type Kind = (typeof KINDS)[number];

/** The point that was touched last, that where the chain began, else the nearest, that is nearly level with a place or above or below it. */
function alignedWith({ drawn, reach, from, anchor, begun }: Near, kind: Kind, at: Vec2): Alignment | undefined {
  const k = COORDINATE[kind];
  const isLevel = (place: Vec2, farthest: number) => {
    const apart = distance2(place, at);
    const own = from && distance2(place, from) < 1e-9;
    return Math.abs(place[k] - at[k]) <= reach / 2 && !own && apart > 2 * reach && apart < farthest;
  };
  const endless = [anchor, ...begun].find((one) => one && one.id !== ORIGIN && isLevel(one.at, Infinity));
  if (endless) return { kind, point: endless.id, from: endless.at };
  const near = pointIds(drawn).filter((id) => id !== ORIGIN && isLevel(drawn.point(id), FAR * reach));
  const point = nearest(near, (id) => distance2(drawn.point(id), at), Infinity);
  return point === undefined ? undefined : { kind, point, from: drawn.point(point) };
}

/** Takes over the height and the upright of points that have nearly the same; what is level already stays. */
function withAlignments(near: Near, snap: Snap): Snap {
  let [x, y] = snap.place;
  const aligned: Alignment[] = [];
  for (const kind of KINDS) {
    const found = snap.level === kind ? undefined : alignedWith(near, kind, snap.place);
    if (!found) continue;
    if (kind === 'vertical') x = found.from[0];
    else y = found.from[1];
    aligned.push(found);
  }
  return aligned.length > 0 ? { ...snap, place: [x, y], aligned } : snap;
}

interface Near {
  readonly geometry: Geometry;
  readonly drawn: Geometry;
  readonly at: Vec2;
  readonly reach: number;
  readonly from: Vec2 | undefined;
  readonly anchor: Anchor | undefined;
  readonly begun: readonly Anchor[];
}

/** A place on a curve: where it meets the level or upright line from the last point, or from a point that is nearly so. */
function onCurve(near: Near, on: Id, level: Kind | undefined): Snap {
  const { geometry, at, reach, from } = near;
  const meeting = level && from && meetingOf(geometry, on, level, from, at, reach);
  if (meeting) return { place: meeting, on, level };
  const foot = footOn(geometry, on, at);
  for (const kind of KINDS) {
    const found = alignedWith(near, kind, foot);
    const place = found && meetingOf(geometry, on, kind, found.from, at, reach);
    if (place) return { place, on, aligned: [found] };
  }
  return { place: foot, on };
}

/** Where a curve crosses the level or upright line through a point, near a place. */
function meetingOf(geometry: Geometry, on: Id, kind: Kind, [x, y]: Vec2, at: Vec2, reach: number): Vec2 | undefined {
  const line: Piece =
    kind === 'vertical'
      ? { form: 'segment', entity: '', from: [x, -ENDLESS_mm], to: [x, ENDLESS_mm] }
      : { form: 'segment', entity: '', from: [-ENDLESS_mm, y], to: [ENDLESS_mm, y] };
  const places = crossings(piecesOf(geometry, on), [line]).map((place): Vec2 =>
    kind === 'vertical' ? [x, place[1]] : [place[0], y],
  );
  return nearestPlace(places, at, reach);
}

/** The place on a curve nearest to another; lines and arcs end where they end, axes do not. */
export function footOn(geometry: Geometry, id: Id, at: Vec2): Vec2 {
  if (id === X_AXIS) return [at[0], 0];
  if (id === Y_AXIS) return [0, at[1]];
  const feet = geometry.pieces(id).map((piece) => nearestOn(piece, at));
  return feet.reduce((best, foot) => (distance2(foot, at) < distance2(best, at) ? foot : best));
}

/** The same, where lines go on beyond their ends. */
export function footAlong(geometry: Geometry, id: Id, at: Vec2): Vec2 {
  if (isBuiltIn(id) || geometry.roleOf(id) !== 'line') return footOn(geometry, id, at);
  const { a, b } = geometry.line(id);
  return footOnLine2(at, a, b);
}

/** All points that can be picked, the origin among them; not the far ends of the axes. */
export const pointIds = (geometry: Geometry): Id[] => [
  'origin',
  ...Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) === 'point'),
];

export const curveIds = (geometry: Geometry): Id[] =>
  Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) !== 'point');

/** The nearest within reach; of several in one place the last. */
export function nearest(ids: readonly Id[], distance: (id: Id) => number, reach: number): Id | undefined {
  let best: Id | undefined;
  let least = reach;
  for (const id of ids) {
    const d = distance(id);
    if (d <= least || (best !== undefined && d <= least + TIE_mm)) [best, least] = [id, Math.min(d, least)];
  }
  return best;
}

const middleOf = (geometry: Geometry, id: Id): Vec2 => {
  const { a, b } = geometry.line(id);
  return middle2(a, b);
};

/** Level if the place is within the reach of the level line, and not so near that everything is. */
export function levelOf(from: Vec2, at: Vec2, reach: number): 'horizontal' | 'vertical' | undefined {
  const [dx, dy] = [Math.abs(at[0] - from[0]), Math.abs(at[1] - from[1])];
  if (dy <= reach && dx > 2 * reach) return 'horizontal';
  if (dx <= reach && dy > 2 * reach) return 'vertical';
  return undefined;
}
