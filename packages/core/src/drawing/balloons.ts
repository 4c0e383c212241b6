import { direction2, distance2, scale2, sub2, add2, type Vec2 } from '../math/index.ts';
import { laidOutFreely, type Taken } from '../sketch/index.ts';
import { along, fullCircle, lengthOf, type Box, type Piece } from '../sketch/pieces/index.ts';
import { arrowPieces } from './label.ts';
import { nearest } from './marks/pointing.ts';
import { segment, type Lettering, type Stroke } from './picture.ts';

/** A part that is pointed to: its number, and what of it is seen, on paper. */
export interface Numbered {
  readonly number: number;
  readonly seen: readonly Piece[];
  /** Where it was dragged to. */
  readonly at?: Vec2 | undefined;
}
/** A number as it is drawn. */
interface DrawnNumber {
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
  readonly at: Vec2;
  readonly taken: Taken;
}

/** Of a circle, for 1 mm of its figures. */
const RADIUS = 1.7;
/** Of its lines so many are tried, the longest first. */
const TIPS = 4;
/** How far from the view numbers stand, and from each other, mm; and rows of them, one behind the other. */
const [AWAY, APART, ROWS] = [9, 7, 3];

/**
 * Numbers in circles round a view, each with a leader to its part (ISO 6433), placed so that none lies on another, but for
 * those that were dragged.
 * @param box what the view covers, mm on paper
 */
export function balloons(parts: readonly Numbered[], box: Box, { height, avoid, before }: Room): DrawnNumber[] {
  const radius = RADIUS * height;
  const ring = Array.from({ length: ROWS }, (_, k) => ringRound(box, AWAY + k * APART)).flat();
  const takes = ({ at, from, tip }: Balloon): Taken => ({ text: balloonBox(at, height), lines: [[from, tip]] });
  const made = laidOutFreely(
    parts.map(({ seen, at: put }) => {
      const tips = tipsOn(seen);
      const reach = (at: Vec2) => distance2(nearest(tips, at), at);
      return {
        at: put,
        avoid,
        places: () => ring.toSorted((a, b) => reach(a) - reach(b)),
        draw: (at: Vec2): Balloon => {
          const tip = nearest(tips, at);
          const way = direction2(sub2(tip, at)) ?? ([0, -1] as const);
          return { at, from: add2(at, scale2(way, radius)), tip, way };
        },
      };
    }),
    takes,
    [],
    radius,
    before,
  );
  return made.map((one, k) => {
    const { at, from, tip, way } = one;
    const pieces = [fullCircle('', at, radius), segment(from, tip), ...arrowPieces(tip, way)];
    const figure = { at: [at[0], at[1] - height / 2] as const, text: `${parts[k]!.number}`, height };
    return {
      ...{ at, taken: takes(one) },
      strokes: [{ line: 'size', pieces }],
      letters: [{ ...figure, anchor: 'middle' }],
    };
  });
}

/** What is there already, and what numbers keep off; the height of figures, mm. */
interface Room {
  readonly height: number;
  readonly avoid: readonly Box[];
  readonly before: readonly Taken[];
}

/** What a circle covers. @param height of its figures, mm */
export function balloonBox([x, y]: Vec2, height: number): Box {
  const radius = RADIUS * height;
  return { low: [x - radius, y - radius], high: [x + radius, y + radius] };
}

/** The middle of a circle, and its leader: from its rim to the part. */
interface Balloon {
  readonly at: Vec2;
  readonly from: Vec2;
  readonly tip: Vec2;
  readonly way: Vec2;
}

/** Where a leader may end: in the middle of the longest lines. */
const tipsOn = (seen: readonly Piece[]): Vec2[] =>
  seen
    .toSorted((a, b) => lengthOf(b) - lengthOf(a))
    .slice(0, TIPS)
    .map((piece) => along(piece, 0.5));

/** Places round a box, so far away from it. */
function ringRound({ low, high }: Box, away: number): Vec2[] {
  const [x0, y0, x1, y1] = [low[0] - away, low[1] - away, high[0] + away, high[1] + away];
  const steps = (from: number, to: number) => {
    const count = Math.max(1, Math.round((to - from) / APART));
    return Array.from({ length: count + 1 }, (_, k) => from + ((to - from) * k) / count);
  };
  return [
    ...steps(x0, x1).flatMap((x): Vec2[] => [
      [x, y0],
      [x, y1],
    ]),
    ...steps(y0, y1).flatMap((y): Vec2[] => [
      [x0, y],
      [x1, y],
    ]),
  ];
}
