import type { Vec2 } from '../math/index.ts';
import { LINE_KINDS, LINES, type Lettering, type SheetPicture } from '../drawing/index.ts';
import { pathRuns } from './drawing-files.ts';
import { escapedXml } from './solids.ts';

const text = (n: number): string => `${Number(n.toFixed(6)) + 0}`;

/** Capitals of the letters that are used are so high, in parts of their size. */
export const CAPITALS = 0.66;

export interface SheetPath {
  readonly line: (typeof LINE_KINDS)[number];
  readonly d: string;
}

/** The lines of a sheet as path data, one for each kind of line; mm from its upper left corner. */
export function sheetPaths({ size, strokes }: SheetPicture): SheetPath[] {
  const place = ([x, y]: Vec2) => `${text(x)} ${text(size[1] - y)}`;
  return LINE_KINDS.flatMap((line): SheetPath[] => {
    const pieces = strokes.filter((stroke) => stroke.line === line).flatMap((stroke) => stroke.pieces);
    return pieces.length > 0 ? [{ line, d: pathRuns(pieces, place).join('') }] : [];
  });
}

/** A sheet as an SVG file of its real size. */
export function writeSheetSvg(picture: SheetPicture): string {
  const [w, h] = picture.size.map(text) as [string, string];
  const paths = sheetPaths(picture).map(({ line, d }) => {
    const { width, dashes } = LINES[line];
    const dash = dashes.length > 0 ? ` stroke-dasharray="${dashes.join(' ')}"` : '';
    return `  <path class="${line}" stroke-width="${width}"${dash} d="${d}"/>`;
  });
  const words = picture.letters.map(({ at, text: said, height, anchor, bold, angle }: Lettering) => {
    const weight = bold ? ' font-weight="600"' : '';
    const [x, y] = [text(at[0]), text(picture.size[1] - at[1])];
    const turn = angle ? ` transform="rotate(${text((-angle * 180) / Math.PI)} ${x} ${y})"` : '';
    return `  <text x="${x}" y="${y}" font-size="${text(height / CAPITALS)}" text-anchor="${anchor}"${weight}${turn}>${escapedXml(said)}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">
<g fill="none" stroke="#000" stroke-linecap="round" stroke-linejoin="round">
${paths.join('\n')}
</g>
<g font-family="'Source Sans 3', sans-serif">
${words.join('\n')}
</g>
</svg>
`;
}
