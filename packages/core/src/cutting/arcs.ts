import { add2, cross2, direction2, distance2, dot2, scale2, sub2, type Vec2 } from '../math/index.ts';
import { along, arcBetween, derivatives, nearestOn, reversed, type Piece } from '../sketch/pieces/index.ts';

const MOST_DEEP = 12;
const straight = (from: Vec2, to: Vec2): Piece => ({ form: 'segment', entity: '', from, to });

/**
 * A curve as arcs and lines that run smoothly into each other: biarcs (Bolton 1975), halved until they follow it.
 * @param within how far they may be off, mm
 */
export function asArcs(piece: Piece, within: number): Piece[] {
  if (piece.form === 'segment' || piece.form === 'arc') return [piece];
  return followed(piece, 0, 1, within, 0);
}

function followed(piece: Piece, a: number, b: number, within: number, deep: number): Piece[] {
  const arcs = biarc(along(piece, a), heading(piece, a), along(piece, b), heading(piece, b));
  const off = [0.15, 0.3, 0.5, 0.7, 0.85].map((t) => {
    const place = along(piece, a + t * (b - a));
    return Math.min(...arcs.map((arc) => distance2(nearestOn(arc, place), place)));
  });
  if (deep >= MOST_DEEP || (Math.max(...off) <= within && deep > 0)) return arcs;
  const middle = (a + b) / 2;
  return [...followed(piece, a, middle, within, deep + 1), ...followed(piece, middle, b, within, deep + 1)];
}

function heading(piece: Piece, t: number): Vec2 {
  const [first, second] = derivatives(piece, t);
  return direction2(first) ?? direction2(t < 0.5 ? second : scale2(second, -1)) ?? [1, 0];
}

/** Two arcs from one place and direction to another that meet smoothly. */
function biarc(p: Vec2, u: Vec2, q: Vec2, v: Vec2): Piece[] {
  const way = sub2(q, p);
  const turn = 1 - dot2(u, v);
  const sum = dot2(way, add2(u, v));
  const reach =
    turn > 1e-9
      ? (-sum + Math.sqrt(Math.max(0, sum * sum + 2 * turn * dot2(way, way)))) / (2 * turn)
      : dot2(way, way) / (4 * (dot2(way, v) || 1));
  const joint = scale2(add2(add2(p, q), scale2(sub2(u, v), reach)), 0.5);
  return [arcFrom(p, u, joint), reversed(arcFrom(q, scale2(v, -1), joint))];
}

/** The arc that leaves a place in a direction and ends at another; a line where that lies straight ahead. */
function arcFrom(p: Vec2, u: Vec2, q: Vec2): Piece {
  const way = sub2(q, p);
  const side = cross2(u, way);
  const square = dot2(way, way);
  if (Math.abs(side) < 1e-9 * Math.max(square, 1e-12) ** 0.5 || square < 1e-18) return straight(p, q);
  const radius = square / (2 * side);
  const centre: Vec2 = [p[0] - u[1] * radius, p[1] + u[0] * radius];
  return radius > 0 ? arcBetween('', centre, radius, p, q) : reversed(arcBetween('', centre, -radius, q, p));
}
