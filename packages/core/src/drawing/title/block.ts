import type { Vec2 } from '../../math/index.ts';
import type { Box, Piece } from '../../sketch/pieces/index.ts';
import { withinFrame } from '../papers.ts';
import { frameOf, segment, type Lettering, type Stroke } from '../picture.ts';
import type { Sheet } from '../schema.ts';
import { fieldOf, type TitleText } from './fields.ts';
import { labelOf, type CellAt } from './layout.ts';
import { projectionSign, SIGN_SIZE } from './projection-sign.ts';
import { revisions, revisionsHeight } from './revisions.ts';
import { blockHeight, type Cell, type TitleBlock } from './schema.ts';
import { onLines } from './words.ts';

/** The title block is as wide as an upright A4 within its frame (ISO 7200). */
export const TITLE_WIDTH = 180;
const [LABEL, WORDS, LINE, PAD] = [1.8, 2.8, 4.5, 1.2];

/** How high title block and revisions are, mm. */
export const titleHeight = (block: TitleBlock, sheet: Pick<Sheet, 'issued'>): number =>
  blockHeight(block.rows) + revisionsHeight(sheet);

/** A field as it lies on the sheet. */
export interface PlacedCell extends CellAt {
  readonly box: Box;
}

/** Where the fields of a block lie. @param corner its lower right one */
function placedCells(block: TitleBlock, [right, below]: Vec2): PlacedCell[] {
  let top = below + blockHeight(block.rows);
  return block.rows.flatMap(({ high, cells }, row) => {
    const unit = TITLE_WIDTH / cells.reduce((sum, { share }) => sum + share, 0);
    const bottom = top - high;
    let left = right - TITLE_WIDTH;
    const placed = cells.map(({ share }, cell): PlacedCell => {
      const box: Box = { low: [left, bottom], high: [left + share * unit, bottom + high] };
      left = box.high[0];
      return { row, cell, box };
    });
    top = bottom;
    return placed;
  });
}

/** How many lines of words there is room for in a row. @param high mm */
export const linesIn = (high: number): number => Math.max(1, Math.floor(high / LINE) - 1);

/** What a field says on a sheet. */
const wordsOf = (cell: Cell, sheet: Sheet, text: TitleText): string =>
  'own' in cell ? (sheet.title.own?.[cell.own] ?? cell.words ?? '') : fieldOf(cell.field).words(sheet, text);

/** The lower right corner of a sheet: who, what, how large, and how views are folded out; over it its revisions. */
export function titleBlock(
  block: TitleBlock,
  sheet: Sheet,
  text: TitleText,
  size: Vec2,
): { strokes: Stroke[]; letters: Lettering[]; cells: PlacedCell[] } {
  const { low, high } = withinFrame(size);
  const corner: Vec2 = [high[0], low[1]];
  const [left, top] = [corner[0] - TITLE_WIDTH, corner[1] + blockHeight(block.rows)];
  const cells = placedCells(block, corner);
  const inked = cells.map(({ row, cell, box }) => inkOf(block.rows[row]!.cells[cell]!, box, sheet, text));
  const lines = [...frameOf([left, corner[1]], [corner[0], top]), ...cells.flatMap((one) => between(one, left, top))];
  const went = revisions(sheet, [left, top], TITLE_WIDTH);
  return {
    strokes: [{ line: 'thin', pieces: lines }, ...inked.flatMap(({ strokes }) => strokes), ...went.strokes],
    letters: [...inked.flatMap(({ letters }) => letters), ...went.letters],
    cells,
  };
}

/** Lines at the left of a field and, once a row, over it. */
function between({ cell, box: { low, high } }: PlacedCell, left: number, top: number): Piece[] {
  if (cell > 0) return [segment(low, [low[0], high[1]])];
  return high[1] < top ? [segment([left, high[1]], [left + TITLE_WIDTH, high[1]])] : [];
}

function inkOf(
  cell: Cell,
  { low: [left, bottom], high: [right, top] }: Box,
  sheet: Sheet,
  text: TitleText,
): { strokes: Stroke[]; letters: Lettering[] } {
  const room = right - left - 2 * PAD;
  const most = linesIn(top - bottom);
  const written = { anchor: 'start', bold: 'field' in cell && fieldOf(cell.field).bold === true } as const;
  const words = wordsOf(cell, sheet, text);
  const lines = words ? onLines(words, room, most, WORDS) : [];
  const letters: Lettering[] = [
    ...onLines(labelOf(cell), room, 1, LABEL).map((line): Lettering => ({
      ...{ at: [left + PAD, top - 3], text: line, height: LABEL, anchor: 'start' },
    })),
    ...lines.map((line, k): Lettering => ({
      ...{ at: [left + PAD, top - 7.4 - k * LINE], text: line, height: WORDS, ...written },
    })),
  ];
  return {
    strokes: 'field' in cell && cell.field === 'projection' ? signIn(sheet, left, right, bottom, top) : [],
    letters,
  };
}

/** The sign of the projection at the right of its field, beside the label where there is room, else under it. */
function signIn({ projection }: Sheet, left: number, right: number, bottom: number, top: number): Stroke[] {
  const [wide, tall] = SIGN_SIZE;
  const high = top - bottom - (right - left < wide + 12 ? 3.4 : 0);
  const scale = Math.min(1, (right - left - 2) / wide, (high - 2) / tall);
  return projectionSign(
    projection,
    [right - 1 - (scale * wide) / 2, bottom + high / 2 - (high > tall + 2 ? 0.4 : 0)],
    scale,
  );
}
