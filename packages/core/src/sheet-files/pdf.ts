import { LineCapStyle, PDFDocument, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { LINES, type Lettering, type SheetPicture } from '../drawing/index.ts';
import { CAPITALS, sheetPaths } from '../formats/index.ts';

/** Points in a millimetre. */
const POINTS = 72 / 25.4;
const INK = rgb(0, 0, 0);

/** Fonts that are embedded, as the bytes of WOFF or OpenType files. */
export interface SheetFonts {
  readonly regular: Uint8Array;
  readonly bold: Uint8Array;
}

/** Sheets as one PDF file, a page each of its real size: lines as curves, letters as text in embedded fonts. */
export async function writePdf(sheets: readonly SheetPicture[], fonts: SheetFonts, title: string): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  file.setTitle(title);
  file.setProducer('Helb');
  file.registerFontkit(fontkit);
  const [regular, bold] = await Promise.all(
    [fonts.regular, fonts.bold].map((bytes) => file.embedFont(bytes, { subset: true })),
  );
  for (const sheet of sheets) {
    const page = file.addPage([sheet.size[0] * POINTS, sheet.size[1] * POINTS]);
    drawLines(page, sheet);
    sheet.letters.forEach((words) => drawWords(page, words, words.bold ? bold! : regular!));
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

function drawWords(page: PDFPage, { at, text, height, anchor }: Lettering, font: PDFFont): void {
  const size = (height / CAPITALS) * POINTS;
  // what the font has no letter for would be an empty box: it is left out
  const known = new Set(font.getCharacterSet());
  const said = [...text].filter((letter) => known.has(letter.codePointAt(0)!)).join('');
  const share = { start: 0, middle: 0.5, end: 1 }[anchor];
  const x = at[0] * POINTS - share * font.widthOfTextAtSize(said, size);
  page.drawText(said, { x, y: at[1] * POINTS, size, font, color: INK });
}
