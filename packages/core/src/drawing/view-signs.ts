import { dot3, type Frame, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Taken } from '../sketch/index.ts';
import { fullCircle, type Box } from '../sketch/pieces/index.ts';
import { balloonBox, balloons, type Numbered } from './balloons.ts';
import { notCovered } from './covered.ts';
import type { CutLine } from './cut.ts';
import { cutMark } from './cut-mark.ts';
import { flatPieces } from './flat.ts';
import type { MarkedSheet } from './marked.ts';
import type { ListedPart } from './parts-list.ts';
import { placedPieces, type Inked, type PlacedView, type SeenView } from './placed-view.ts';
import { onPaper, onThing } from './placing.ts';
import { scaleName } from './scales.ts';
import type { View } from './schema.ts';

/** Height of the letters of sections, mm. */
const LETTER = 5;

/** Something besides marks that is dragged by itself. */
export interface SheetSign {
  /** The number of a part, or the circle round what a detail shows. */
  readonly kind: 'number' | 'circle';
  /** The view that knows where it is: that in which the number stands, the detail. */
  readonly of: Id;
  readonly part?: Id;
  /** The view in which it stands; and where its middle is there, mm of the thing in the plane of the eye. */
  readonly view: Id;
  readonly at: Vec2;
  /** What it says. */
  readonly words: string;
  /** What it covers, mm on paper. */
  readonly box: Box;
}
/** With its lines and letters, which carry its key. */
interface DrawnSign extends Inked {
  readonly key: string;
  readonly sign: SheetSign;
}
function drawnSign(sign: SheetSign, { strokes, letters }: Inked): DrawnSign {
  const key = [sign.kind, sign.of, sign.part ?? ''].join(' ');
  const carrying = <T>(one: T) => ({ ...one, view: sign.view, mark: key });
  return { key, sign, strokes: strokes.map(carrying), letters: letters.map((one) => ({ ...one, mark: key })) };
}

/** A view with the parts that have their numbers there. */
interface NumberedView {
  readonly view: PlacedView;
  readonly parts: readonly (Numbered & { readonly part: Id })[];
}

/** The parts that are called by numbers, each in the first of the views with numbers in which it is seen. */
export function numberedIn(placed: readonly PlacedView[], parts: readonly ListedPart[]): NumberedView[] {
  const called = new Set<Id>();
  return placed.flatMap((view) => {
    const { seen } = view;
    if (!seen.view.numbered) return [];
    const numbered = parts.flatMap(({ part }, k) => {
      if (called.has(part)) return [];
      const lines = seen.drawn.lines.filter(({ hidden, body }) => !hidden && seen.bodies[body]!.part === part);
      const pieces = placedPieces(
        lines.flatMap(({ curve }) => flatPieces(curve)),
        view,
      );
      if (pieces.length === 0) return [];
      called.add(part);
      const put = seen.view.numbers?.[part];
      return [{ part, number: k + 1, seen: pieces, at: put && onPaper(view, put) }];
    });
    return [{ view, parts: numbered }];
  });
}

/** What numbers take that were dragged somewhere. @param height of the figures, mm */
export const putNumbers = (numbered: readonly NumberedView[], height: number): Taken[] =>
  numbered.flatMap(({ parts }) => parts.flatMap(({ at }) => (at ? [{ text: balloonBox(at, height), lines: [] }] : [])));

/** Numbers as they are drawn. */
export function drawnNumbers(
  numbered: readonly NumberedView[],
  placed: readonly PlacedView[],
  room: { readonly height: number; readonly margins: readonly Box[]; readonly before: readonly Taken[] },
): DrawnSign[] {
  const { height, margins } = room;
  const taken = [...room.before];
  return numbered.flatMap(({ view, parts }) => {
    const { id } = view.seen;
    const others = placed.flatMap((other) => (other === view ? [] : [other.box]));
    const made = balloons(parts, view.box, { height, avoid: [...margins, ...others], before: taken });
    taken.push(...made.map((number) => number.taken));
    return made.map((number, k) => {
      const { part, number: figure } = parts[k]!;
      const where = { of: id, view: id, at: onThing(view, number.at), box: number.taken.text };
      return drawnSign({ kind: 'number', part, words: `number ${figure}`, ...where }, number);
    });
  });
}

/** What a section or a detail is called, over it and over what is written there. */
export function viewName(one: PlacedView, placed: readonly PlacedView[], { marks, views }: MarkedSheet): Inked {
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
export function detailSigns(placed: readonly PlacedView[]): DrawnSign[] {
  return placed.flatMap((one): DrawnSign[] => {
    const { view } = one.seen;
    const of = view.kind === 'detail' && placed.find(({ seen }) => seen.id === view.of);
    if (!of) return [];
    const [x, y] = onPaper(of, view.at);
    const radius = view.radius * of.factor;
    const beside: Vec2 = [x + radius * Math.SQRT1_2 + 3, y + radius * Math.SQRT1_2 + 1];
    const letter = detailLetter(one, placed);
    const box: Box = { low: [x - radius, y - radius], high: [x + radius, y + radius] };
    const sign: SheetSign = {
      ...{ kind: 'circle', of: one.seen.id, view: of.seen.id, at: view.at, box },
      words: `circle of the detail ${letter}`,
    };
    return [
      drawnSign(sign, {
        strokes: [{ line: 'size', pieces: [fullCircle('', [x, y], radius)] }],
        letters: [{ at: beside, text: letter, height: LETTER, anchor: 'middle', bold: true }],
      }),
    ];
  });
}

/** Of a section, where it is cut: drawn in the first view that sees its plane edge-on. */
export function cutMarkOf({ seen }: PlacedView, all: readonly PlacedView[]): Inked {
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
export const isMarked = ({ view, cut }: Pick<SeenView, 'view' | 'cut'>): boolean =>
  view.kind === 'section' && cut !== undefined && cut.line.stretches.every(({ height }) => height !== undefined);

/** Is a cut seen as a line? One that goes on elsewhere only along all its planes. */
export const isAcross = (view: View, eye: Frame, { frame, stretches }: CutLine): boolean =>
  (view.kind === 'base' || view.kind === 'projected') &&
  (stretches.length === 1 ? Math.abs(dot3(eye.z, frame.y)) < 1e-9 : Math.abs(dot3(eye.z, frame.z)) > 1 - 1e-9);
