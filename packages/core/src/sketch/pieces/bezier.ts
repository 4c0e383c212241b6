import { add2, cross2, distance2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import { boxAround, type CurveForm, type PieceBase } from './form.ts';
import { gaussLength, polishedNearest } from './numeric.ts';

/** A cubic Bezier curve from `from` to `to` with two inner control points. */
export interface Bezier extends PieceBase {
  readonly form: 'bezier';
  readonly inner: readonly [Vec2, Vec2];
}

const between = (a: Vec2, b: Vec2, t: number): Vec2 => add2(scale2(a, 1 - t), scale2(b, t));

const controls = ({ from, inner, to }: Bezier): readonly [Vec2, Vec2, Vec2, Vec2] => [from, inner[0], inner[1], to];

/** The blossom of the cubic: symmetric, affine in each parameter (Ramshaw 1987). */
function blossom(piece: Bezier, t: number, u: number, v: number): Vec2 {
  const [p0, p1, p2, p3] = controls(piece);
  const [a, b, c] = [between(p0, p1, t), between(p1, p2, t), between(p2, p3, t)];
  return between(between(a, b, u), between(b, c, u), v);
}

export const bezier: CurveForm<Bezier> = {
  at: (piece, t) => blossom(piece, t, t, t),
  derivatives(piece, t) {
    const [p0, p1, p2, p3] = controls(piece);
    const d = [sub2(p1, p0), sub2(p2, p1), sub2(p3, p2)] as const;
    const first = between(between(d[0], d[1], t), between(d[1], d[2], t), t);
    const second = between(sub2(d[1], d[0]), sub2(d[2], d[1]), t);
    return [scale2(first, 3), scale2(second, 6)];
  },
  length: (piece) => gaussLength((t) => bezier.derivatives(piece, t)[0], 12),
  nearest: (piece, place) => polishedNearest(bezier, piece, place, 12),
  areaShare(piece) {
    const [p0, p1, p2, p3] = controls(piece);
    return (
      (6 * cross2(p0, p1) +
        3 * cross2(p0, p2) +
        cross2(p0, p3) +
        3 * cross2(p1, p2) +
        3 * cross2(p1, p3) +
        6 * cross2(p2, p3)) /
      20
    );
  },
  reversed: (piece) => ({ ...piece, inner: [piece.inner[1], piece.inner[0]] }),
  scaled: (piece, _, at) => ({ ...piece, inner: [at(piece.inner[0]), at(piece.inner[1])] }),
  stretch: (piece, t0, t1) => ({ ...piece, inner: [blossom(piece, t0, t0, t1), blossom(piece, t0, t1, t1)] }),
  summits(piece) {
    const [p0, p1, p2, p3] = controls(piece).map((place) => place[1]) as [number, number, number, number];
    // dy/dt / 3 = a t^2 + b t + c
    const [a, b, c] = [p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0];
    return quadraticRoots(a, b, c).filter((t) => t > 0 && t < 1);
  },
  box: (piece) => boxAround(controls(piece)),
  steps(piece) {
    const [p0, p1, p2, p3] = controls(piece);
    const bend = distance2(p0, p1) + distance2(p1, p2) + distance2(p2, p3) - distance2(p0, p3);
    const chord = Math.max(distance2(p0, p3), distance2(p1, p2), 1e-9);
    return Math.min(64, Math.max(2, Math.ceil(24 * Math.sqrt(bend / chord))));
  },
};

/** Real roots in rising order; a root that touches counts once. */
function quadraticRoots(a: number, b: number, c: number): number[] {
  const size = Math.max(Math.abs(a), Math.abs(b), Math.abs(c));
  if (Math.abs(a) <= 1e-14 * size) return Math.abs(b) <= 1e-14 * size ? [] : [-c / b];
  const square = b * b - 4 * a * c;
  if (square < 0) return [];
  const q = -(b + (b < 0 ? -1 : 1) * Math.sqrt(square)) / 2;
  const roots = q === 0 ? [0] : [q / a, c / q];
  return [...new Set(roots)].sort((x, y) => x - y);
}

/** A straight or quadratic curve as a cubic: raises the degree of the control polygon. */
export const fromQuadratic = (from: Vec2, control: Vec2, to: Vec2): readonly [Vec2, Vec2] => [
  between(from, control, 2 / 3),
  between(to, control, 2 / 3),
];
