import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { explain, writeSheetDxf, writeSheetSvg, type Project, type SheetPicture } from '@helb/core';
import { Engine } from '../engine.ts';
import { filesIn } from './files.ts';
import { openProject } from './opening.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

export interface SheetOptions {
  readonly file: string;
  readonly set: readonly string[];
  readonly variant?: string | undefined;
  readonly files?: string | undefined;
  readonly sheet?: string | undefined;
  readonly to?: string | undefined;
}

/** What sheets are written as, by the ending of the file. */
const WRITERS: Readonly<
  Record<string, (sheets: readonly SheetPicture[], title: string) => Promise<string | Uint8Array>>
> = {
  pdf: (sheets, title) => pdf(sheets, title),
  svg: ([sheet]) => Promise.resolve(writeSheetSvg(sheet!)),
  dxf: ([sheet]) => Promise.resolve(writeSheetDxf(sheet!)),
};

/** Loaded when somebody writes one. */
async function pdf(sheets: readonly SheetPicture[], title: string): Promise<Uint8Array> {
  const { writePdf } = await import('@helb/core/sheet-files');
  const { resolve } = createRequire(import.meta.url);
  const font = (weight: number) =>
    Promise.all(
      ['latin', 'latin-ext', 'greek', 'cyrillic'].map((letters) =>
        readFile(resolve(`@fontsource/source-sans-3/files/source-sans-3-${letters}-${weight}-normal.woff`)),
      ),
    );
  const [regular, bold] = await Promise.all([font(400), font(600)]);
  return writePdf(sheets, { regular, bold }, title);
}

/** Draws a sheet of a project, or all of them in one PDF file. */
export async function drawSheets(options: SheetOptions, world: Surroundings): Promise<number> {
  const { file, set, variant, files, sheet, to } = options;
  const ending = to?.toLowerCase().split('.').at(-1) ?? '';
  const write = Object.hasOwn(WRITERS, ending) ? WRITERS[ending] : undefined;
  if (to === undefined || !write || (sheet === undefined && ending !== 'pdf')) {
    world.complain('Say which sheet and where to: --sheet NAME --to OUT.pdf, .svg or .dxf; all of them: --to OUT.pdf.');
    return EXIT.usage;
  }
  const opened = await openProject(file, set, variant, world);
  if (typeof opened === 'number') return opened;
  const { project } = opened;
  const wanted = (project.sheetOrder ?? []).filter((id) => sheet === undefined || project.sheets![id]!.name === sheet);
  if (wanted.length === 0) {
    world.complain(
      `${sheet === undefined ? 'There is no sheet' : `There is no sheet "${sheet}"`}. ${namesOf(project)}`,
    );
    return EXIT.usage;
  }
  const engine = new Engine(await world.startKernel(), { files: filesIn(files ?? dirname(file)) });
  const pictures: SheetPicture[] = [];
  for (const id of wanted) {
    const drawn = await engine.sheet(project, id);
    if (!drawn.ok) {
      world.complain(`${project.sheets![id]!.name}: ${explain(drawn.issue)}`);
      return EXIT.failed;
    }
    pictures.push(drawn.value.picture);
  }
  return written(to, await write(pictures, project.name), CAUTION, world);
}

const CAUTION =
  'Have it read by a second person before anything is made from it; nothing here proves strength. Print it at full size.';

const namesOf = ({ sheets = {}, sheetOrder = [] }: Project): string =>
  sheetOrder.length === 0
    ? 'The project has none yet.'
    : `The sheets are: ${sheetOrder.map((id) => sheets[id]!.name).join(', ')}.`;
