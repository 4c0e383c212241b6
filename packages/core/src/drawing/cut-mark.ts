import { add2, alongPlane, dot2, left2, scale2, sub2, toPlane, type Frame, type Vec2 } from '../math/index.ts';
import type { Box } from '../sketch/pieces/index.ts';
import type { CutLine } from './cut.ts';
import { segment, type Stroke } from './picture.ts';
import { onPaper, type Placing } from './placing.ts';

/** How far the line of a cut reaches beyond the view, how long its wide ends and its arrows are, mm on paper. */
const [BEYOND, END, ARROW] = [8, 6, 9];

/**
 * Where a view is cut (ISO 128-3): a line across it, wide at its ends and where it goes on elsewhere, arrows that tell the
 * way in which the section is seen, and places for its letter.
 */
export function cutMark(
  { frame, stretches }: CutLine,
  eye: Frame,
  { box, ...placing }: Placing & { readonly box: Box },
): { readonly strokes: Stroke[]; readonly letters: Vec2[] } {
  const up = alongPlane(eye, frame.y);
  // a cut that goes straight on may be looked at along any line in its plane
  const way: Vec2 = stretches.length === 1 ? left2([-up[0], -up[1]]) : alongPlane(eye, frame.x);
  const [u, v] = toPlane(eye, frame.origin);
  const foot = onPaper(placing, [u, v]);
  // so far from the foot on paper lies what is so far from it on the thing
  const far = (by: number, axis: Vec2): number =>
    Number.isFinite(by) ? dot2(sub2(onPaper(placing, add2([u, v], scale2(axis, by))), foot), axis) : by;
  const place = ([t, h]: Vec2): Vec2 => [foot[0] + t * way[0] + h * up[0], foot[1] + t * way[1] + h * up[1]];
  const within = (axis: Vec2): [low: number, high: number] => {
    const corners: Vec2[] = [box.low, box.high, [box.low[0], box.high[1]], [box.high[0], box.low[1]]];
    const reach = corners.map(([x, y]) => (x - foot[0]) * axis[0] + (y - foot[1]) * axis[1]);
    return [Math.min(...reach) - BEYOND, Math.max(...reach) + BEYOND];
  };
  const [[low, high], [, top]] = [within(way), within(up)];
  const line = stretches.flatMap(({ from, to, height }): Vec2[] => {
    const h = height === undefined ? top : far(height, up);
    const [a, b] = [Math.max(far(from, way), low), Math.min(far(to, way), high)];
    return height === undefined && to === Infinity
      ? [[a, h]]
      : [
          [a, h],
          [b, h],
        ];
  });
  const [first, last] = [line[0]!, line.at(-1)!];
  const arrowAt = ([t, h]: Vec2) => [
    segment(place([t, h + ARROW]), place([t, h])),
    segment(place([t, h]), place([t - 1, h + 3])),
    segment(place([t, h]), place([t + 1, h + 3])),
  ];
  const wide = [
    [first, towards(first, line[1]!, END)] as const,
    [last, towards(last, line.at(-2)!, END)] as const,
    ...line
      .slice(1, -1)
      .flatMap((corner, k) =>
        [line[k]!, line[k + 2]!].map((next) => [corner, towards(corner, next, END / 2)] as const),
      ),
  ];
  return {
    strokes: [
      { line: 'centre', pieces: line.slice(1).map((to, k) => segment(place(line[k]!), place(to))) },
      { line: 'visible', pieces: wide.map(([from, to]) => segment(place(from), place(to))) },
      { line: 'thin', pieces: [...arrowAt(first), ...arrowAt(last)] },
    ],
    letters: [first, last].map(([t, h], k) => {
      const [x, y] = place([t + (k === 0 ? -4 : 4), h + ARROW - 3]);
      return [x, y - 2.5];
    }),
  };
}

/** A place on the way to another, so far on, but not beyond it. */
function towards([x, y]: Vec2, [u, v]: Vec2, by: number): Vec2 {
  const length = Math.hypot(u - x, v - y);
  const share = length === 0 ? 0 : Math.min(1, by / length);
  return [x + (u - x) * share, y + (v - y) * share];
}
