import { dot3, type Frame, type Movement, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { DrawnView, Topology } from '../kernel-port/index.ts';
import { boxOf, type Box, type Piece } from '../sketch/pieces/index.ts';
import { centreLines } from './centre-lines.ts';
import { notCovered } from './covered.ts';
import { extentOf } from './extent.ts';
import { flatPieces, scaledPiece } from './flat.ts';
import { hatching } from './hatching.ts';
import { laidOut, type LaidView } from './layout.ts';
import { paperSize, withinFrame, type Area } from './papers.ts';
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
export function drawingArea(size: Vec2): Area {
  const { low, high } = withinFrame(size);
  return { low: [low[0], low[1] + TITLE_HEIGHT], high };
}

/** A sheet put together from what is seen in its views. */
export function composed(sheet: Sheet, views: readonly SeenView[], text: Omit<TitleText, 'scale'>): ComposedSheet {
  const size = paperSize(sheet.paper, sheet.upright);
  const flat = views.map((seen) => ({ seen, layers: layersOf(seen) }));
  const shown = flat.filter(({ layers }) => layers.some(({ pieces }) => pieces.length > 0));
  const laid = shown.map(({ seen: { id, view, eye }, layers }): LaidView => ({
    id,
    view,
    eye,
    box: extentOf(layers.flatMap(({ pieces }) => pieces.map(boxOf))),
  }));
  const { scale, places } = laidOut(sheet, laid, drawingArea(size));
  const factor = scaleFactor(scale);
  const onPaper = (id: Id, pieces: readonly Piece[]) =>
    pieces.map((piece) => scaledPiece(piece, factor, places.get(id)!));

  const strokes: Stroke[] = [{ line: 'frame', pieces: frameOf(withinFrame(size).low, withinFrame(size).high) }];
  const letters: Lettering[] = [];
  const boxes: Record<Id, Box> = {};
  for (const [k, { seen, layers }] of shown.entries()) {
    const { id, eye, bodies, cut } = seen;
    for (const { line, pieces } of layers) strokes.push({ line, pieces: onPaper(id, pieces), view: id });
    if (seen.view.kind !== 'corner')
      strokes.push({
        line: 'centre',
        pieces: onPaper(id, centreLines(bodies, eye, { factor, cut: cut?.plane })),
        view: id,
      });
    for (const [body, rims] of cutRims(seen)) {
      const angle = (body % 2 === 0 ? 1 : -1) * (Math.PI / 4);
      strokes.push({ line: 'hatch', pieces: hatching(onPaper(id, rims), angle, HATCH_APART), view: id });
    }
    const { low, high } = laid[k]!.box;
    const [dx, dy] = places.get(id)!;
    boxes[id] = {
      low: [low[0] * factor + dx, low[1] * factor + dy],
      high: [high[0] * factor + dx, high[1] * factor + dy],
    };
    if (!cut) continue;
    const middle = (boxes[id].low[0] + boxes[id].high[0]) / 2;
    const name = `${cut.letter}–${cut.letter}`;
    letters.push({ at: [middle, boxes[id].high[1] + 6], text: name, height: LETTER, anchor: 'middle', bold: true });
  }
  for (const { seen } of shown) {
    if (!seen.cut) continue;
    const across = shown.find(({ seen: { view, eye } }) => isAcross(view, eye, seen.cut!.plane));
    if (!across) continue;
    const { id, eye } = across.seen;
    const mark = cutMark(seen.cut.plane, eye, { factor, at: places.get(id)!, box: boxes[id]! });
    strokes.push(...mark.strokes);
    for (const at of mark.letters)
      letters.push({ at, text: seen.cut.letter, height: LETTER, anchor: 'middle', bold: true });
  }
  const title = titleBlock(sheet, { ...text, scale }, size);
  strokes.push(...title.strokes);
  letters.push(...title.letters);
  return { picture: { size, strokes: strokes.filter(({ pieces }) => pieces.length > 0), letters }, scale, boxes };
}

const isAcross = (view: View, eye: Frame, plane: Frame): boolean =>
  view.kind !== 'corner' && view.kind !== 'section' && Math.abs(dot3(eye.z, plane.z)) < 1e-9;

/** The lines of a view by their kinds, in mm of the thing. */
function layersOf({ view, drawn }: SeenView): { readonly line: LineKind; readonly pieces: readonly Piece[] }[] {
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
