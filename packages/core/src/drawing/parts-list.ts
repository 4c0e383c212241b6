import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Box } from '../sketch/pieces/index.ts';
import { segment, type Lettering, type Stroke } from './picture.ts';
import { shortened } from './title/index.ts';

/** A line of the list of parts; its number is its place in the list. */
export interface ListedPart {
  readonly part: Id;
  readonly name: string;
  readonly count: number;
  readonly material: string | null;
}

const ROW = 5.5;
const HEIGHT = 2.4;
/** Where columns begin, mm, and the right end of the last. */
const COLUMNS = [0, 11, 24, 76, 120] as const;
const HEADS = ['No.', 'Count', 'Part', 'Material'] as const;
export const LIST_WIDTH = COLUMNS[4];

/** How high a list of so many parts is with its heads, mm on paper. */
export const listHeight = (rows: number): number => (rows + 1) * ROW;

/** The list of parts (ISO 7573), counted from below, where its heads stand: so it grows upwards. @param corner the lower right one */
export function partsList(parts: readonly ListedPart[], corner: Vec2): { strokes: Stroke[]; letters: Lettering[] } {
  const [left, below] = [corner[0] - LIST_WIDTH, corner[1]];
  const top = below + listHeight(parts.length);
  const rows = [HEADS, ...parts.map(({ name, count, material }, k) => [`${k + 1}`, `${count}`, name, material ?? ''])];
  const letters = rows.flatMap((cells, row) =>
    cells.map((text, column): Lettering => {
      const [from, to] = [COLUMNS[column]!, COLUMNS[column + 1]!];
      const at: Vec2 = [left + from + 1.2, below + row * ROW + 1.6];
      const shown = row === 0 ? text : shortened(text, to - from - 2.4, HEIGHT);
      return { at, text: shown, height: row === 0 ? 1.8 : HEIGHT, anchor: 'start' };
    }),
  );
  const lines = [
    ...COLUMNS.map((x) => segment([left + x, below], [left + x, top])),
    ...Array.from({ length: rows.length }, (_, k) => below + (k + 1) * ROW).map((y) =>
      segment([left, y], [corner[0], y]),
    ),
  ];
  return { strokes: [{ line: 'thin', pieces: lines }], letters };
}

/** What is left of an area beside a list in its lower right corner, or over it: the larger of the two. */
export function besideList(area: Box, rows: number): Box {
  if (rows === 0) return area;
  const [width, height] = [area.high[0] - area.low[0], area.high[1] - area.low[1]];
  const beside = (width - LIST_WIDTH) * height;
  const over = width * (height - listHeight(rows));
  return beside > over
    ? { low: area.low, high: [area.high[0] - LIST_WIDTH, area.high[1]] }
    : { low: [area.low[0], area.low[1] + listHeight(rows)], high: area.high };
}
