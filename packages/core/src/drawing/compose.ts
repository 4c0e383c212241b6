import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Taken } from '../sketch/index.ts';
import { boxOf, type Box } from '../sketch/pieces/index.ts';
import { breaksOf } from './broken.ts';
import { extentOf } from './extent.ts';
import type { SheetFinding } from './findings.ts';
import { handlesIn, type Handle } from './handles.ts';
import { lookOf } from './issues.ts';
import { textWidth } from './label.ts';
import { laidOut, type LaidView } from './layout.ts';
import { marked, type ComposedMark, type MarkedSheet, type MarkedView, type Scene, type SeenMark } from './marked.ts';
import { PAPERS, paperSize, withinFrame } from './papers.ts';
import { besideList, partsList, type ListedPart } from './parts-list.ts';
import { closedBox, placingOf, type Placing } from './placing.ts';
import { frameOf, type Lettering, type SheetPicture, type Stroke } from './picture.ts';
import { detailBox, larger, layersOf, placedView, timesOf, type Inked, type SeenView } from './placed-view.ts';
import { scaleFactor } from './scales.ts';
import { viewManner, type Sheet } from './schema.ts';
import { titleBlock, titleHeight, type PlacedCell, type TitleBlock, type TitleText } from './title/index.ts';
import type { Witness } from './witness/index.ts';
import {
  cutMarkOf,
  detailSigns,
  drawnNumbers,
  isAcross,
  isMarked,
  numberedIn,
  putNumbers,
  viewName,
  type SheetSign,
} from './view-signs.ts';

export interface ComposedSheet {
  readonly picture: SheetPicture;
  /** The name of the scale. */
  readonly scale: string;
  /** What each view covers, mm on paper, and how it lies there. */
  readonly views: Readonly<Record<Id, Placing & { readonly box: Box }>>;
  readonly marks: Readonly<Record<Id, ComposedMark>>;
  /** What else is dragged by itself, by the keys that its lines and letters carry. */
  readonly signs: Readonly<Record<string, SheetSign>>;
  /** The fields of its title block. */
  readonly cells: readonly PlacedCell[];
  /** What can be picked in its views. */
  readonly handles: readonly Handle[];
  /** What each view looks like, as a short print. */
  readonly looks: Readonly<Record<Id, string>>;
  /** What is to be mended before the sheet goes out. */
  readonly findings: readonly SheetFinding[];
}

/** What names and the signs of cuts take round a view besides the padding, mm. */
const [NAME_ROOM, CUT_ROOM] = [4, 8];

/** What may be drawn on: within the frame, above the title block, beside the list of parts. */
function drawingArea(size: Vec2, sheet: Sheet, { block, parts: { length } }: Written): Box {
  const { low, high } = withinFrame(size);
  return besideList({ low: [low[0], low[1] + titleHeight(block, sheet)], high }, length);
}

/** What is written on a sheet. */
interface Written {
  /** How its title block is laid out. */
  readonly block: TitleBlock;
  readonly marks: readonly SeenMark[];
  /** What they are read of, where it stands in views that are drawn so far apart. */
  sceneAt(apart: number): Scene;
  /** Where what is drawn mirrors as a whole. */
  readonly mirrors: Witness['mirrors'];
  /** The list of parts; empty where there is none. */
  readonly parts: readonly ListedPart[];
}

/** A sheet put together, with what checking it needs. */
export interface PutTogether {
  readonly sheet: Omit<ComposedSheet, 'findings'>;
  readonly views: readonly MarkedView[];
  readonly read: MarkedSheet['read'];
}

/** Height of capitals, mm (ISO 3098): larger on large paper. */
export const letterHeight = ({ paper }: Pick<Sheet, 'paper'>): number => (Math.max(...PAPERS[paper]) > 500 ? 3.5 : 2.5);

