import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';

/** What every piece of a drawn curve has: whose it is, its ends, and whether it runs against its entity. */
export interface PieceBase {
  readonly entity: Id;
  readonly from: Vec2;
  readonly to: Vec2;
  /** Set while the piece runs against the direction in which its entity is drawn. */
  readonly turned?: boolean;
}

/** What the register knows of a form of curve. The parameter t runs from 0 to 1. */
export interface CurveForm<P extends PieceBase> {
  at(piece: P, t: number): Vec2;
  /** First and second derivative by t. */
  derivatives(piece: P, t: number): readonly [first: Vec2, second: Vec2];
  length(piece: P): number;
  /** The parameter of the place on the piece that is nearest to another. */
  nearest(piece: P, place: Vec2): number;
  /** Its share of the area to the left of a loop (Green): half the integral of x dy - y dx, mm^2. */
  areaShare(piece: P): number;
  /** The same curve the other way round; `from`, `to` and `turned` are changed by the caller. */
  reversed(piece: P): P;
  /** The same curve `factor` times as large, its places moved by `at`; `from` and `to` are set by the caller. */
  scaled(piece: P, factor: number, at: (place: Vec2) => Vec2): P;
  /** The stretch between two parameters; the ends are set by the caller. */
  stretch(piece: P, t0: number, t1: number): P;
  /** Parameters inside (0, 1) at which the curve changes between rising and falling. */
  summits(piece: P): readonly number[];
  /** A box round the piece, not always the smallest. */
  box(piece: P): Box;
  /** In how many straight steps it looks smooth. */
  steps(piece: P): number;
}

export interface Box {
  readonly low: Vec2;
  readonly high: Vec2;
}

/** The box round places. */
export const boxAround = (places: readonly Vec2[]): Box => {
  const xs = places.map((place) => place[0]);
  const ys = places.map((place) => place[1]);
  return { low: [Math.min(...xs), Math.min(...ys)], high: [Math.max(...xs), Math.max(...ys)] };
};

export const TURN = 2 * Math.PI;

/** Do the boxes come nearer than `gap`? */
export const boxesOverlap = (a: Box, b: Box, gap: number): boolean =>
  a.low[0] <= b.high[0] + gap &&
  b.low[0] <= a.high[0] + gap &&
  a.low[1] <= b.high[1] + gap &&
  b.low[1] <= a.high[1] + gap;

/** The angle brought into [0, 2 pi). */
export const inTurn = (angle: number): number => ((angle % TURN) + TURN) % TURN;
