import { dot3, type Frame, type Movement, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { DrawnView, Topology } from '../kernel-port/index.ts';
import { boxOf, scaled, type Box, type Piece } from '../sketch/pieces/index.ts';
import { centreLines } from './centre-lines.ts';
import { notCovered } from './covered.ts';
import { extentOf } from './extent.ts';
import { flatPieces } from './flat.ts';
import { hatching } from './hatching.ts';
import { laidOut, type LaidView } from './layout.ts';
import { paperSize, withinFrame } from './papers.ts';
import { frameOf, type Lettering, type LineKind, type SheetPicture, type Stroke } from './picture.ts';
import { scaleFactor } from './scales.ts';
import type { Sheet, View } from './schema.ts';
import { cutMark } from './cut-mark.ts';
import { TITLE_HEIGHT, titleBlock, type TitleText } from './title-block.ts';

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
function drawingArea(size: Vec2): Box {
  const { low, high } = withinFrame(size);
  return { low: [low[0], low[1] + TITLE_HEIGHT], high };
}

/** A sheet put together from what is seen in its views. */
export function composed(sheet: Sheet, views: readonly SeenView[], text: Omit<TitleText, 'scale'>): ComposedSheet {
  const size = paperSize(sheet.paper, sheet.upright);
  const shown = views.flatMap((seen) => {
    const layers = layersOf(seen);
    const boxes = layers.flatMap(({ pieces }) => pieces.map(boxOf));
    return boxes.length > 0 ? [{ seen, layers, box: extentOf(boxes) }] : [];
  });
  const laid = shown.map(({ seen: { id, view, eye }, box }): LaidView => ({ id, view, eye, box }));
  const { scale, places } = laidOut(sheet, laid, drawingArea(size));
  const factor = scaleFactor(scale);
  const placed = shown.map((one) => placedView(one, factor, places.get(one.seen.id)!));
  const { low, high } = withinFrame(size);
  const all: Inked[] = [
    { strokes: [{ line: 'frame', pieces: frameOf(low, high) }], letters: [] },
    ...placed.map(({ inked }) => inked),
    ...placed.map((one) => cutMarkOf(one, placed, factor)),
    titleBlock(sheet, { ...text, scale }, size),
  ];
  const strokes = all.flatMap((one) => one.strokes).filter(({ pieces }) => pieces.length > 0);
  return {
    picture: { size, strokes, letters: all.flatMap((one) => one.letters) },
    scale,
    boxes: Object.fromEntries(placed.map(({ seen, box }) => [seen.id, box])),
  };
}

interface Inked {
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
}
/** A view where it stands on paper. */
interface PlacedView {
  readonly seen: SeenView;
  readonly at: Vec2;
  readonly box: Box;
  readonly inked: Inked;
}
interface ShownView {
  readonly seen: SeenView;
  readonly layers: readonly Layer[];
  readonly box: Box;
}

function placedView({ seen, layers, box }: ShownView, factor: number, at: Vec2): PlacedView {
  const { id: view, eye, bodies, cut } = seen;
  const onPaper = (pieces: readonly Piece[]) => pieces.map((piece) => scaled(piece, factor, at));
  const centres = seen.view.kind === 'corner' ? [] : centreLines(bodies, eye, { factor, cut: cut?.plane });
  const hatched = [...cutRims(seen)].map(([body, rims]) =>
    hatching(onPaper(rims), (body % 2 === 0 ? 1 : -1) * (Math.PI / 4), HATCH_APART),
  );
  const place = ([x, y]: Vec2): Vec2 => [x * factor + at[0], y * factor + at[1]];
  const [low, high] = [place(box.low), place(box.high)];
  const name = cut && `${cut.letter}–${cut.letter}`;
  const middle: Vec2 = [(low[0] + high[0]) / 2, high[1] + 6];
  return {
    seen,
    at,
    box: { low, high },
    inked: {
      strokes: [
        ...layers.map(({ line, pieces }) => ({ line, pieces: onPaper(pieces), view })),
        { line: 'centre', pieces: onPaper(centres), view },
        ...hatched.map((pieces): Stroke => ({ line: 'hatch', pieces, view })),
      ],
      letters: name ? [{ at: middle, text: name, height: LETTER, anchor: 'middle', bold: true }] : [],
    },
  };
}

/** Of a section, where it is cut: drawn in the first view that sees its plane edge-on. */
function cutMarkOf({ seen: { cut } }: PlacedView, all: readonly PlacedView[], factor: number): Inked {
  const across = cut && all.find(({ seen: { view, eye } }) => isAcross(view, eye, cut.plane));
  if (!across) return { strokes: [], letters: [] };
  const { strokes, letters } = cutMark(cut.plane, across.seen.eye, { factor, at: across.at, box: across.box });
  return {
    strokes,
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