/** A sheet put together from what is seen in its views. */
export function composed(
  sheet: Sheet,
  views: readonly SeenView[],
  text: Omit<TitleText, 'scale'>,
  written: Written,
): PutTogether {
  const size = paperSize(sheet.paper, sheet.upright);
  const area = drawingArea(size, sheet, written);
  const shown = views.flatMap((seen) => {
    const layers = layersOf(seen);
    const boxes = layers.flatMap(({ pieces }) => pieces.map(boxOf));
    return boxes.length > 0 ? [{ seen, layers, box: detailBox(seen.view) ?? extentOf(boxes) }] : [];
  });
  const breaks = breaksOf(shown);
  const laid = shown.map(({ seen: { id, view, eye, cut }, box }): LaidView => {
    const isCut = shown.some(({ seen }) => isMarked(seen) && isAcross(view, eye, seen.cut!.line));
    const around = isCut ? CUT_ROOM : view.kind === 'detail' || (cut && isMarked({ view, cut })) ? NAME_ROOM : 0;
    return { id, view, eye, box: larger(closedBox(box, breaks.get(id)), timesOf(view)), around };
  });
  const { scale, places } = laidOut(sheet, laid, area);
  const factor = scaleFactor(scale);
  const placed = shown.map((one) =>
    placedView(one, factor, places.get(one.seen.id)!, breaks.get(one.seen.id), written.mirrors),
  );
  const open = placed.map((one): MarkedView => {
    const { seen, box, visible } = one;
    return { id: seen.id, eye: seen.eye, ...viewManner(sheet.views, seen.view), box, visible, ...placingOf(one) };
  });
  const { low, high } = withinFrame(size);
  const details = detailSigns(placed);
  const signs = [...placed.map((one) => cutMarkOf(one, placed)), ...details];
  const title = titleBlock(written.block, sheet, { ...text, scale }, size);
  const height = letterHeight(sheet);
  const margins = outside(area);
  const numbered = numberedIn(placed, written.parts);
  const before = [...signs.flatMap(takenBy), ...putNumbers(numbered, height)];
  const marks = marked(written.marks, open, (apart) => written.sceneAt(apart), { height, margins, before });
  const names = placed.map((one) => viewName(one, placed, marks));
  const room = { height, margins, before: [...before, ...marks.taken, ...names.flatMap(takenBy)] };
  const numbers = drawnNumbers(numbered, placed, room);
  const all: Inked[] = [
    { strokes: [{ line: 'frame', pieces: frameOf(low, high) }], letters: [] },
    ...placed.map(({ inked }) => inked),
    ...signs,
    ...names,
    marks,
    ...numbers,
    ...(written.parts.length > 0
      ? [partsList(written.parts, [high[0], low[1] + titleHeight(written.block, sheet)])]
      : []),
    title,
  ];
  const strokes = all.flatMap((one) => one.strokes).filter(({ pieces }) => pieces.length > 0);
  return {
    sheet: {
      picture: { size, strokes, letters: all.flatMap((one) => one.letters) },
      scale,
      views: Object.fromEntries(placed.map((one) => [one.seen.id, { box: one.box, ...placingOf(one) }])),
      marks: marks.marks,
      signs: Object.fromEntries([...details, ...numbers].map(({ key, sign }) => [key, sign])),
      cells: title.cells,
      looks: Object.fromEntries(placed.map((one) => [one.seen.id, lookOf(one.box, one.visible, one.factor)])),
      handles: placed.flatMap(handlesIn),
    },
    views: open,
    read: marks.read,
  };
}

const FAR = 1e5;
/** All round an area. */
const outside = ({ low, high }: Box): Box[] => [
  { low: [-FAR, -FAR], high: [FAR, low[1]] },
  { low: [-FAR, high[1]], high: [FAR, FAR] },
  { low: [-FAR, -FAR], high: [low[0], FAR] },
  { low: [high[0], -FAR], high: [FAR, FAR] },
];

/** What is taken by signs and letters. */
const takenBy = ({ letters, strokes }: Inked): Taken[] =>
  letters.map((one) => ({ text: lettersBox(one), lines: straightLines(strokes) }));

const straightLines = (strokes: readonly Stroke[]): (readonly [Vec2, Vec2])[] =>
  strokes.flatMap(({ pieces }) => pieces.map(({ from, to }) => [from, to] as const));

/** What letters in their middle cover. */
const lettersBox = ({ at: [x, y], text, height }: Lettering): Box => {
  const half = (textWidth(text) * height) / 2;
  return { low: [x - half, y], high: [x + half, y + height] };
};
