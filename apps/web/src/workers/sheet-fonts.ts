import regularCyrillic from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-400-normal.woff?url';
import regularGreek from '@fontsource/source-sans-3/files/source-sans-3-greek-400-normal.woff?url';
import regularLatin from '@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff?url';
import regularMore from '@fontsource/source-sans-3/files/source-sans-3-latin-ext-400-normal.woff?url';
import boldCyrillic from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-600-normal.woff?url';
import boldGreek from '@fontsource/source-sans-3/files/source-sans-3-greek-600-normal.woff?url';
import boldLatin from '@fontsource/source-sans-3/files/source-sans-3-latin-600-normal.woff?url';
import boldMore from '@fontsource/source-sans-3/files/source-sans-3-latin-ext-600-normal.woff?url';
import type { SheetFonts } from '@helb/core/sheet-files';

const bytesOf = (urls: readonly string[]): Promise<Uint8Array[]> =>
  Promise.all(urls.map(async (url) => new Uint8Array(await (await fetch(url)).arrayBuffer())));

/** What sheets are lettered with. */
export async function sheetFonts(): Promise<SheetFonts> {
  const [regular, bold] = await Promise.all([
    bytesOf([regularLatin, regularMore, regularGreek, regularCyrillic]),
    bytesOf([boldLatin, boldMore, boldGreek, boldCyrillic]),
  ]);
  return { regular, bold };
}
