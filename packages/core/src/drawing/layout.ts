import { add2, type Frame, type Vec2 } from '../math/index.ts';
import { boxesOverlap, type Box } from '../sketch/pieces/index.ts';
import { extentOf, widened } from './extent.ts';
import { BESIDE_EYES } from './eyes.ts';
import { largestFitting, scaleFactor } from './scales.ts';
import { BESIDE, type Sheet, type View } from './schema.ts';
import type { Id } from '../records/index.ts';

/** A view that is to be laid out: what it shows lies in this box, mm of the thing in the plane of its eye. */
export interface LaidView {
  readonly id: Id;
  readonly view: View;
  readonly eye: Frame;
  readonly box: Box;
  /** What is written round it: so far beyond it, mm on paper, nothing else should begin. */
  readonly around?: number;
}

interface Layout {
  /** The name of the scale, as 1:2. */
  readonly scale: string;
  /** Where the origin of each view lies, mm on paper. */
  readonly places: ReadonlyMap<Id, Vec2>;
}

/** Between two views, mm: room for their dimensions. */
const GAP = 22;
/** Along the rim of what may be drawn on. */
const PADDING = 8;

type Beside = (typeof BESIDE)[number];
/** On which side of the other a view is laid in third angle; in first angle on the opposite one. */
const WAYS: Readonly<Record<Beside, Vec2>> = { right: [1, 0], left: [-1, 0], above: [0, 1], below: [0, -1] };

/**
 * Lays views out: those that are folded out beside the one that they belong to, the others where there is room. The scale
 * is the one that is set, or the largest at which all fit; all together stand in the middle of the area.
 */
export function laidOut(sheet: Pick<Sheet, 'projection' | 'scale'>, views: readonly LaidView[], area: Box): Layout {
  const room: Vec2 = [area.high[0] - area.low[0] - 2 * PADDING, area.high[1] - area.low[1] - 2 * PADDING];
  const scale =
    sheet.scale ??
    largestFitting((factor) => {
      const { low, high } = extent(withNames(placed(sheet.projection, views, factor, room, false)));
      return high[0] - low[0] <= room[0] && high[1] - low[1] <= room[1];
    });
  const factor = scaleFactor(scale);
  const { low, high } = extent(withNames(placed(sheet.projection, views, factor, room, false)));
  const middle: Vec2 = [
    (area.low[0] + area.high[0] - low[0] - high[0]) / 2,
    (area.low[1] + area.high[1] - low[1] - high[1]) / 2,
  ];
  const places = placed(sheet.projection, views, factor, room, true).map(
    ({ id, at }) => [id, add2(at, middle)] as const,
  );
  return { scale, places: new Map(places) };
}

interface Placed {
  readonly id: Id;
  readonly eye: Frame;
  readonly at: Vec2;
  /** What it covers on paper. */
  readonly box: Box;
  readonly around: number;
}

/** With what is written round them. */
const withNames = (all: readonly Placed[]) => all.map(({ box, around }) => ({ box: widened(box, around) }));

const extent = (all: readonly { readonly box: Box }[]): Box => extentOf(all.map(({ box }) => box));

function placed(
  projection: Sheet['projection'],
  views: readonly LaidView[],
  factor: number,
  room: Vec2,
  shifted: boolean,
): Placed[] {
  const done: Placed[] = [];
  for (const { id, view, eye, box, around = 0 } of views) {
    const covered = (at: Vec2): Box => ({
      low: [at[0] + factor * box.low[0], at[1] + factor * box.low[1]],
      high: [at[0] + factor * box.high[0], at[1] + factor * box.high[1]],
    });
    const found = besideWhich(view, eye, done);
    const way = found && waysIn(projection, found.beside);
    const free = (candidate: Vec2) => done.every((other) => !boxesOverlap(covered(candidate), other.box, GAP - 1e-9));
    const folded = found && way && nextTo(found.other, way, box, factor);
    // what is folded out stands there in any case; what only could be, where there is room
    const at =
      folded && (view.kind === 'projected' || free(folded))
        ? folded
        : smallest(
            [
              ...corners(done, box, factor).filter(free),
              ...[RIGHT, BELOW].map((beyond) => nextTo({ box: extent(done), at: [0, 0] }, beyond, box, factor)),
            ],
            (place) => fullness([...done, { box: covered(place) }], room),
          );
    const [dx, dy] = shifted ? (view.shift ?? [0, 0]) : [0, 0];
    // it may be dragged away from the view that it is folded out of, not out of line with it
    const by: Vec2 = way && view.kind === 'projected' ? [way[0] === 0 ? 0 : dx, way[1] === 0 ? 0 : dy] : [dx, dy];
    const place = add2(done.length === 0 ? [0, 0] : at, by);
    done.push({ id, eye, at: place, box: covered(place), around });
  }
  return done;
}

const RIGHT: Vec2 = [1, 0];
const BELOW: Vec2 = [0, -1];

/** How much of the room all takes, in the direction in which it is scarcer; of two alike the one that takes less of it. */
function fullness(all: readonly { readonly box: Box }[], [width, height]: Vec2): number {
  const { low, high } = extent(all);
  const [x, y] = [(high[0] - low[0]) / width, (high[1] - low[1]) / height];
  return Math.max(x, y) + 1e-3 * x * y;
}

const smallest = <T>(all: readonly T[], of: (one: T) => number): T =>
  all.reduce((least, one) => (of(one) < of(least) - 1e-6 ? one : least));

const waysIn = (projection: Sheet['projection'], beside: Beside): Vec2 => {
  const [x, y] = WAYS[beside];
  return projection === 'third' ? [x, y] : [-x, -y];
};

/** The view that one is folded out of: the one that is told, or for sections one from beside which they are seen. */
export function besideWhich<T extends { readonly id: Id; readonly eye: Frame }>(
  view: View,
  eye: Frame,
  done: readonly T[],
): { other: T; beside: Beside } | undefined {
  if (view.kind === 'projected') {
    const other = done.find(({ id }) => id === view.of);
    return other && { other, beside: view.beside };
  }
  if (view.kind !== 'section') return undefined;
  for (const other of done) {
    const beside = BESIDE.find((side) => isSame(BESIDE_EYES[side](other.eye), eye));
    if (beside) return { other, beside };
  }
  return undefined;
}

const isSame = (a: Frame, b: Frame): boolean =>
  [0, 1, 2].every((k) => Math.abs(a.z[k]! - b.z[k]!) < 1e-9 && Math.abs(a.x[k]! - b.x[k]!) < 1e-9);

/** In line with another view, a gap away from it. */
function nextTo(other: Pick<Placed, 'at' | 'box'>, [wx, wy]: Vec2, box: Box, factor: number): Vec2 {
  const along = (k: 0 | 1, way: number): number => {
    if (way > 0) return other.box.high[k] + GAP - factor * box.low[k];
    if (way < 0) return other.box.low[k] - GAP - factor * box.high[k];
    return other.at[k];
  };
  return [along(0, wx), along(1, wy)];
}

/** Across the corners of the first view, and beside it. */
function corners(done: readonly Placed[], box: Box, factor: number): Vec2[] {
  const [first] = done;
  if (!first) return [];
  const ways: readonly Vec2[] = [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ];
  return ways.map((way) => nextTo(first, way, box, factor));
}
