import { dot3, type Frame, type Movement, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { DrawnView, Topology } from '../kernel-port/index.ts';
import { boxOf, scaled, type Box, type Piece } from '../sketch/pieces/index.ts';
import { centreLines, mirrorLines } from './centre-lines.ts';
import { notCovered } from './covered.ts';
import { extentOf } from './extent.ts';
import { flatPieces } from './flat.ts';
import { hatching } from './hatching.ts';
import { textWidth } from './label.ts';
import { lookOf } from './issues.ts';
import { laidOut, type LaidView } from './layout.ts';
import { marked, type ComposedMark, type MarkedSheet, type MarkedView, type Scene, type SeenMark } from './marked.ts';
import { PAPERS, paperSize, withinFrame } from './papers.ts';
import { frameOf, type Lettering, type LineKind, type SheetPicture, type Stroke } from './picture.ts';
import { scaleFactor } from './scales.ts';
import type { SheetFinding } from './findings.ts';
import { handlesIn, type Handle } from './handles.ts';
import type { Sheet, View } from './schema.ts';
import { cutMark } from './cut-mark.ts';
import { titleBlock, titleHeight, type TitleText } from './title-block.ts';

/** A view with what is seen in it. */
export interface SeenView {
  readonly id: Id;
  readonly view: View;
  readonly eye: Frame;
  readonly drawn: DrawnView;
  readonly bodies: readonly { readonly topology: Topology; readonly movement: Movement }[];
  /** Of sections: the plane, and the letter that they are called by. */
  readonly cut?: { readonly plane: Frame; readonly letter: string };
}

export interface ComposedSheet {
  readonly picture: SheetPicture;
  /** The name of the scale. */
  readonly scale: string;
  /** What each view covers, mm on paper. */
  readonly boxes: Readonly<Record<Id, Box>>;
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
};

const HATCH_APART = 3;
/** Height of the letters of sections, mm. */
const LETTER = 5;

/** What may be drawn on: within the frame, above the title block. */
function drawingArea(size: Vec2, sheet: Sheet): Box {
  const { low, high } = withinFrame(size);
  return { low: [low[0], low[1] + titleHeight(sheet)], high };
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
  written: { readonly marks: readonly SeenMark[]; readonly scene: Scene },
): PutTogether {
  const size = paperSize(sheet.paper, sheet.upright);
  const shown = views.flatMap((seen) => {
    const layers = layersOf(seen);
    const boxes = layers.flatMap(({ pieces }) => pieces.map(boxOf));
    return boxes.length > 0 ? [{ seen, layers, box: extentOf(boxes) }] : [];
  });
  const laid = shown.map(({ seen: { id, view, eye }, box }): LaidView => ({ id, view, eye, box }));
  const { scale, places } = laidOut(sheet, laid, drawingArea(size, sheet));
  const factor = scaleFactor(scale);
  const { mirrors } = written.scene.witness;
  const placed = shown.map((one) => placedView(one, factor, places.get(one.seen.id)!, mirrors));
  const open = placed.map(({ seen, at, box, visible }): MarkedView => ({
    ...{ id: seen.id, eye: seen.eye, factor, at, box, visible },
  }));
  const { low, high } = withinFrame(size);
  const signs = placed.map((one) => cutMarkOf(one, placed, factor));
  const title = titleBlock(sheet, { ...text, scale }, size);
  const marks = marked(written.marks, open, written.scene, {
    height: letterHeight(sheet),
    margins: outside(drawingArea(size, sheet)),
    before: signs.flatMap(({ letters, strokes }) =>
      letters.map((one) => ({ text: lettersBox(one), lines: straightLines(strokes) })),
    ),
  });
  const all: Inked[] = [
    { strokes: [{ line: 'frame', pieces: frameOf(low, high) }], letters: [] },
    ...placed.map(({ inked }) => inked),
    ...signs,
    ...placed.map((one) => sectionName(one, marks)),
    marks,
    title,
  ];
  const strokes = all.flatMap((one) => one.strokes).filter(({ pieces }) => pieces.length > 0);
  return {
    sheet: {
      picture: { size, strokes, letters: all.flatMap((one) => one.letters) },
      scale,
      boxes: Object.fromEntries(placed.map(({ seen, box }) => [seen.id, box])),
      marks: marks.marks,
      looks: Object.fromEntries(placed.map((one) => [one.seen.id, lookOf(one.box, one.visible, factor)])),
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

function placedView(
  { seen, layers, box }: ShownView,
  factor: number,
  at: Vec2,
  mirrors: Scene['witness']['mirrors'],
): PlacedView {
  const { id: view, eye, bodies, cut } = seen;
  const onPaper = (pieces: readonly Piece[]) => pieces.map((piece) => scaled(piece, factor, at));
  const round = seen.view.kind === 'corner' ? [] : centreLines(bodies, eye, { factor, cut: cut?.plane });
  const middles = seen.view.kind === 'corner' ? [] : notCovered(mirrorLines(mirrors, eye, box, factor), round);
  const centres = [...round, ...middles];
  const hatched = [...cutRims(seen)].map(([body, rims]) =>
    hatching(onPaper(rims), (body % 2 === 0 ? 1 : -1) * (Math.PI / 4), HATCH_APART),
  );
  const place = ([x, y]: Vec2): Vec2 => [x * factor + at[0], y * factor + at[1]];
  const [low, high] = [place(box.low), place(box.high)];
  const drawn = layers.map(({ line, pieces }) => ({ line, pieces: onPaper(pieces), view }));
  return {
    seen,
    at,
    box: { low, high },
    visible: drawn.flatMap(({ line, pieces }) => (line === 'hidden' ? [] : pieces)),
    inked: {
      strokes: [
        ...drawn,
        { line: 'centre', pieces: onPaper(centres), view },
        ...hatched.map((pieces): Stroke => ({ line: 'hatch', pieces, view })),
      ],
      letters: [],
    },
  };
}

/** What a section is called, over it and over what is written there. */
function sectionName({ seen: { id, cut }, box: { low, high } }: PlacedView, { marks, views }: MarkedSheet): Inked {
  if (!cut) return { strokes: [], letters: [] };
  const x = (low[0] + high[0]) / 2;
  const over = Object.entries(marks).filter(
    ([mark, { box }]) =>
      views.get(mark) === id && box.low[1] > high[1] && Math.abs(box.low[0] + box.high[0] - 2 * x) < 40,
  );
  const top = over.reduce((most, [, { box }]) => Math.max(most, box.high[1]), high[1] + 3);
  const text = `${cut.letter}–${cut.letter}`;
  return { strokes: [], letters: [{ at: [x, top + 3], text, height: LETTER, anchor: 'middle', bold: true }] };
}

/** Of a section, where it is cut: drawn in the first view that sees its plane edge-on. */
function cutMarkOf({ seen: { cut } }: PlacedView, all: readonly PlacedView[], factor: number): Inked {
  const across = cut && all.find(({ seen: { view, eye } }) => isAcross(view, eye, cut.plane));
  if (!across) return { strokes: [], letters: [] };
  const { strokes, letters } = cutMark(cut.plane, across.seen.eye, { factor, at: across.at, box: across.box });
  const known = across.inked.strokes.flatMap(({ line, pieces }) => (line === 'centre' ? pieces : []));
  return {
    strokes: strokes.map(({ line, pieces }) => ({
      line,
      pieces: line === 'centre' ? notCovered(pieces, known) : pieces,
    })),
    letters: letters.map((at) => ({ at, text: cut.letter, height: LETTER, anchor: 'middle', bold: true })),
  };
}

const isAcross = (view: View, eye: Frame, plane: Frame): boolean =>
  view.kind !== 'corner' && view.kind !== 'section' && Math.abs(dot3(eye.z, plane.z)) < 1e-9;

interface Layer {
  readonly line: LineKind;
  readonly pieces: readonly Piece[];
}

/** The lines of a view by their kinds, in mm of the thing. */
function layersOf({ view, drawn }: SeenView): Layer[] {
  const { hidden, smooth } = { ...USUAL_LINES[view.kind], ...view };
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
