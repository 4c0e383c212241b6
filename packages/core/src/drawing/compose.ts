import { dot3, type Frame, type Movement, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Topology } from '../kernel-port/index.ts';
import type { DrawnView } from '../sight/index.ts';
import { boxOf, fullCircle, scaled, type Box, type Piece } from '../sketch/pieces/index.ts';
import type { Taken } from '../sketch/index.ts';
import { balloons } from './balloons.ts';
import { centreLines, mirrorLines } from './centre-lines.ts';
import { notCovered } from './covered.ts';
import { extentOf } from './extent.ts';
import { flatPieces } from './flat.ts';
import { hatching } from './hatching.ts';
import { textWidth } from './label.ts';
import { lookOf } from './issues.ts';
import { laidOut, type LaidView } from './layout.ts';
import { marked, type ComposedMark, type MarkedSheet, type MarkedView, type Scene, type SeenMark } from './marked.ts';
import { besideList, partsList, type ListedPart } from './parts-list.ts';
import { PAPERS, paperSize, withinFrame } from './papers.ts';
import { frameOf, type Lettering, type LineKind, type SheetPicture, type Stroke } from './picture.ts';
import { scaleFactor, scaleName } from './scales.ts';
import type { SheetFinding } from './findings.ts';
import { handlesIn, type Handle } from './handles.ts';
import type { Sheet, View } from './schema.ts';
import { clipped } from './clip.ts';
import { cutPlanes, type CutLine } from './cut.ts';
import { cutMark } from './cut-mark.ts';
import { titleBlock, titleHeight, type TitleText } from './title-block.ts';

/** A view with what is seen in it. */
export interface SeenView {
  readonly id: Id;
  readonly view: View;
  readonly eye: Frame;
  readonly drawn: DrawnView;
  readonly bodies: readonly { readonly topology: Topology; readonly movement: Movement; readonly part: Id }[];
  /** Of sections: where they are cut, and the letter that they are called by. */
  readonly cut?: { readonly line: CutLine; readonly letter: string };
}

export interface ComposedSheet {
  readonly picture: SheetPicture;
  /** The name of the scale. */
  readonly scale: string;
  /** What each view covers and where the origin of its eye lies, mm on paper; and how many times as large as the thing it is. */
  readonly views: Readonly<Record<Id, { readonly box: Box; readonly at: Vec2; readonly factor: number }>>;
  readonly marks: Readonly<Record<Id, ComposedMark>>;
  /** What can be picked in its views. */
  readonly handles: readonly Handle[];
  /** What each view looks like, as a short print. */
  readonly looks: Readonly<Record<Id, string>>;
  /** What is to be mended before the sheet goes out. */
  readonly findings: readonly SheetFinding[];
}

/** Which lines a kind of view shows where nothing else is said. */
export const USUAL_LINES: Readonly<Record<View['kind'], { readonly hidden: boolean; readonly smooth: boolean }>> = {
  base: { hidden: true, smooth: false },
  projected: { hidden: true, smooth: false },
  corner: { hidden: false, smooth: true },
  section: { hidden: false, smooth: false },
  detail: { hidden: false, smooth: false },
};

const HATCH_APART = 3;
/** What names and the signs of cuts take round a view besides the padding, mm. */
const [NAME_ROOM, CUT_ROOM] = [4, 8];
/** Height of the letters of sections, mm. */
const LETTER = 5;

/** What may be drawn on: within the frame, above the title block, beside the list of parts. */
function drawingArea(size: Vec2, sheet: Sheet, { length }: readonly ListedPart[]): Box {
  const { low, high } = withinFrame(size);
  return besideList({ low: [low[0], low[1] + titleHeight(sheet)], high }, length);
}

