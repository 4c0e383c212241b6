import type { Vec2 } from '../math/index.ts';
import { fullCircle, type Piece } from '../sketch/pieces/index.ts';
import { withinFrame } from './papers.ts';
import { frameOf, segment, type Lettering, type Stroke } from './picture.ts';
import type { Sheet } from './schema.ts';

/** What is written into a title block. */
export interface TitleText {
  readonly project: string;
  readonly part: string;
  readonly material: string;
  readonly mass: string;
  readonly scale: string;
  /** Which sheet of how many. */
  readonly number: number;
  readonly of: number;
}

/** The title block is as wide as an upright A4 within its frame (ISO 7200). */
export const TITLE_WIDTH = 180;
const ROW = 9;
const ROWS = 4;
const TITLE_HEIGHT = ROW * ROWS;

/** Fields by rows from above: what they are called, and how wide, in parts of 18. */
function fields(sheet: Sheet, text: TitleText): (readonly [label: string, words: string, width: number])[][] {
  const { drawn = '', checked = '', date = '', revision = '', tolerance = '' } = sheet.title;
  return [
    [
      ['Project', text.project, 9],
      ['Material', text.material, 6],
      ['Mass', text.mass, 3],
    ],
    [
      ['Part', text.part, 9],
      ['General tolerances', tolerance, 6],
      ['Sizes in', 'mm', 3],
    ],
    [
      ['Drawn', drawn, 5],
      ['Checked', checked, 4],
      ['Date', date, 4],
      ['Revision', revision, 2],
      ['Sheet', `${text.number} of ${text.of}`, 3],
    ],
    [
      ['Title', sheet.name, 9],
      ['Scale', text.scale, 3],
      ['Paper', `${sheet.paper}${sheet.upright ? ' upright' : ''}`, 3],
      ['Projection', '', 3],
    ],
  ];
}

/** The lower right corner of a sheet: who, what, how large; and the sign of the projection. */
export function titleBlock(sheet: Sheet, text: TitleText, size: Vec2): { strokes: Stroke[]; letters: Lettering[] } {
  const { high } = withinFrame(size);
  const [left, below] = [high[0] - TITLE_WIDTH, withinFrame(size).low[1]];
  const unit = TITLE_WIDTH / 18;
  const lines = [...frameOf([left, below], [high[0], below + TITLE_HEIGHT])];
  const letters: Lettering[] = [];
  for (const [k, row] of fields(sheet, text).entries()) {
    const bottom = below + TITLE_HEIGHT - (k + 1) * ROW;
    if (k > 0) lines.push(segment([left, bottom + ROW], [high[0], bottom + ROW]));
    let x = left;
    for (const [label, words, width] of row) {
      if (x > left) lines.push(segment([x, bottom], [x, bottom + ROW]));
      letters.push({ at: [x + 1.2, bottom + ROW - 3], text: label, height: 1.8, anchor: 'start' });
      if (words)
        letters.push({
          at: [x + 1.2, bottom + 1.6],
          text: shortened(words, width * unit - 2.4),
          height: 2.8,
          anchor: 'start',
          bold: label === 'Part' || label === 'Title',
        });
      x += width * unit;
    }
  }
  const sign = projectionSign(sheet.projection, [high[0] - 9.2, below + ROW / 2 - 0.4]);
  const went = revisions(sheet, left, below + TITLE_HEIGHT);
  return {
    strokes: [{ line: 'thin', pieces: [...lines, ...went.lines] }, ...sign],
    letters: [...letters, ...went.letters],
  };
}

/** Rows over the title block: the last few times that the sheet went out, with what was new. */
function revisions({ issued = [] }: Sheet, left: number, top: number): { lines: Piece[]; letters: Lettering[] } {
  const rows = issued.slice(-MOST_REVISIONS);
  const columns = [0, 14, 42, TITLE_WIDTH];
  const high = rows.length * REVISION_ROW;
  const lines = rows.length === 0 ? [] : columns.map((x) => segment([left + x, top], [left + x, top + high]));
  const letters = rows.flatMap(({ revision, date, words }, k): Lettering[] => {
    const y = top + (rows.length - 1 - k) * REVISION_ROW;
    lines.push(segment([left, y + REVISION_ROW], [left + TITLE_WIDTH, y + REVISION_ROW]));
    return [revision, date, shortened(words, TITLE_WIDTH - 45)].map((text, i) => ({
      ...{ at: [left + columns[i]! + 1.2, y + 1.4] as const, text, height: 2.2, anchor: 'start' },
    }));
  });
  return { lines, letters };
}
const [REVISION_ROW, MOST_REVISIONS] = [5, 4];

/** How high title block and revisions are, mm. */
export const titleHeight = ({ issued = [] }: Pick<Sheet, 'issued'>): number =>
  TITLE_HEIGHT + Math.min(issued.length, MOST_REVISIONS) * REVISION_ROW;

/** Letters of 2.8 mm are about 1.75 mm wide each. */
export const shortened = (words: string, room: number): string => {
  const most = Math.floor(room / 1.75);
  return words.length > most ? `${words.slice(0, most - 1)}…` : words;
};

/** The sign of first- or third-angle projection (ISO 5456-2): a cone cut off, from its side and from its end. */
export function projectionSign(projection: Sheet['projection'], [x, y]: Vec2): Stroke[] {
  const [small, large, length, apart] = [1.2, 2.3, 4, 4.6];
  // in first angle the view from the left stands at the right of the cone that opens towards it
  const cone = projection === 'first' ? -apart : apart;
  const rings = -cone;
  const at = (u: number, v: number): Vec2 => [x + u, y + v];
  const [near, far] = [cone - length / 2, cone + length / 2];
  const side = [
    segment(at(near, -small), at(near, small)),
    segment(at(far, -large), at(far, large)),
    segment(at(near, small), at(far, large)),
    segment(at(near, -small), at(far, -large)),
  ];
  return [
    { line: 'thin', pieces: [...side, fullCircle('', at(rings, 0), small), fullCircle('', at(rings, 0), large)] },
    {
      line: 'centre',
      pieces: [
        segment(at(near - 1, 0), at(far + 1, 0)),
        segment(at(rings - large - 1, 0), at(rings + large + 1, 0)),
        segment(at(rings, -large - 1), at(rings, large + 1)),
      ],
    },
  ];
}
