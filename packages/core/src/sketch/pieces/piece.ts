import { length2, type Vec2 } from '../../math/index.ts';
import { arc, type Arc } from './arc.ts';
import { bezier, type Bezier } from './bezier.ts';
import { ellipse, type EllipsePiece } from './ellipse.ts';
import type { Box, CurveForm } from './form.ts';
import { segment, type Segment } from './segment.ts';

/** A directed stretch of a drawn curve. */
export type Piece = Segment | Arc | EllipsePiece | Bezier;

/** The register: a new form of curve is a file beside these and a line here. */
const FORMS = { segment, arc, ellipse, bezier };

const formOf = (piece: Piece): CurveForm<Piece> => FORMS[piece.form];

/** The place at parameter t in 0..1; the ends exactly. */
export const along = (piece: Piece, t: number): Vec2 =>
  t === 0 ? piece.from : t === 1 ? piece.to : formOf(piece).at(piece, t);

/** First and second derivative by t. */
export const derivatives = (piece: Piece, t: number) => formOf(piece).derivatives(piece, t);
/** How long it is, mm. */
export const lengthOf = (piece: Piece): number => formOf(piece).length(piece);
/** The box round all of it. */
export const boxOf = (piece: Piece): Box => formOf(piece).box(piece);
/** What it adds to the area of a loop, mm^2: half the integral of x dy - y dx. */
export const areaShare = (piece: Piece): number => formOf(piece).areaShare(piece);
/** The parameter of the place of it that is nearest to a place. */
export const nearestParameter = (piece: Piece, place: Vec2): number => formOf(piece).nearest(piece, place);
/** The place of it that is nearest to a place. */
export const nearestOn = (piece: Piece, place: Vec2): Vec2 => along(piece, nearestParameter(piece, place));

/** The same the other way round. */
export const reversed = (piece: Piece): Piece => {
  const { turned, ...rest } = formOf(piece).reversed(piece);
  return { ...rest, from: piece.to, to: piece.from, ...(turned ? {} : { turned: true }) };
};

/** The same curve `factor` times as large, then shifted. */
export function scaled(piece: Piece, factor: number, [dx, dy]: Vec2): Piece {
  const at = ([x, y]: Vec2): Vec2 => [x * factor + dx, y * factor + dy];
  return { ...formOf(piece).scaled(piece, factor, at), from: at(piece.from), to: at(piece.to) };
}

/** The stretch between two parameters; `from` and `to` are given, so that neighbours meet exactly. */
export const stretch = (piece: Piece, t0: number, t1: number, from: Vec2, to: Vec2): Piece => ({
  ...formOf(piece).stretch(piece, t0, t1),
  from,
  to,
});

/** Places along the piece, both ends among them, near enough for the eye. */
export function polyline(piece: Piece): Vec2[] {
  const steps = formOf(piece).steps(piece);
  return Array.from({ length: steps + 1 }, (_, k) => along(piece, k / steps));
}

/** Angle of the direction in which the piece leaves its start. */
export function leaving(piece: Piece): number {
  const [first, second] = derivatives(piece, 0);
  // a control point on the end leaves the direction to the next derivative
  const [x, y] = length2(first) > 1e-9 ? first : second;
  return Math.atan2(y, x);
}

/** How often the ray from `place` towards +x crosses the piece, counted with sign (up 1, down -1). */
export function crossings(piece: Piece, [x, y]: Vec2): number {
  const cuts = [0, ...formOf(piece).summits(piece), 1];
  let sum = 0;
  for (let k = 1; k < cuts.length; k++) {
    const [from, to] = [along(piece, cuts[k - 1]!), along(piece, cuts[k]!)];
    const way = from[1] <= y && to[1] > y ? 1 : to[1] <= y && from[1] > y ? -1 : 0;
    if (way !== 0 && atHeight(piece, cuts[k - 1]!, cuts[k]!, y)[0] > x) sum += way;
  }
  return sum;
}

/** The place of a stretch that only rises, or only falls, at a height; by halving (60 times reaches rounding). */
function atHeight(piece: Piece, t0: number, t1: number, y: number): Vec2 {
  let [low, high] = along(piece, t0)[1] <= y ? [t0, t1] : [t1, t0];
  for (let k = 0; k < 60; k++) {
    const middle = (low + high) / 2;
    if (along(piece, middle)[1] <= y) low = middle;
    else high = middle;
  }
  return along(piece, low);
}
