import type { Box } from '../sketch/pieces/index.ts';

/** The box round boxes; at the origin round none. */
export function extentOf(boxes: readonly Box[]): Box {
  if (boxes.length === 0) return { low: [0, 0], high: [0, 0] };
  const end = (pick: (...n: number[]) => number, side: 'low' | 'high', k: 0 | 1) =>
    boxes.reduce((far, box) => pick(far, box[side][k]), boxes[0]![side][k]);
  return {
    low: [end(Math.min, 'low', 0), end(Math.min, 'low', 1)],
    high: [end(Math.max, 'high', 0), end(Math.max, 'high', 1)],
  };
}

/** A box with some room round it. */
export const widened = ({ low, high }: Box, by: number): Box => ({
  low: [low[0] - by, low[1] - by],
  high: [high[0] + by, high[1] + by],
});
