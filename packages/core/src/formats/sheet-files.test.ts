import DxfParser from 'dxf-parser';
import { XMLParser } from 'fast-xml-parser';
import {
  composed,
  defaultSheet,
  USUAL_BLOCK,
  MovingFaces,
  type Lettering,
  type SheetPicture,
} from '../drawing/index.ts';
import { fullCircle, fullEllipse } from '../sketch/pieces/index.ts';
import { writeSheetDxf } from './sheet-dxf.ts';
import { inkOf } from './sheet-ink.ts';
import { sheetPaths, writeSheetSvg } from './sheet-svg.ts';

const LETTERS: Lettering = { at: [30, 20], text: 'A–A < "B" & 5°', height: 3.5, anchor: 'middle' };
const PICTURE: SheetPicture = {
  size: [297, 210],
  strokes: [
    {
      line: 'visible',
      pieces: [fullCircle('', [50, 60], 10), { form: 'segment', entity: '', from: [0, 0], to: [10, 5] }],
    },
    { line: 'hidden', pieces: [fullEllipse('', [80, 60], [90, 60], 4)] },
    { line: 'centre', pieces: [{ form: 'segment', entity: '', from: [40, 60], to: [60, 60] }] },
  ],
  letters: [LETTERS],
};

describe('a sheet as DXF, read by another program', () => {
  const read = new DxfParser().parseSync(writeSheetDxf(PICTURE))!;

  test('in millimetres, with a layer for each kind of line', () => {
    expect(read.header['$INSUNITS']).toBe(4);
    expect(Object.keys(read.tables.layer.layers).sort()).toEqual(['0', 'CENTRE', 'HIDDEN', 'LETTERS', 'VISIBLE']);
    expect(read.tables.lineType.lineTypes['HIDDEN']!.pattern).toEqual(['3', '-0.75'].map(Number));
    const on = (layer: string) => read.entities.filter((entity) => entity.layer === layer).map(({ type }) => type);
    expect(on('VISIBLE')).toEqual(['CIRCLE', 'LINE']);
    expect(on('HIDDEN')).toEqual(['ELLIPSE']);
    expect(on('CENTRE')).toEqual(['LINE']);
  });

  test('as large and where it is on paper', () => {
    const circle = read.entities.find(({ type }) => type === 'CIRCLE') as unknown as { center: object; radius: number };
    expect(circle).toMatchObject({ center: { x: 50, y: 60 }, radius: 10 });
    const text = read.entities.find(({ type }) => type === 'TEXT') as unknown as { text: string; textHeight: number };
    expect(text.textHeight).toBe(3.5);
    expect(text.text).toBe('A\\U+2013A < "B" & 5\\U+00B0');
  });
});

test('a sheet as SVG: of its real size, its letters as they are', () => {
  const svg = writeSheetSvg(PICTURE);
  const read = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '' }).parse(svg) as {
    svg: { width: string; height: string; g: [{ path: Record<string, string>[] }, { text: Record<string, string> }] };
  };
  expect([read.svg.width, read.svg.height]).toEqual(['297mm', '210mm']);
  const [{ path }, { text }] = read.svg.g;
  expect(path.map((one) => [one['class'], one['stroke-width'], one['stroke-dasharray']])).toEqual([
    ['visible', '0.5', undefined],
    ['hidden', '0.25', '3 0.75'],
    ['centre', '0.25', '6 0.75 0.25 0.75'],
  ]);
  expect(path[2]!['d']).toBe('M40 150L60 150');
  expect(text['#text']).toBe('A–A < "B" & 5°');
  expect(text['text-anchor']).toBe('middle');
});

test('a sheet of nothing is its frame and its title block', () => {
  const sheet = {
    ...defaultSheet({ id: 'p', name: 'Plate' }, { paper: 'A3', projection: 'third' }),
    title: { date: 'today' },
  };
  const text = { project: 'Sieve', part: 'Plate', material: 'Beech', mass: '12 g', number: 2, of: 5 };
  const written = {
    block: USUAL_BLOCK,
    marks: [],
    sceneAt: () => ({ faces: new MovingFaces([]), topologies: [] }),
    mirrors: [],
    parts: [],
  };
  const { picture, views, scale } = composed(sheet, [], text, written).sheet;
  expect(views).toEqual({});
  expect(picture.size).toEqual([420, 297]);
  const said = picture.letters.map((one) => one.text);
  for (const words of ['Sieve', 'Plate', 'Beech', '12 g', '2 of 5', 'today', scale, 'A3'])
    expect(said).toContain(words);
  // it lies in the lower right corner of the frame
  const places = picture.letters.map(({ at }) => at);
  expect(Math.min(...places.map(([x]) => x))).toBeGreaterThanOrEqual(420 - 10 - 180);
  expect(Math.max(...places.map(([, y]) => y))).toBeLessThan(10 + 36);
});

test('a sheet as it is shown: all of its ink once, apart by what is dragged', () => {
  const [circle, ellipse, segment] = PICTURE.strokes;
  const picture: SheetPicture = {
    size: [297, 210],
    strokes: [segment!, { ...circle!, view: 'v' }, { ...ellipse!, view: 'v', mark: 'm' }],
    letters: [LETTERS, { ...LETTERS, mark: 'm', text: '8' }, { ...LETTERS, mark: 'n', text: '9' }],
  };
  const ink = inkOf(picture);
  const d = (line: string) => sheetPaths(picture).filter((path) => path.line === line);
  expect(ink).toEqual({
    size: [297, 210],
    paper: { paths: d('centre'), letters: [LETTERS] },
    views: { v: d('visible') },
    marks: {
      m: { paths: d('hidden'), letters: [{ ...LETTERS, mark: 'm', text: '8' }] },
      n: { paths: [], letters: [{ ...LETTERS, mark: 'n', text: '9' }] },
    },
  });
});
