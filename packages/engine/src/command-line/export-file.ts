import { dirname, extname } from 'node:path';
import { drawnPart, explain, fail, ok, type CutOptions, type Id, type Project, type Result } from '@helb/core';
import { FILE_FORMATS, type FileFormat } from '../exporting.ts';
import { cutList, writeCutList, writeBillOfMaterials } from '../lists.ts';
import type { OutlineFormat } from '../outlines.ts';
import { billOfMaterials } from '../bill-of-materials.ts';
import type { Engine } from '../engine.ts';
import { filesIn } from './files.ts';
import { openProject } from './opening.ts';
import { EXIT, written, type Surroundings } from './surroundings.ts';

interface ExportOptions {
  readonly file: string;
  readonly set: readonly string[];
  readonly variant?: string | undefined;
  readonly files?: string | undefined;
  readonly part?: string | undefined;
  readonly sketch?: string | undefined;
  readonly list?: string | undefined;
  readonly outline?: boolean;
  /** Also where a step fails. */
  readonly anyway?: boolean;
  readonly width?: string | undefined;
  readonly arcs?: string | undefined;
  readonly to?: string | undefined;
}

/** What is written: asked for by a file's ending, and what of the project. */
interface Wanted {
  readonly cut: CutOptions;
  readonly engine: Engine;
  readonly project: Project;
  readonly part?: Id;
  readonly sketch?: Id;
}
type Write = (wanted: Wanted) => Promise<Result<Uint8Array | string>>;

const solids =
  (format: FileFormat): Write =>
  ({ engine, project, part }) =>
    part === undefined ? engine.assemblyFile(project, format) : engine.partFile(project, part, format);
const outline =
  (format: 'dxf' | 'svg'): Write =>
  ({ engine, project, part, sketch }) =>
    engine.outlineFile(project, part!, sketch!, format);

const cutting =
  (format: OutlineFormat): Write =>
  ({ engine, project, part, cut }) =>
    engine.cutFile(project, part!, cut, format);

const SOLIDS: Readonly<Record<string, Write>> = {
  ...Object.fromEntries(Object.keys(FILE_FORMATS).map((format) => [format, solids(format as FileFormat)])),
  stp: solids('step'),
};
const OUTLINES: Readonly<Record<string, Write>> = { dxf: outline('dxf'), svg: outline('svg') };
const CUTS: Readonly<Record<string, Write>> = { dxf: cutting('dxf'), svg: cutting('svg') };
const LISTS: Readonly<Record<string, Write>> = {
  'make-up': async ({ engine, project }) => ok(writeBillOfMaterials(await rowsOf(engine, project))),
  cut: async ({ engine, project }) => ok(writeCutList(cutList(await rowsOf(engine, project)))),
};
async function rowsOf(engine: Engine, project: Project) {
  const { model, assembled } = await engine.assemble(project);
  return billOfMaterials(project, model, assembled.members);
}

const CAUTION =
  "Before it is cut, turned or printed: check sizes and units in the machine's program; guards, eyes, clamping; follow the machine's manual and local rules. Nothing here proves strength.";
const USAGE =
  'Say what and where to: a part (--part NAME) or all that is placed, --to OUT.step, .stl, .3mf, .obj or .glb; of a sketch also --sketch NAME, to OUT.dxf or .svg; its largest flat face for cutting: --part NAME --outline [--width MM] [--arcs MM], to OUT.dxf or .svg; a list: --list make-up or cut, to OUT.csv.';

/** Writes a part, all that is placed, the outline of a sketch or a list as a file of another program. */
export async function exportFile(options: ExportOptions, world: Surroundings): Promise<number> {
  const { file, set, variant, files, to } = options;
  const write = to === undefined ? undefined : writerOf(options, extname(to).slice(1).toLowerCase());
  const refused = (words: string) => {
    world.complain(words);
    return EXIT.usage;
  };
  const isCut = options.outline === true && options.sketch === undefined;
  if (!write || to === undefined || (!isCut && (options.width ?? options.arcs) !== undefined)) return refused(USAGE);
  const cut = cutOf(options);
  if (!cut) return refused('Widths of cuts and how far arcs may be off are numbers of mm: --width 0.2 --arcs 0.01.');
  const opened = await openProject(file, set, variant, world);
  if (typeof opened === 'number') return opened;
  const { project } = opened;
  const named = namedIn(project, options);
  if (!named.ok) return refused(explain(named.issue));
  const engine = await world.startEngine(filesIn(files ?? dirname(file)));
  const wrong = options.list === undefined && !options.anyway ? await engine.troubles(project, named.value.part) : [];
  if (wrong.length > 0) {
    wrong.forEach((issue) => world.complain(explain(issue)));
    world.complain('Nothing was written. To write the last that was good all the same, say --anyway.');
    return EXIT.failed;
  }
  const bytes = await write({ engine, project, cut, ...named.value });
  if (bytes.ok) return written(to, bytes.value, CAUTION, world);
  world.complain(explain(bytes.issue));
  return EXIT.failed;
}

/** How wide the cut is, and how close arcs follow; undefined where that is no number. */
function cutOf({ width = '0', arcs }: ExportOptions): CutOptions | undefined {
  const [wide, close] = [Number(width), arcs === undefined ? undefined : Number(arcs)];
  if (!(wide >= 0 && wide <= 100) || (close !== undefined && !(close > 0 && close <= 10))) return undefined;
  return { width: wide, ...(close === undefined ? {} : { arcs: close }) };
}

function writerOf({ part, sketch, list, outline }: ExportOptions, ending: string): Write | undefined {
  const known = (writers: Readonly<Record<string, Write>>, name: string) =>
    Object.hasOwn(writers, name) ? writers[name] : undefined;
  if (list !== undefined) return ending === 'csv' ? known(LISTS, list) : undefined;
  if (sketch !== undefined) return part === undefined ? undefined : known(OUTLINES, ending);
  if (outline) return part === undefined ? undefined : known(CUTS, ending);
  return known(SOLIDS, ending);
}

/** The part and the sketch that are called so. */
function namedIn(project: Project, { part, sketch }: ExportOptions): Result<{ part?: Id; sketch?: Id }> {
  if (part === undefined) return ok({});
  const names = project.partOrder.map((id) => project.parts[id]!.name);
  const id = project.partOrder[names.indexOf(part)];
  if (id === undefined) return fail('export.part', { part, known: names.join(', ') || 'none' });
  if (sketch === undefined) return ok({ part: id });
  const { steps } = drawnPart(project, id)!;
  const drawn = Object.keys(steps).find((step) => steps[step]!.kind === 'sketch' && steps[step].name === sketch);
  return drawn === undefined ? fail('export.sketch', { part, sketch }) : ok({ part: id, sketch: drawn });
}
