import type { Frame, RigidTransform, Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Topology } from '../kernel-port/index.ts';
import type { DrawnLine, DrawnView } from '../hidden-lines/index.ts';
import { fullCircle, scaled, type Box, type Piece } from '../sketch/pieces/index.ts';
import { breakLines, brokenPieces } from './broken.ts';
import { centreLines, mirrorLines } from './centre-lines.ts';
import { clipped, type Circle } from './clip.ts';
import { notCovered } from './covered.ts';
import { cutPlanes, type CutLine } from './cut.ts';
import { flatPieces } from './flat.ts';
import { hatching } from './hatching.ts';
import type { Lettering, LineKind, Stroke } from './picture.ts';
import { onPaper, type Breaks, type Placing } from './placing.ts';
import type { View } from './schema.ts';
import type { Witness } from './witness/index.ts';

/** A view with what is seen in it. */
export interface SeenView {
  readonly id: Id;
  readonly view: View;
  readonly eye: Frame;
  readonly drawn: DrawnView;
  readonly bodies: readonly {
    readonly topology: Topology;
    readonly transform: RigidTransform;
    readonly part: Id;
    /** Of the whole, where it is placed. */
    readonly at?: string;
  }[];
  /** Of sections: where they are cut, and the letter that they are called by. */
  readonly cut?: { readonly line: CutLine; readonly letter: string };
}

/** Which lines a kind of view shows where nothing else is said. */
export const USUAL_LINES: Readonly<Record<View['kind'], { readonly hidden: boolean; readonly smooth: boolean }>> = {
  base: { hidden: true, smooth: false },
  projected: { hidden: true, smooth: false },
  corner: { hidden: false, smooth: true },
  section: { hidden: false, smooth: false },
  detail: { hidden: false, smooth: false },
};

/** Bodies side by side are told apart by the way and by the distance of their hatching, mm (ISO 128-3). */
const HATCH_APART = [3, 2, 4];

export interface Inked {
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
}
/** A view where it stands on paper. */
export interface PlacedView extends Placing {
  readonly seen: SeenView;
  readonly box: Box;
  /** Of a detail: the circle on paper that it shows nothing outside of. */
  readonly circle?: Circle;
  /** The lines that are seen, on paper. */
  readonly visible: readonly Piece[];
  readonly inked: Inked;
}
export interface ShownView {
  readonly seen: SeenView;
  readonly layers: readonly Layer[];
  readonly box: Box;
}

/** How many times larger than the sheet a view is. */
export const timesOf = (view: View): number => (view.kind === 'detail' ? view.times : 1);
/** A box, so many times as large about the origin. */
export const larger = ({ low, high }: Box, times: number): Box => ({
  low: [low[0] * times, low[1] * times],
  high: [high[0] * times, high[1] * times],
});
/** The box of the circle that a detail shows, mm of the thing; undefined for other views. */
export const detailBox = (view: View): Box | undefined =>
  view.kind === 'detail'
    ? {
        low: [view.at[0] - view.radius, view.at[1] - view.radius],
        high: [view.at[0] + view.radius, view.at[1] + view.radius],
      }
    : undefined;

/**
 * A view on paper: its lines by kind, its sections hatched.
 * @param sheetFactor mm on paper for one of the thing
 * @param at where the middle of the view lies, mm on paper
 */
export function placedView(
  shown: ShownView,
  sheetFactor: number,
  at: Vec2,
  breaks: Breaks | undefined,
  mirrors: Witness['mirrors'],
): PlacedView {
  const { seen, layers, box } = shown;
  const factor = sheetFactor * timesOf(seen.view);
  const { id: view } = seen;
  const placing: Placing = { factor, at, ...(breaks ? { breaks } : {}) };
  const place = (of: Vec2) => onPaper(placing, of);
  const circle = circleOf(seen.view, place, factor);
  const within = (pieces: readonly Piece[]) => (circle ? clipped(pieces, circle) : pieces);
  const inked = (pieces: readonly Piece[]) => within(placedPieces(pieces, placing));
  const hatched = [...cutRims(seen)].map(([body, rims]) =>
    within(
      brokenPieces(
        hatching(
          rims.map((piece) => scaled(piece, factor, at)),
          (body % 2 === 0 ? 1 : -1) * (Math.PI / 4),
          HATCH_APART[Math.floor(body / 2) % HATCH_APART.length]!,
        ),
        placing,
      ),
    ),
  );
  const [low, high] = [place(box.low), place(box.high)];
  const drawn = layers.map(({ line, pieces }) => ({ line, pieces: inked(pieces), view }));
  return {
    ...{ seen, ...placing, box: { low, high }, ...(circle ? { circle } : {}) },
    visible: drawn.flatMap(({ line, pieces }) => (line === 'hidden' ? [] : pieces)),
    inked: {
      strokes: [
        ...drawn,
        { line: 'centre', pieces: inked(centresOf(shown, factor, mirrors)), view },
        { line: 'thin', pieces: breakLines(placing, { low, high }), view },
        ...hatched.map((pieces): Stroke => ({ line: 'hatch', pieces, view })),
        ...(circle ? [{ line: 'size' as const, pieces: [fullCircle('', circle.centre, circle.radius)], view }] : []),
      ],
      letters: [],
    },
  };
}

/** Pieces in the plane of a view as they lie on paper. */
export const placedPieces = (pieces: readonly Piece[], placing: Placing): readonly Piece[] =>
  brokenPieces(
    pieces.map((piece) => scaled(piece, placing.factor, placing.at)),
    placing,
  );

const circleOf = (view: View, place: (at: Vec2) => Vec2, factor: number): Circle | undefined =>
  view.kind === 'detail' ? { centre: place(view.at), radius: view.radius * factor } : undefined;

/** Centre lines of a view; none where many parts are drawn without their hidden edges, since most would be of hidden things. */
function centresOf(
  { seen: { view, eye, bodies, cut }, box }: ShownView,
  factor: number,
  mirrors: Witness['mirrors'],
): Piece[] {
  const isCrowded = bodies.some(({ part }) => part !== bodies[0]!.part) && !linesOf(view).hidden;
  if (view.kind === 'corner' || isCrowded) return [];
  const round = centreLines(bodies, eye, { factor, cut: cut && cutPlanes(cut.line) });
  return [...round, ...notCovered(mirrorLines(mirrors, eye, box, factor), round)];
}

interface Layer {
  readonly line: LineKind;
  readonly pieces: readonly Piece[];
}

const linesOf = (view: View) => ({ ...USUAL_LINES[view.kind], ...view });

/** The lines of a view by their kinds, in mm of the thing. */
export function layersOf({ view, drawn }: SeenView): Layer[] {
  const { hidden, smooth } = linesOf(view);
  const pick = (isHidden: boolean, ...sorts: readonly DrawnLine['sort'][]) =>
    drawn.lines
      .filter((line) => line.hidden === isHidden && sorts.includes(line.sort))
      .flatMap(({ curve }) => flatPieces(curve));
  const visible = pick(false, 'sharp', 'outline');
  const soft = smooth ? notCovered(pick(false, 'smooth'), visible) : [];
  const threads = pick(false, 'thread');
  const behind = hidden ? notCovered(pick(true, 'sharp', 'outline', 'thread'), [...visible, ...soft]) : [];
  return [
    { line: 'visible', pieces: visible },
    { line: 'smooth', pieces: soft },
    { line: 'thread', pieces: threads },
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
