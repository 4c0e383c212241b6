import { distance2, middle2, nearestOn, X_AXIS, Y_AXIS, type Geometry, type Id, type Vec2 } from '@helb/core';

/** Where the pointer is taken to be, and what is guessed from it. */
export interface Snap {
  readonly place: Vec2;
  /** An existing point to be used as it is. */
  readonly point?: Id;
  /** A curve on which the new point shall lie. */
  readonly on?: Id;
  /** A line in whose middle the new point shall lie. */
  readonly middleOf?: Id;
  /** The line from the last point is kept level or upright. */
  readonly level?: 'horizontal' | 'vertical';
}

export interface SnapQuery {
  readonly at: Vec2;
  /** How near counts, mm. */
  readonly reach: number;
  /** Hold all guesses off. */
  readonly free: boolean;
  /** Where a line would begin: level and upright are guessed from it. */
  readonly from?: Vec2;
}

/** The best guess for a place: a point, the middle of a line, a curve, level with the last point; else the place itself. */
export function snap(geometry: Geometry, { at, reach, free, from }: SnapQuery): Snap {
  const point = nearest(pointIds(geometry), (id) => distance2(geometry.point(id), at), reach);
  // an existing point is no guess: it is what was clicked
  if (point) return { place: geometry.point(point), point };
  if (free) return { place: at };
  const lines = Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) === 'line');
  const middle = nearest(lines, (id) => distance2(middleOf(geometry, id), at), reach);
  if (middle) return { place: middleOf(geometry, middle), middleOf: middle };
  const level = from && levelOf(from, at, reach);
  const on = nearest([...curveIds(geometry), X_AXIS, Y_AXIS], (id) => distance2(footOn(geometry, id, at), at), reach);
  if (on) return { place: footOn(geometry, on, at), on, ...(level ? meeting(geometry, on, level, from, at) : {}) };
  return level ? { place: level === 'horizontal' ? [at[0], from[1]] : [from[0], at[1]], level } : { place: at };
}

/** The place on a curve nearest to another; lines and arcs end where they end, axes do not. */
export function footOn(geometry: Geometry, id: Id, at: Vec2): Vec2 {
  if (id === X_AXIS) return [at[0], 0];
  if (id === Y_AXIS) return [0, at[1]];
  const feet = geometry.pieces(id).map((piece) => nearestOn(piece, at));
  return feet.reduce((best, foot) => (distance2(foot, at) < distance2(best, at) ? foot : best));
}

/** All points that can be picked, the origin among them; not the far ends of the axes. */
export const pointIds = (geometry: Geometry): Id[] => [
  'origin',
  ...Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) === 'point'),
];

export const curveIds = (geometry: Geometry): Id[] =>
  Object.keys(geometry.entities).filter((id) => geometry.roleOf(id) !== 'point');

export function nearest(ids: readonly Id[], distance: (id: Id) => number, reach: number): Id | undefined {
  let best: Id | undefined;
  let least = reach;
  for (const id of ids) {
    const d = distance(id);
    if (d <= least) [best, least] = [id, d];
  }
  return best;
}

const middleOf = (geometry: Geometry, id: Id): Vec2 => {
  const { a, b } = geometry.line(id);
  return middle2(a, b);
};

/** Level if the place is within the reach of the level line, and not so near that everything is. */
function levelOf(from: Vec2, at: Vec2, reach: number): 'horizontal' | 'vertical' | undefined {
  const [dx, dy] = [Math.abs(at[0] - from[0]), Math.abs(at[1] - from[1])];
  if (dy <= reach && dx > 2 * reach) return 'horizontal';
  if (dx <= reach && dy > 2 * reach) return 'vertical';
  return undefined;
}

/** Both on a line and level, where the two meet near the pointer: only for axes, which are level or upright themselves. */
function meeting(geometry: Geometry, on: Id, level: 'horizontal' | 'vertical', from: Vec2, at: Vec2): Partial<Snap> {
  const crossing = (on === X_AXIS && level === 'vertical') || (on === Y_AXIS && level === 'horizontal');
  if (!crossing) return {};
  const [fx, fy] = footOn(geometry, on, at);
  return { place: level === 'horizontal' ? [fx, from[1]] : [from[0], fy], level };
}
