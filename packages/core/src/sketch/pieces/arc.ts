import { cross2, distance2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { boxAround, inTurn, TURN, type CurveForm, type PieceBase } from './form.ts';

/** Angles in rad; `sweep` is positive when it runs counter-clockwise. */
export interface Arc extends PieceBase {
  readonly form: 'arc';
  readonly centre: Vec2;
  readonly radius: number;
  readonly start: number;
  readonly sweep: number;
}

/** The place on a circle at an angle, rad. */
const onCircle = (centre: Vec2, radius: number, angle: number): Vec2 => [
  centre[0] + radius * Math.cos(angle),
  centre[1] + radius * Math.sin(angle),
];

/** A circle as one piece, counter-clockwise from angle 0. */
export function fullCircle(entity: Id, centre: Vec2, radius: number): Arc {
  const at = onCircle(centre, radius, 0);
  return { form: 'arc', entity, from: at, to: at, centre, radius, start: 0, sweep: TURN };
}

/** The arc that runs counter-clockwise from one place to another. */
export function arcBetween(entity: Id, centre: Vec2, radius: number, from: Vec2, to: Vec2): Arc {
  const angle = (place: Vec2) => Math.atan2(place[1] - centre[1], place[0] - centre[0]);
  const start = angle(from);
  const sweep = inTurn(angle(to) - start) || TURN;
  return { form: 'arc', entity, from, to, centre, radius, start, sweep };
}

/** Where in the sweep an angle lies, as t; beyond the ends the nearer end by angle. */
function sweptTo(start: number, sweep: number, angle: number): number {
  const turned = inTurn((angle - start) * Math.sign(sweep));
  const whole = Math.abs(sweep);
  if (turned <= whole) return turned / whole;
  return turned - whole < TURN - turned ? 1 : 0;
}

/** The t of all angles first + k pi that lie inside the sweep. */
export function halfTurnsInside(start: number, sweep: number, first: number): number[] {
  const [low, high] = [Math.min(start, start + sweep), Math.max(start, start + sweep)];
  const found: number[] = [];
  for (let k = Math.ceil((low - first) / Math.PI); first + k * Math.PI < high; k++) {
    const t = (first + k * Math.PI - start) / sweep;
    if (t > 0 && t < 1) found.push(t);
  }
  return sweep > 0 ? found : found.reverse();
}

export const arc: CurveForm<Arc> = {
  at: ({ centre, radius, start, sweep }, t) => onCircle(centre, radius, start + t * sweep),
  derivatives({ radius, start, sweep }, t) {
    const [c, s] = [Math.cos(start + t * sweep), Math.sin(start + t * sweep)];
    return [
      [-radius * sweep * s, radius * sweep * c],
      [-radius * sweep * sweep * c, -radius * sweep * sweep * s],
    ];
  },
  length: ({ radius, sweep }) => radius * Math.abs(sweep),
  nearest: ({ centre, start, sweep }, place) =>
    sweptTo(start, sweep, Math.atan2(place[1] - centre[1], place[0] - centre[0])),
  areaShare: ({ from, to, radius, sweep }) => cross2(from, to) / 2 + (radius * radius * (sweep - Math.sin(sweep))) / 2,
  reversed: (piece) => ({ ...piece, start: piece.start + piece.sweep, sweep: -piece.sweep }),
  scaled: (piece, factor, at) => ({ ...piece, centre: at(piece.centre), radius: piece.radius * factor }),
  stretch: (piece, t0, t1) => ({
    ...piece,
    start: piece.start + t0 * piece.sweep,
    sweep: (t1 - t0) * piece.sweep,
  }),
  summits: ({ start, sweep }) => halfTurnsInside(start, sweep, Math.PI / 2),
  box: ({ from, to, centre, radius, start, sweep }) =>
    boxAround([
      from,
      to,
      ...[...halfTurnsInside(start, sweep, 0), ...halfTurnsInside(start, sweep, Math.PI / 2)].map((t) =>
        onCircle(centre, radius, start + t * sweep),
      ),
    ]),
  // 5 degrees or less
  steps: ({ sweep }) => Math.max(2, Math.ceil(Math.abs(sweep) / (Math.PI / 36))),
};

/** Do both lie on one circle? */
export const sameCircle = (a: Arc, b: Arc, tolerance: number): boolean =>
  distance2(a.centre, b.centre) <= tolerance && Math.abs(a.radius - b.radius) <= tolerance;
