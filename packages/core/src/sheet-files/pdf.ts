import { LineCapStyle, PDFDocument, radians, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { LINES, type Lettering, type SheetPicture } from '../drawing/index.ts';
import { CAPITALS, sheetPaths } from '../formats/index.ts';

/** Points in a millimetre. */
const POINTS = 72 / 25.4;
const INK = rgb(0, 0, 0);

/**
 * Fonts that are embedded, as the bytes of WOFF or OpenType files: a letter is taken from the first that has it.
 */
export interface SheetFonts {
  readonly regular: readonly Uint8Array[];
  readonly bold: readonly Uint8Array[];
}

/** What no font has a letter for is told by this. */
const UNKNOWN = '?';

/** Sheets as one PDF file, a page each of its real size: lines as curves, letters as text in embedded fonts. */
export async function writePdf(sheets: readonly SheetPicture[], fonts: SheetFonts, title: string): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  file.setTitle(title);
  file.setProducer('Helb');
  file.registerFontkit(fontkit);
  const used = { regular: new Fonts(file, fonts.regular), bold: new Fonts(file, fonts.bold) };
  for (const sheet of sheets) {
    const page = file.addPage([sheet.size[0] * POINTS, sheet.size[1] * POINTS]);
    drawLines(page, sheet);
    for (const words of sheet.letters) await drawWords(page, words, words.bold ? used.bold : used.regular);
  }
  return file.save();
}

function drawLines(page: PDFPage, sheet: SheetPicture): void {
  for (const { line, d } of sheetPaths(sheet)) {
    const { width, dashes } = LINES[line];
    page.drawSvgPath(d, {
      x: 0,
      y: sheet.size[1] * POINTS,
      scale: POINTS,
      borderColor: INK,
      // scaled along with the path
      borderWidth: width,
      borderLineCap: LineCapStyle.Round,
      ...(dashes.length > 0 ? { borderDashArray: [...dashes] } : {}),
    });
  }
}

async function drawWords(
  page: PDFPage,
  { at, text, height, anchor, angle = 0 }: Lettering,
  fonts: Fonts,
): Promise<void> {
  const size = (height / CAPITALS) * POINTS;
  const runs = await fonts.runs(text);
  const widths = runs.map(({ font, words }) => font.widthOfTextAtSize(words, size));
  const share = { start: 0, middle: 0.5, end: 1 }[anchor];
  let along = -share * widths.reduce((sum, width) => sum + width, 0);
  for (const [k, { font, words }] of runs.entries()) {
    const [x, y] = [at[0] * POINTS + along * Math.cos(angle), at[1] * POINTS + along * Math.sin(angle)];
    page.drawText(words, { x, y, size, font, color: INK, rotate: radians(angle) });
    along += widths[k]!;
  }
}

/** Fonts that stand in for each other; each is embedded when the first letter of it is wanted. */
class Fonts {
  private readonly letters: readonly ReadonlySet<number>[];
  private readonly embedded = new Map<number, Promise<PDFFont>>();

  constructor(
    private readonly file: PDFDocument,
    private readonly sources: readonly Uint8Array[],
  ) {
    this.letters = sources.map((bytes) => {
      const font = fontkit.create(bytes as never);
      return new Set('characterSet' in font ? font.characterSet : []);
    });
  }

  /** A text in stretches of one font each. */
  async runs(text: string): Promise<{ font: PDFFont; words: string }[]> {
    const runs: { source: number; words: string }[] = [];
    for (const letter of text) {
      const having = this.sourceOf(letter);
      const source = having < 0 ? this.sourceOf(UNKNOWN) : having;
      const words = having < 0 ? UNKNOWN : letter;
      const last = runs.at(-1);
      if (last?.source === source) last.words += words;
      else runs.push({ source, words });
    }
    return Promise.all(runs.map(async ({ source, words }) => ({ font: await this.font(source), words })));
  }

  private sourceOf = (letter: string): number => this.letters.findIndex((known) => known.has(letter.codePointAt(0)!));

  private font(source: number): Promise<PDFFont> {
    const known = this.embedded.get(source) ?? this.file.embedFont(this.sources[source]!, { subset: true });
    this.embedded.set(source, known);
    return known;
  }
}
