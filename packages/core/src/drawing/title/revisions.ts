import type { Vec2 } from '../../math/index.ts';
import { segment, type Lettering, type Stroke } from '../picture.ts';
import type { Sheet } from '../schema.ts';
import { shortened } from './words.ts';

const [ROW, MOST] = [5, 4];

/** How high the rows of revisions are, mm. */
export const revisionsHeight = ({ issued = [] }: Pick<Sheet, 'issued'>): number => Math.min(issued.length, MOST) * ROW;

/** Rows over the title block: the last few times that the sheet went out, with what was new. @param corner their lower left one */
export function revisions(
  { issued = [] }: Pick<Sheet, 'issued'>,
  [left, below]: Vec2,
  width: number,
): { strokes: Stroke[]; letters: Lettering[] } {
  const rows = issued.slice(-MOST);
  if (rows.length === 0) return { strokes: [], letters: [] };
  const columns = [0, 14, 42, width];
  const lines = columns.map((x) => segment([left + x, below], [left + x, below + rows.length * ROW]));
  const letters = rows.flatMap(({ revision, date, words }, k): Lettering[] => {
    const y = below + (rows.length - 1 - k) * ROW;
    lines.push(segment([left, y + ROW], [left + width, y + ROW]));
    return [revision, date, shortened(words, width - 45, 2.2)].map((text, i) => ({
      ...{ at: [left + columns[i]! + 1.2, y + 1.4] as const, text, height: 2.2, anchor: 'start' },
    }));
  });
  return { strokes: [{ line: 'thin', pieces: lines }], letters };
}
