import { alongPlane, heightOver, type Frame, type Vec2 } from '../math/index.ts';
import type { Box } from '../sketch/pieces/index.ts';
import { segment, type Stroke } from './picture.ts';

/** How far the line of a cut reaches beyond the view, how long its wide ends and its arrows are, mm on paper. */
const [BEYOND, END, ARROW] = [8, 6, 9];

/**
 * Where a view is cut (ISO 128-3): a line across it with wide ends, arrows that tell the way in which the section is seen,
 * and places for its letter.
 */
export function cutMark(
  plane: Frame,
  eye: Frame,
  { factor, at, box }: { readonly factor: number; readonly at: Vec2; readonly box: Box },
): { readonly strokes: Stroke[]; readonly letters: Vec2[] } {
  const [nx, ny] = alongPlane(eye, plane.z);
  // the plane is seen edge-on: its places are those at this height along its normal
  const height = -heightOver(plane, eye.origin);
  const foot: Vec2 = [at[0] + nx * height * factor, at[1] + ny * height * factor];
  const way: Vec2 = [-ny, nx];
  const along = ([x, y]: Vec2) => (x - foot[0]) * way[0] + (y - foot[1]) * way[1];
  const reach = [box.low, box.high, [box.low[0], box.high[1]] as Vec2, [box.high[0], box.low[1]] as Vec2].map(along);
  const place = (t: number, off = 0): Vec2 => [foot[0] + t * way[0] + off * nx, foot[1] + t * way[1] + off * ny];
  const [low, high] = [Math.min(...reach) - BEYOND, Math.max(...reach) + BEYOND];
  const ends = [
    { t: low, into: 1 },
    { t: high, into: -1 },
  ];
  // it is looked against the normal of the plane: arrows come from its front
  const arrows = ends.flatMap(({ t }) => [
    segment(place(t, ARROW), place(t)),
    segment(place(t), place(t - 1, 3)),
    segment(place(t), place(t + 1, 3)),
  ]);
  return {
    strokes: [
      { line: 'centre', pieces: [segment(place(low + END), place(high - END))] },
      { line: 'visible', pieces: ends.map(({ t, into }) => segment(place(t), place(t + into * END))) },
      { line: 'thin', pieces: arrows },
    ],
    letters: ends.map(({ t, into }) => {
      const [x, y] = place(t - into * 4, ARROW - 3);
      return [x, y - 2.5];
    }),
  };
}
