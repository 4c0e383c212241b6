import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { explain, writeSheetDxf, writeSheetSvg, type Id, type Project, type SheetPicture } from '@helb/core';
import { filesIn } from './files.ts';
import { openProject } from './opening.ts';
import { checkSheets, tellSizes } from './telling.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

export interface SheetOptions {
  readonly file: string;
  readonly set: readonly string[];
  readonly variant?: string | undefined;
  readonly files?: string | undefined;
  readonly sheet?: string | undefined;
  readonly to?: string | undefined;
  readonly check?: boolean;
  readonly tell?: boolean;
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

/** Draws sheets of a project, tells what is missing on them, or writes that into the project. */
export async function sheets(options: SheetOptions, world: Surroundings): Promise<number> {
  if ([options.tell, options.check, options.to !== undefined].filter(Boolean).length > 1) {
    world.complain('Say one of --to, --check and --tell.');
    return EXIT.usage;
  }
  if (options.tell && (options.variant !== undefined || options.set.length > 0)) {
    world.complain('What is told is written into the project as it stands: leave out --variant and --set.');
    return EXIT.usage;
  }
  const ids = (project: Project) => wantedOf(project, options.sheet, world);
  if (options.tell) return tellSizes(options, ids, world);
  return options.check ? checkSheets(options, ids, world) : drawSheets(options, ids, world);
}

function wantedOf(project: Project, sheet: string | undefined, world: Surroundings): readonly Id[] | number {
  const wanted = (project.sheetOrder ?? []).filter((id) => sheet === undefined || project.sheets![id]!.name === sheet);
  if (wanted.length > 0) return wanted;
  world.complain(`${sheet === undefined ? 'There is no sheet' : `There is no sheet "${sheet}"`}. ${namesOf(project)}`);
  return EXIT.usage;
}

/** One sheet, or all of them in one PDF file. */
async function drawSheets(
  { file, set, variant, files, sheet, to }: SheetOptions,
  ids: (project: Project) => readonly Id[] | number,
  world: Surroundings,
): Promise<number> {
  const ending = to?.toLowerCase().split('.').at(-1) ?? '';
  const write = Object.hasOwn(WRITERS, ending) ? WRITERS[ending] : undefined;
  if (to === undefined || !write || (sheet === undefined && ending !== 'pdf')) {
    world.complain(
      'Say which sheet and where to: --sheet NAME --to OUT.pdf, .svg or .dxf; all of them: --to OUT.pdf; or --check, or --tell.',
    );
    return EXIT.usage;
  }
  const opened = await openProject(file, set, variant, world);
  if (typeof opened === 'number') return opened;
  const { project } = opened;
  const wanted = ids(project);
  if (typeof wanted === 'number') return wanted;
  const engine = await world.startEngine(filesIn(files ?? dirname(file)));
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
