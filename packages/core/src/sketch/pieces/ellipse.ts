import { cross2, distance2, dot2, left2, length2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { halfTurnsInside } from './arc.ts';
import { boxAround, inTurn, TURN, type CurveForm, type PieceBase } from './form.ts';
import { gaussLength, polishedNearest } from './numeric.ts';

/**
 * A stretch of an ellipse: centre + cos(q) `major` + sin(q) `minor`, the two square on each other and the second left of
 * the first. `start` and `sweep` are eccentric angles (rad), `sweep` positive counter-clockwise.
 */
export interface EllipsePiece extends PieceBase {
  readonly form: 'ellipse';
  readonly centre: Vec2;
  readonly major: Vec2;
  readonly minor: Vec2;
  readonly start: number;
  readonly sweep: number;
}

type Carrier = Pick<EllipsePiece, 'centre' | 'major' | 'minor'>;

/** The place on an ellipse at an eccentric angle, rad. */
export const onEllipse = ({ centre, major, minor }: Carrier, angle: number): Vec2 => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [centre[0] + c * major[0] + s * minor[0], centre[1] + c * major[1] + s * minor[1]];
};

/** The eccentric angle whose place has the direction of this place, in (-pi, pi]. */
function eccentricAngle({ centre, major, minor }: Carrier, place: Vec2): number {
  const out = sub2(place, centre);
  return Math.atan2(dot2(out, minor) / dot2(minor, minor), dot2(out, major) / dot2(major, major));
}

/** @param tip end of the major axis; @param minor the minor radius (mm) */
export function carrierOf(centre: Vec2, tip: Vec2, minor: number): Carrier {
  const major = sub2(tip, centre);
  return { centre, major, minor: scale2(left2(major), minor / Math.max(length2(major), 1e-12)) };
}

/** An ellipse as one piece, counter-clockwise from its tip. */
export function fullEllipse(entity: Id, centre: Vec2, tip: Vec2, minor: number): EllipsePiece {
  const carrier = carrierOf(centre, tip, minor);
  return { form: 'ellipse', entity, ...carrier, from: tip, to: tip, start: 0, sweep: TURN };
}

/** The stretch that runs counter-clockwise from one place to another. */
export function ellipseBetween(
  entity: Id,
  [centre, tip, minor]: readonly [Vec2, Vec2, number],
  from: Vec2,
  to: Vec2,
): EllipsePiece {
  const carrier = carrierOf(centre, tip, minor);
  const start = eccentricAngle(carrier, from);
  const sweep = inTurn(eccentricAngle(carrier, to) - start) || TURN;
  return { form: 'ellipse', entity, ...carrier, from, to, start, sweep };
}

export const ellipse: CurveForm<EllipsePiece> = {
  at: (piece, t) => onEllipse(piece, piece.start + t * piece.sweep),
  derivatives({ major, minor, start, sweep }, t) {
    const [c, s] = [Math.cos(start + t * sweep), Math.sin(start + t * sweep)];
    const bend = -sweep * sweep;
    return [
      [sweep * (c * minor[0] - s * major[0]), sweep * (c * minor[1] - s * major[1])],
      [bend * (c * major[0] + s * minor[0]), bend * (c * major[1] + s * minor[1])],
    ];
  },
  length: (piece) => gaussLength((t) => ellipse.derivatives(piece, t)[0], 16),
  nearest: (piece, place) => polishedNearest(ellipse, piece, place, 16),
  areaShare: ({ from, to, major, minor, sweep }) =>
    cross2(from, to) / 2 + (cross2(major, minor) * (sweep - Math.sin(sweep))) / 2,
  reversed: (piece) => ({ ...piece, start: piece.start + piece.sweep, sweep: -piece.sweep }),
  scaled: (piece, factor, at) => ({
    ...piece,
    centre: at(piece.centre),
    major: scale2(piece.major, factor),
    minor: scale2(piece.minor, factor),
  }),
  stretch: (piece, t0, t1) => ({
    ...piece,
    start: piece.start + t0 * piece.sweep,
    sweep: (t1 - t0) * piece.sweep,
  }),
  // dy/dq = 0
  summits: ({ major, minor, start, sweep }) => halfTurnsInside(start, sweep, Math.atan2(minor[1], major[1])),
  box: (piece) =>
    boxAround([
      piece.from,
      piece.to,
      ...[0, 1].flatMap((k) =>
        halfTurnsInside(piece.start, piece.sweep, Math.atan2(piece.minor[k]!, piece.major[k]!)).map((t) =>
          ellipse.at(piece, t),
        ),
      ),
    ]),
  steps: ({ sweep }) => Math.max(2, Math.ceil(Math.abs(sweep) / (Math.PI / 48))),
};

/** Do both lie on one ellipse? */
export const sameEllipse = (a: EllipsePiece, b: EllipsePiece, tolerance: number): boolean =>
  [0, 1, 2, 3, 4].every((k) => {
    const place = onEllipse(a, k);
    return distance2(onEllipse(b, eccentricAngle(b, place)), place) <= tolerance;
  });
