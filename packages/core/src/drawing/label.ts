import type { Vec2 } from '../math/index.ts';
import type { Piece } from '../sketch/pieces/index.ts';
import { segment, type Lettering } from './picture.ts';
import { signPieces, signWidth, type SignName } from './signs.ts';

/** A part of a line of text. */
export type LabelPart =
  | string
  | { readonly sign: SignName }
  /** Two small lines over each other: deviations. */
  | { readonly upper: string; readonly lower: string }
  /** Parts with a frame round each, as of geometrical tolerances. */
  | { readonly cells: readonly (readonly LabelPart[])[] };
export type LabelRow = readonly LabelPart[];

/** Text of several rows with signs in it. */
export interface Label {
  readonly rows: readonly LabelRow[];
  /** Height of capitals, mm. */
  readonly height: number;
}

/** How wide letters of the font are, in heights of capitals. */
const WIDTHS: Readonly<Record<string, number>> = { '.': 0.38, ',': 0.38, ' ': 0.3, '°': 0.52, M: 1.26, '-': 0.47 };
const DIGIT = 0.755;
const LETTER = 0.83;
/** How wide a text is, in heights of its capitals. */
export const textWidth = (text: string): number =>
  [...text].reduce((sum, letter) => sum + (WIDTHS[letter] ?? (/[\d+±×–]/.test(letter) ? DIGIT : LETTER)), 0);

/** Small lines are so high, and rows so far apart, in heights of capitals. */
const SMALL = 0.65;
const ROW = 1.75;
const CELL = { pad: 0.4, low: -0.45, high: 1.45 } as const;

function partWidth(part: LabelPart): number {
  if (typeof part === 'string') return textWidth(part);
  if ('sign' in part) return signWidth(part.sign) + 0.1;
  if ('upper' in part) return 0.2 + SMALL * Math.max(textWidth(part.upper), textWidth(part.lower));
  return part.cells.reduce((sum, cell) => sum + cellWidth(cell), 0);
}
const rowWidth = (row: LabelRow): number => joined(row).reduce((sum, part) => sum + partWidth(part), 0);

/** Words that follow each other are one word. */
function joined(row: LabelRow): LabelPart[] {
  const parts: LabelPart[] = [];
  for (const part of row) {
    const last = parts.at(-1);
    if (typeof part === 'string' && typeof last === 'string') parts[parts.length - 1] = last + part;
    else parts.push(part);
  }
  return parts;
}

const cellWidth = (cell: LabelRow): number => Math.max(rowWidth(cell) + 2 * CELL.pad, CELL.high - CELL.low);

/** Width and height of a label, mm. */
export const labelSize = ({ rows, height }: Label): Vec2 => [
  Math.max(0, ...rows.map(rowWidth)) * height,
  (1 + (rows.length - 1) * ROW) * height,
];

interface LabelInk {
  readonly pieces: readonly Piece[];
  readonly letters: readonly Lettering[];
}

/** A label with its middle at a place, turned counter-clockwise by an angle, rad. */
export function labelInk(label: Label, centre: Vec2, angle = 0): LabelInk {
  const [width, tall] = labelSize(label);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const place = ([x, y]: Vec2): Vec2 => [centre[0] + x * cos - y * sin, centre[1] + x * sin + y * cos];
  const pen = new Pen(label.height, place, angle);
  label.rows.forEach((row, k) => pen.row(row, [-width / 2, tall / 2 - (1 + k * ROW) * label.height]));
  return pen;
}

/** Writes rows on paper that may be turned. */
class Pen implements LabelInk {
  readonly pieces: Piece[] = [];
  readonly letters: Lettering[] = [];

  constructor(
    private readonly height: number,
    private readonly place: (at: Vec2) => Vec2,
    private readonly angle: number,
  ) {}

  row(row: LabelRow, [left, base]: Vec2): void {
    let x = left;
    for (const part of joined(row)) {
      if (typeof part === 'string') this.write(part, [x, base], 1);
      else if ('sign' in part)
        this.pieces.push(...signPieces(part.sign, ([u, v]) => this.place([x + u, base + v]), this.height));
      else if ('upper' in part) {
        const at = x + 0.2 * this.height;
        this.write(part.upper, [at, base + 0.62 * this.height], SMALL);
        this.write(part.lower, [at, base - 0.32 * this.height], SMALL);
      } else this.cells(part.cells, [x, base]);
      x += partWidth(part) * this.height;
    }
  }

  private write(text: string, at: Vec2, share: number): void {
    const turn = this.angle === 0 ? {} : { angle: this.angle };
    this.letters.push({ at: this.place(at), text, height: share * this.height, anchor: 'start', ...turn });
  }

  private cells(cells: readonly LabelRow[], [x, base]: Vec2): void {
    let from = x;
    const [low, high] = [base + CELL.low * this.height, base + CELL.high * this.height];
    for (const cell of cells) {
      const to = from + cellWidth(cell) * this.height;
      const corners = (
        [
          [from, low],
          [to, low],
          [to, high],
          [from, high],
        ] as const
      ).map((at) => this.place(at));
      this.pieces.push(...corners.map((corner, k) => segment(corner, corners[(k + 1) % 4]!)));
      this.row(cell, [(from + to - rowWidth(cell) * this.height) / 2, base]);
      from = to;
    }
  }
}

/** How long and how wide arrows are, mm (ISO 129-1: closed, narrow). */
const ARROW = [2.5, 0.42] as const;

/** An arrow on paper. @param pointing a unit vector */
export function arrowPieces(tip: Vec2, pointing: Vec2): Piece[] {
  const [long, wide] = ARROW;
  const [x, y] = [tip[0] - long * pointing[0], tip[1] - long * pointing[1]];
  const [left, right]: Vec2[] = [
    [x - wide * pointing[1], y + wide * pointing[0]],
    [x + wide * pointing[1], y - wide * pointing[0]],
  ];
  // narrow enough to be black with two lines more
  const half = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const back: Vec2 = [x, y];
  return [
    segment(tip, left!),
    segment(left!, right!),
    segment(right!, tip),
    segment(tip, half(back, left!)),
    segment(tip, half(back, right!)),
  ];
}
