import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import opentype from 'opentype.js';
import { ROOT } from './build-server.ts';

// Writes the outlines of the letters that sketches can be lettered with: Source Sans 3 (SIL Open Font License 1.1), the
// Latin files as they are shipped for the page. Run once after an update of the font; the result is committed.

const FILES = ['latin', 'latin-ext'].map(
  (part) => `node_modules/@fontsource/source-sans-3/files/source-sans-3-${part}-400-normal.woff`,
);
const WANTED = [
  [0x20, 0x7e],
  [0xa1, 0x17f],
  [0x2013, 0x2014],
  [0x2018, 0x201e],
] as const;

interface FontCommand {
  readonly type: string;
  readonly [coordinate: string]: number | string;
}
interface Font {
  readonly unitsPerEm: number;
  readonly tables: { readonly os2: { readonly sCapHeight: number } };
  charToGlyphIndex(letter: string): number;
  charToGlyph(letter: string): {
    readonly advanceWidth: number;
    readonly path: { readonly commands: readonly FontCommand[] };
  };
}

const glyphs: Record<string, [advance: number, path: string]> = {};
let capHeight = 0;
for (const file of FILES) {
  const bytes = await readFile(join(ROOT, file));
  const font = opentype.parse(
    bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength),
  ) as unknown as Font;
  capHeight = font.tables.os2.sCapHeight;
  for (const [first, last] of WANTED)
    for (let code = first; code <= last; code++) {
      const letter = String.fromCodePoint(code);
      if (glyphs[letter] || font.charToGlyphIndex(letter) === 0) continue;
      const { advanceWidth, path } = font.charToGlyph(letter);
      glyphs[letter] = [advanceWidth, path.commands.map(written).join('')];
    }
}

function written(command: FontCommand): string {
  const numbers = ['x1', 'y1', 'x2', 'y2', 'x', 'y'].flatMap((key) =>
    key in command ? [Math.round(command[key] as number)] : [],
  );
  return command.type + numbers.join(' ');
}

const lines = Object.entries(glyphs).map(
  ([letter, [advance, path]]) => `  ${JSON.stringify(letter)}: [${advance}, '${path}'],`,
);
const text = `/**
 * Outlines of Source Sans 3 (SIL Open Font License 1.1), written by scripts/font-outlines.ts: advance and path of each
 * letter in font units, y upwards.
 */
export const CAP_HEIGHT = ${capHeight};

export const GLYPHS: Readonly<Record<string, readonly [advance: number, path: string]>> = {
${lines.join('\n')}
};
`;
await writeFile(join(ROOT, 'packages/core/src/sketch/entities/text/source-sans-3.ts'), text);
process.stderr.write(`Wrote ${lines.length} letters.\n`);
