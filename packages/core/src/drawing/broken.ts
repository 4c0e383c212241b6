import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { boxOf, scaled, type Box, type Piece } from '../sketch/pieces/index.ts';
import { between } from './clip.ts';
import { besideWhich } from './layout.ts';
import { segment } from './picture.ts';
import type { ShownView } from './placed-view.ts';
import { BREAK_GAP, closedUp, stretchesOn, type Breaks, type Placing, type Interval } from './placing.ts';

/** On either side of what is left out so much of a stretch is kept: a share of how wide the view is across, or of the stretch. */
const [KEPT, MOST_KEPT] = [1.5, 0.3];
/** Shorter than this share of the longest, a stretch is kept. */
const WORTH = 0.5;
/** Shorter than this share of its view, nothing is worth leaving out. */
const LEAST = 0.2;
/** Only what is so many times as long as it is wide is made shorter. */
const LONG = 1.5;
/** A line that leans by less, mm, goes along. */
const STRAIGHT = 1e-6;

/**
 * What is left out of views (ISO 128-3): the long stretches along an axis over which nothing changes, in any of the views that
 * are folded out of each other along it, so that these stay in line.
 * @param shown in their order; those that are `broken`, and those that share the axis
 */
export function breaksOf(shown: readonly ShownView[]): Map<Id, Breaks> {
  const groups: { readonly members: { view: ShownView; axis: 0 | 1 }[] }[] = [];
  const groupOf = new Map<string, (typeof groups)[number]>();
  for (const [k, view] of shown.entries()) {
    const { id, eye } = view.seen;
    const found = besideWhich(
      view.seen.view,
      eye,
      shown.slice(0, k).map(({ seen }) => seen),
    );
    const shared = found && (found.beside === 'left' || found.beside === 'right' ? 1 : 0);
    for (const axis of [0, 1] as const) {
      let group = axis === shared ? groupOf.get(`${found!.other.id} ${axis}`) : undefined;
      if (!group) groups.push((group = { members: [] }));
      group.members.push({ view, axis });
      groupOf.set(`${id} ${axis}`, group);
    }
  }
  const stretches = new Map(
    groups.map((group) => [group, group.members.some(isBroken) ? leftOut(group.members) : []] as const),
  );
  return new Map(
    shown.flatMap(({ seen: { id } }) => {
      const [x, y] = [0, 1].map((axis) => stretches.get(groupOf.get(`${id} ${axis}`)!)!) as [Interval[], Interval[]];
      return x.length + y.length > 0 ? [[id, { x, y }] as const] : [];
    }),
  );
}

const isBroken = ({ view: { seen, box }, axis }: { readonly view: ShownView; readonly axis: 0 | 1 }): boolean =>
  'broken' in seen.view && seen.view.broken === true && extentAlong(box, axis) >= extentAlong(box, axis === 0 ? 1 : 0);

const extentAlong = ({ low, high }: Box, axis: 0 | 1): number => high[axis] - low[axis];

/** The stretches that may be left out of views which share an axis. */
function leftOut(members: readonly { readonly view: ShownView; readonly axis: 0 | 1 }[]): Interval[] {
  const axis = members[0]!.axis;
  const pieces = members.flatMap(({ view }) => view.layers.flatMap((layer) => layer.pieces));
  const reach = members.map(({ view: { box } }) => [box.low[axis], box.high[axis]] as const);
  const [low, high] = [Math.min(...reach.map(([from]) => from)), Math.max(...reach.map(([, to]) => to))];
  const across = Math.max(...members.map(({ view: { box } }) => extentAlong(box, axis === 0 ? 1 : 0)));
  if (high - low < LONG * across) return [];
  const free = unchanged(pieces, axis, [low, high]);
  const longest = Math.max(0, ...free.map(([from, to]) => to - from));
  return free
    .filter(([from, to]) => to - from >= Math.max(WORTH * longest, LEAST * (high - low)))
    .map(([from, to]): Interval => {
      const kept = Math.min(KEPT * across, MOST_KEPT * (to - from));
      return [from + kept, to - kept];
    });
}

/** The stretches of an axis along which all lines go straight on. */
function unchanged(pieces: readonly Piece[], axis: 0 | 1, [low, high]: Interval): Interval[] {
  const changing = pieces
    .flatMap((piece): Interval[] => {
      const box = boxOf(piece);
      const goesOn = piece.form === 'segment' && box.high[1 - axis]! - box.low[1 - axis]! < STRAIGHT;
      const ends: readonly number[] = [box.low[axis], box.high[axis]];
      return goesOn ? ends.map((end) => [end, end]) : [[ends[0]!, ends[1]!]];
    })
    .sort(([a], [b]) => a - b);
  const free: Interval[] = [];
  let reached = low;
  for (const [from, to] of [...changing, [high, high] as const]) {
    if (from > reached) free.push([reached, from]);
    reached = Math.max(reached, to);
  }
  return free;
}

/** The pieces of a view closed up: what is left out gone, the rest moved together. @param pieces where they would lie else */
export function brokenPieces(pieces: readonly Piece[], placing: Placing): readonly Piece[] {
  return ([0, 1] as const).reduce((all, axis) => {
    const stretches = stretchesOn(placing, axis);
    if (stretches.length === 0) return all;
    const ends = [-Infinity, ...stretches.flat(), Infinity];
    return Array.from({ length: stretches.length + 1 }, (_, k) => [ends[2 * k]!, ends[2 * k + 1]!] as const).flatMap(
      ([from, to]) => {
        // a band is moved as its ends are
        const inner = Number.isFinite(from) ? from : to;
        const by = closedUp(stretches, inner) - inner;
        const shift: Vec2 = axis === 0 ? [by, 0] : [0, by];
        return between(all, axis, from, to).map((piece) => scaled(piece, 1, shift));
      },
    );
  }, pieces);
}

/** How far break lines reach beyond the view, and how far apart and how high their zigzags are, mm. */
const [BEYOND, ZIG] = [2, [1, 2.2]] as const;

/** The thin lines with zigzags on both sides of each gap (ISO 128-2, 01.1.19). @param box of the view, closed up */
export function breakLines(placing: Placing, { low, high }: Box): Piece[] {
  return ([0, 1] as const).flatMap((axis) => {
    const stretches = stretchesOn(placing, axis);
    return stretches
      .flatMap(([from]) => {
        const at = closedUp(stretches, from);
        return [at, at + BREAK_GAP];
      })
      .flatMap((at) => zigzag(at, [low[1 - axis]! - BEYOND, high[1 - axis]! + BEYOND]).map((one) => turned(one, axis)));
  });
}

/** An upright line with a zigzag in its middle, as the places it goes through. */
function zigzag(x: number, [low, high]: Interval): readonly (readonly [Vec2, Vec2])[] {
  const middle = (low + high) / 2;
  const [half, tall] = ZIG;
  const places: Vec2[] = [
    [x, low],
    [x, middle - tall],
    [x + half, middle - tall / 3],
    [x - half, middle + tall / 3],
    [x, middle + tall],
    [x, high],
  ];
  return places.slice(1).map((to, k) => [places[k]!, to] as const);
}

const turned = ([from, to]: readonly [Vec2, Vec2], axis: 0 | 1): Piece =>
  axis === 0 ? segment(from, to) : segment([from[1], from[0]], [to[1], to[0]]);
