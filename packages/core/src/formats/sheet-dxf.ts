import { LINE_KINDS, LINES, type Lettering, type LineKind, type SheetPicture } from '../drawing/index.ts';
import { dxfEntities, dxfFile, pairs } from './drawing-files.ts';

/** Letters lie on a layer of their own. */
const LETTERS = 'LETTERS';
const layerOf = (line: LineKind): string => line.toUpperCase();

/** A sheet as a DXF file of its real size, in mm: a layer for each kind of line, with its width and its dashes. */
export function writeSheetDxf({ strokes, letters }: SheetPicture): string {
  const used = LINE_KINDS.filter((line) => strokes.some((stroke) => stroke.line === line));
  const entities = strokes.flatMap(({ line, pieces }) => dxfEntities(pieces, layerOf(line)));
  return dxfFile([...entities, ...letters.map(lettering)], [lineTypes(used), layers(used)]);
}

/** @param first the handle of the table; those of its rows follow */
function table(name: string, first: number, rows: readonly ((handle: string) => string)[]): string {
  const handle = (k: number) => (first + k).toString(16).toUpperCase();
  return [
    pairs([0, 'TABLE'], [2, name], [5, handle(0)], [100, 'AcDbSymbolTable'], [70, `${rows.length}`]),
    ...rows.map((row, k) => row(handle(k + 1))),
    pairs([0, 'ENDTAB']),
  ].join('\n');
}

function lineTypes(used: readonly LineKind[]): string {
  const type = (name: string, dashes: readonly number[], words: string) => (handle: string) =>
    [
      pairs(
        ...([
          [0, 'LTYPE'],
          [5, handle],
          [100, 'AcDbSymbolTableRecord'],
          [100, 'AcDbLinetypeTableRecord'],
          [2, name],
          [70, '0'],
          [3, words],
          [72, '65'],
          [73, `${dashes.length}`],
          [40, dashes.reduce((sum, dash) => sum + dash, 0)],
        ] as const),
      ),
      ...dashes.map((dash, k) => pairs([49, k % 2 === 0 ? dash : -dash], [74, '0'])),
    ].join('\n');
  const broken = used.filter((line) => LINES[line].dashes.length > 0);
  const rows = [
    type('BYBLOCK', [], ''),
    type('BYLAYER', [], ''),
    type('CONTINUOUS', [], 'solid'),
    ...broken.map((line) => type(layerOf(line), LINES[line].dashes, LINES[line].words)),
  ];
  return table('LTYPE', 0x10, rows);
}

/** Widths in hundredths of a millimetre are taken from a list; the nearest one. */
const WIDTHS = [13, 15, 18, 20, 25, 30, 35, 40, 50, 53, 60, 70, 80, 90, 100];
const widthCode = (mm: number): number =>
  WIDTHS.reduce((near, width) => (Math.abs(width - mm * 100) < Math.abs(near - mm * 100) ? width : near));

function layers(used: readonly LineKind[]): string {
  const layer = (name: string, type: string, width: number) => (handle: string) =>
    pairs(
      [0, 'LAYER'],
      [5, handle],
      [100, 'AcDbSymbolTableRecord'],
      [100, 'AcDbLayerTableRecord'],
      [2, name],
      [70, '0'],
      [62, '7'],
      [6, type],
      [370, `${widthCode(width)}`],
    );
  const rows = [
    layer('0', 'CONTINUOUS', 0.25),
    ...used.map((line) =>
      layer(layerOf(line), LINES[line].dashes.length > 0 ? layerOf(line) : 'CONTINUOUS', LINES[line].width),
    ),
    layer(LETTERS, 'CONTINUOUS', 0.25),
  ];
  return table('LAYER', 0x40, rows);
}

const ANCHORS = { start: 0, middle: 1, end: 2 } as const;

function lettering({ at: [x, y], text, height, anchor, angle = 0 }: Lettering): string {
  return pairs(
    [0, 'TEXT'],
    [100, 'AcDbEntity'],
    [8, LETTERS],
    [100, 'AcDbText'],
    [10, x],
    [20, y],
    [30, 0],
    [40, height],
    [50, (angle * 180) / Math.PI],
    [1, text.replace(/[\r\n]/g, ' ').replace(/[^\x20-\x7e]/g, coded)],
    [72, `${ANCHORS[anchor]}`],
    [11, x],
    [21, y],
    [31, 0],
    [100, 'AcDbText'],
  );
}

/** The file is ASCII: other letters by their code. */
const coded = (letter: string): string => `\\U+${letter.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`;