/** What is written besides the title block. */
export interface Written {
  readonly marks: readonly SeenMark[];
  readonly scene: Scene;
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
  const area = drawingArea(paperSize(sheet.paper, sheet.upright), sheet, written.parts);
  const size = paperSize(sheet.paper, sheet.upright);
  const shown = views.flatMap((seen) => {
    const layers = layersOf(seen);
    const boxes = layers.flatMap(({ pieces }) => pieces.map(boxOf));
    return boxes.length > 0 ? [{ seen, layers, box: detailBox(seen.view) ?? extentOf(boxes) }] : [];
  });
  const laid = shown.map(({ seen: { id, view, eye, cut }, box }): LaidView => {
    const isCut = shown.some(({ seen }) => isMarked(seen) && isAcross(view, eye, seen.cut!.line));
    const around = isCut ? CUT_ROOM : view.kind === 'detail' || (cut && isMarked({ view, cut })) ? NAME_ROOM : 0;
    return { id, view, eye, box: larger(box, timesOf(view)), around };
  });
  const { scale, places } = laidOut(sheet, laid, area);
  const factor = scaleFactor(scale);
  const { mirrors } = written.scene.witness;
  const placed = shown.map((one) => placedView(one, factor, places.get(one.seen.id)!, mirrors));
  const open = placed.map(({ seen, factor, at, box, visible }): MarkedView => ({
    ...{ id: seen.id, eye: seen.eye, factor, at, box, visible },
  }));
  const { low, high } = withinFrame(size);
  const signs = [...placed.map((one) => cutMarkOf(one, placed)), ...detailSigns(placed)];
  const title = titleBlock(sheet, { ...text, scale }, size);
  const height = letterHeight(sheet);
  const margins = outside(area);
  const before = signs.flatMap(({ letters, strokes }) =>
    letters.map((one) => ({ text: lettersBox(one), lines: straightLines(strokes) })),
  );
  const marks = marked(written.marks, open, written.scene, { height, margins, before });
  const all: Inked[] = [
    { strokes: [{ line: 'frame', pieces: frameOf(low, high) }], letters: [] },
    ...placed.map(({ inked }) => inked),
    ...signs,
    ...placed.map((one) => viewName(one, placed, marks)),
    marks,
    ...numbersIn(placed, written.parts, { height, margins, before }),
    ...(written.parts.length > 0 ? [partsList(written.parts, [high[0], low[1] + titleHeight(sheet)])] : []),
    title,
  ];
  const strokes = all.flatMap((one) => one.strokes).filter(({ pieces }) => pieces.length > 0);
  return {
    sheet: {
      picture: { size, strokes, letters: all.flatMap((one) => one.letters) },
      scale,
      views: Object.fromEntries(placed.map(({ seen, box, at, factor }) => [seen.id, { box, at, factor }])),
      marks: marks.marks,
      looks: Object.fromEntries(placed.map((one) => [one.seen.id, lookOf(one.box, one.visible, one.factor)])),
      handles: open
        .filter(({ id }) => sheet.views[id]?.kind !== 'corner')
        .flatMap((view) => handlesIn(view, written.scene)),
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

const straightLines = (strokes: readonly Stroke[]): (readonly [Vec2, Vec2])[] =>
  strokes.flatMap(({ pieces }) => pieces.map(({ from, to }) => [from, to] as const));

/** What letters in their middle cover. */
const lettersBox = ({ at: [x, y], text, height }: Lettering): Box => {
  const half = (textWidth(text) * height) / 2;
  return { low: [x - half, y], high: [x + half, y + height] };
};

interface Inked {
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
}
/** A view where it stands on paper. */
interface PlacedView {
  readonly seen: SeenView;
  readonly factor: number;
  readonly at: Vec2;
  readonly box: Box;
  /** The lines that are seen, on paper. */
  readonly visible: readonly Piece[];
  readonly inked: Inked;
}
interface ShownView {
  readonly seen: SeenView;
  readonly layers: readonly Layer[];
  readonly box: Box;
}

const timesOf = (view: View): number => (view.kind === 'detail' ? view.times : 1);
const larger = ({ low, high }: Box, times: number): Box => ({
  low: [low[0] * times, low[1] * times],
  high: [high[0] * times, high[1] * times],
});
const detailBox = (view: View): Box | undefined =>
  view.kind === 'detail'
    ? {
        low: [view.at[0] - view.radius, view.at[1] - view.radius],
        high: [view.at[0] + view.radius, view.at[1] + view.radius],
      }
    : undefined;

function placedView(shown: ShownView, sheetFactor: number, at: Vec2, mirrors: Scene['witness']['mirrors']): PlacedView {
  const { seen, layers, box } = shown;
  const factor = sheetFactor * timesOf(seen.view);
  const { id: view } = seen;
  const place = ([x, y]: Vec2): Vec2 => [x * factor + at[0], y * factor + at[1]];
  const within = clipOf(seen.view, place, factor);
  const onPaper = (pieces: readonly Piece[]) => within(pieces.map((piece) => scaled(piece, factor, at)));
  const hatched = [...cutRims(seen)].map(([body, rims]) =>
    within(
      hatching(
        rims.map((piece) => scaled(piece, factor, at)),
        (body % 2 === 0 ? 1 : -1) * (Math.PI / 4),
        HATCH_APART,
      ),
    ),
  );
  const [low, high] = [place(box.low), place(box.high)];
  const drawn = layers.map(({ line, pieces }) => ({ line, pieces: onPaper(pieces), view }));
  return {
    ...{ seen, factor, at, box: { low, high } },
    visible: drawn.flatMap(({ line, pieces }) => (line === 'hidden' ? [] : pieces)),
    inked: {
      strokes: [
        ...drawn,
        { line: 'centre', pieces: onPaper(centresOf(shown, factor, mirrors)), view },
        ...hatched.map((pieces): Stroke => ({ line: 'hatch', pieces, view })),
        ...(seen.view.kind === 'detail'
          ? [{ line: 'size' as const, pieces: [fullCircle('', place(seen.view.at), seen.view.radius * factor)], view }]
          : []),
      ],
      letters: [],
    },
  };
}

/** Of a detail, what lies in its circle. */
function clipOf(view: View, place: (at: Vec2) => Vec2, factor: number): (pieces: readonly Piece[]) => readonly Piece[] {
  return view.kind === 'detail'
    ? (pieces) => clipped(pieces, place(view.at), view.radius * factor)
    : (pieces) => pieces;
}

/** Centre lines of a view; none where many parts are drawn without their hidden edges, since most would be of hidden things. */
function centresOf(
  { seen: { view, eye, bodies, cut }, box }: ShownView,
  factor: number,
  mirrors: Scene['witness']['mirrors'],
): Piece[] {
  const isCrowded = bodies.some(({ part }) => part !== bodies[0]!.part) && !linesOf(view).hidden;
  if (view.kind === 'corner' || isCrowded) return [];
  const round = centreLines(bodies, eye, { factor, cut: cut && cutPlanes(cut.line) });
  return [...round, ...notCovered(mirrorLines(mirrors, eye, box, factor), round)];
}

/** The numbers of parts in the views that have them. */
function numbersIn(
  placed: readonly PlacedView[],
  parts: readonly ListedPart[],
  room: { readonly height: number; readonly margins: readonly Box[]; readonly before: readonly Taken[] },
): Inked[] {
  const { height, margins } = room;
  const taken = [...room.before];
  return placed.flatMap(({ seen, factor, at, box }) => {
    if (!seen.view.numbered) return [];
    const numbered = parts.flatMap(({ part }, k) => {
      const lines = seen.drawn.lines.filter(({ hidden, body }) => !hidden && seen.bodies[body]!.part === part);
      const pieces = lines.flatMap(({ curve }) => flatPieces(curve)).map((piece) => scaled(piece, factor, at));
      return pieces.length > 0 ? [{ number: k + 1, seen: pieces }] : [];
    });
    const others = placed.flatMap((other) => (other.seen.id === seen.id ? [] : [other.box]));
    const made = balloons(numbered, box, { height, view: seen.id, avoid: [...margins, ...others], before: taken });
    taken.push(...made.taken);
    return [made];
  });
}

/** What a section or a detail is called, over it and over what is written there. */
function viewName(one: PlacedView, placed: readonly PlacedView[], { marks, views }: MarkedSheet): Inked {
  const text = nameOf(one, placed);
  if (text === undefined) return { strokes: [], letters: [] };
  const { low, high } = one.box;
  const x = (low[0] + high[0]) / 2;
  const over = Object.entries(marks).filter(
    ([mark, { box }]) =>
      views.get(mark) === one.seen.id && box.low[1] > high[1] && Math.abs(box.low[0] + box.high[0] - 2 * x) < 40,
  );
  const top = over.reduce((most, [, { box }]) => Math.max(most, box.high[1]), high[1] + 3);
  return { strokes: [], letters: [{ at: [x, top + 3], text, height: LETTER, anchor: 'middle', bold: true }] };
}

function nameOf(one: PlacedView, placed: readonly PlacedView[]): string | undefined {
  const { view, cut } = one.seen;
  if (isMarked(one.seen)) return `${cut!.letter}–${cut!.letter}`;
  return view.kind === 'detail' ? `${detailLetter(one, placed)} (${scaleName(one.factor)})` : undefined;
}

/** Details are called from the end of the alphabet, so that no section is called alike. */
const detailLetter = (one: PlacedView, placed: readonly PlacedView[]): string =>
  DETAIL_LETTERS[placed.filter(({ seen }) => seen.view.kind === 'detail').indexOf(one) % DETAIL_LETTERS.length]!;
const DETAIL_LETTERS = 'ZYXWVUTSRPNM';

/** Where details are of: a circle round it in its view, with the letter beside. */
function detailSigns(placed: readonly PlacedView[]): Inked[] {
  return placed.flatMap((one): Inked[] => {
    const { view } = one.seen;
    const of = view.kind === 'detail' && placed.find(({ seen }) => seen.id === view.of);
    if (!of) return [];
    const [x, y] = [view.at[0] * of.factor + of.at[0], view.at[1] * of.factor + of.at[1]];
    const radius = view.radius * of.factor;
    const beside: Vec2 = [x + radius * Math.SQRT1_2 + 3, y + radius * Math.SQRT1_2 + 1];
    return [
      {
        strokes: [{ line: 'size', pieces: [fullCircle('', [x, y], radius)] }],
        letters: [{ at: beside, text: detailLetter(one, placed), height: LETTER, anchor: 'middle', bold: true }],
      },
    ];
  });
}

/** Of a section, where it is cut: drawn in the first view that sees its plane edge-on. */
function cutMarkOf({ seen }: PlacedView, all: readonly PlacedView[]): Inked {
  const { cut } = seen;
  const across = cut && isMarked(seen) && all.find(({ seen: { view, eye } }) => isAcross(view, eye, cut.line));
  if (!across) return { strokes: [], letters: [] };
  const { strokes, letters } = cutMark(cut.line, across.seen.eye, across);
  const known = across.inked.strokes.flatMap(({ line, pieces }) => (line === 'centre' ? pieces : []));
  return {
    strokes: strokes.map(({ line, pieces }) => ({
      line,
      pieces: line === 'centre' ? notCovered(pieces, known) : pieces,
    })),
    letters: letters.map((at) => ({ at, text: cut.letter, height: LETTER, anchor: 'middle', bold: true })),
  };
}

/** Is a section marked where it is cut, and named? Where it ends in the middle, half a view, it speaks for itself. */
const isMarked = ({ view, cut }: Pick<SeenView, 'view' | 'cut'>): boolean =>
  view.kind === 'section' && cut !== undefined && cut.line.stretches.every(({ height }) => height !== undefined);

/** Is a cut seen as a line? One that goes on elsewhere only along all its planes. */
const isAcross = (view: View, eye: Frame, { frame, stretches }: CutLine): boolean =>
  (view.kind === 'base' || view.kind === 'projected') &&
  (stretches.length === 1 ? Math.abs(dot3(eye.z, frame.y)) < 1e-9 : Math.abs(dot3(eye.z, frame.z)) > 1 - 1e-9);

interface Layer {
  readonly line: LineKind;
  readonly pieces: readonly Piece[];
}

const linesOf = (view: View) => ({ ...USUAL_LINES[view.kind], ...view });

/** The lines of a view by their kinds, in mm of the thing. */
function layersOf({ view, drawn }: SeenView): Layer[] {
  const { hidden, smooth } = linesOf(view);
  const pick = (isHidden: boolean, isSmooth: boolean) =>
    drawn.lines
      .filter((line) => line.hidden === isHidden && (line.sort === 'smooth') === isSmooth)
      .flatMap(({ curve }) => flatPieces(curve));
  const visible = pick(false, false);
  const soft = smooth ? notCovered(pick(false, true), visible) : [];
  const behind = hidden ? notCovered(pick(true, false), [...visible, ...soft]) : [];
  return [
    { line: 'visible', pieces: visible },
    { line: 'smooth', pieces: soft },
    { line: 'hidden', pieces: behind },
  ];
}

/** The rims of what is cut open, by bodies. */
function cutRims({ drawn }: SeenView): Map<number, Piece[]> {
  const byBody = new Map<number, Piece[]>();
  for (const { body, rims } of drawn.cutFaces)
    byBody.set(body, [...(byBody.get(body) ?? []), ...rims.flatMap((rim) => flatPieces(rim))]);
  return byBody;
}
