import type { Frame, Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Topology } from '../kernel-port/index.ts';
import type { Thing } from '../references/index.ts';
import { fail, type Result } from '../result/index.ts';
import { laidOutFreely, stretchesOf, type Taken } from '../sketch/index.ts';
import { nearestOn, boxOf, boxesOverlap, polyline, type Box, type Piece } from '../sketch/pieces/index.ts';
import { widened } from './extent.ts';
import { readMark, type Held, type Mark, type MarkContext, type MarkInk, type ReadMark } from './marks/index.ts';
import type { Lettering, Stroke } from './picture.ts';
import { onPaper, onThing, type Placing } from './placing.ts';
import type { ViewManner } from './schema.ts';
import { spotOf, type MovingFaces, type Spot } from './witness/index.ts';

/** A mark with what it is attached to. */
export interface SeenMark {
  readonly id: Id;
  readonly mark: Mark;
  /** That as it is now and where it stands in a view that is drawn so far apart; nothing where it is gone. */
  thingsAt(apart: number): readonly (Thing | undefined)[];
}

/** A mark on a composed sheet. */
export interface ComposedMark {
  /** What it says: "⌀12 H7"; nothing where it can not be read. */
  readonly words: string;
  /** The first size that it tells, mm or rad. */
  readonly amount?: number;
  /** Where its text stands, mm of the thing in the plane of the eye, as it is stored. */
  readonly at: Vec2;
  /** What its text covers, mm on paper. */
  readonly box: Box;
  /** Other views in which it can be read too. */
  readonly elsewhere: readonly Id[];
}

/** What marks are read of: bodies where they stand in a view. */
export interface Scene {
  readonly faces: MovingFaces;
  readonly topologies: readonly Topology[];
}

/** A view that marks can be drawn in. */
export interface MarkedView extends Placing, ViewManner {
  readonly id: Id;
  readonly eye: Frame;
  readonly box: Box;
  /** What is seen in it, on paper. */
  readonly visible: readonly Piece[];
}

/** What a mark says; fails where what it is attached to is gone, or can not be read in its view. */
export function readSeen(
  { mark, thingsAt }: SeenMark,
  eye: Frame,
  context: Omit<MarkContext, 'eye'>,
): Result<ReadMark> {
  const things = thingsAt(context.apart);
  const held = things.flatMap((thing): Held[] => (thing ? [{ thing, spot: spotOf(thing, context.faces, eye) }] : []));
  if (held.length < things.length) return fail('mark.gone');
  return readMark(mark, held, { ...context, eye });
}

/** What reading a mark needs to know of where it is drawn. */
export function contextOf(
  view: Omit<MarkedView, 'id' | 'eye' | 'visible'>,
  scene: Scene,
  height: number,
): Omit<MarkContext, 'eye'> {
  const { factor, box, apart, isSlanted } = view;
  return { ...scene, factor, box, apart, isSlanted, height, paper: (place) => onPaper(view, place) };
}

export interface MarkedSheet {
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
  readonly marks: Readonly<Record<Id, ComposedMark>>;
  /** The view that each drawn mark stands in. */
  readonly views: ReadonlyMap<Id, Id>;
  /** What they cover. */
  readonly taken: readonly Taken[];
  readonly read: ReadonlyMap<Id, Result<ReadMark>>;
}

/** What else there is on a sheet. */
interface Surroundings {
  /** Of capitals, mm. */
  readonly height: number;
  /** What no mark should reach into. */
  readonly margins: readonly Box[];
  /** Signs and letters that are there already. */
  readonly before: readonly Taken[];
}

/** All marks of a sheet as they are drawn: those put somewhere by hand there, the others where there is room. */
export function marked(
  seen: readonly SeenMark[],
  views: readonly MarkedView[],
  sceneAt: (apart: number) => Scene,
  { height, margins, before }: Surroundings,
): MarkedSheet {
  const contexts = new Map(
    views.map((view) => [view.id, { view, context: contextOf(view, sceneAt(view.apart), height) }]),
  );
  const read = new Map(
    seen.map((one): readonly [Id, Result<ReadMark>] => {
      const found = contexts.get(one.mark.view);
      return [one.id, found ? readSeen(one, found.view.eye, found.context) : fail('mark.unseen')];
    }),
  );
  const byId = new Map(seen.map((one) => [one.id, one]));
  const drawable = seen.flatMap(({ id, mark }) => {
    const result = read.get(id)!;
    const { view, context } = contexts.get(mark.view) ?? {};
    return result.ok && view && context ? [{ id, mark, view, context, value: result.value }] : [];
  });
  // shorter dimensions stand nearer to the outline; what only points somewhere finds room between them
  drawable.sort((a, b) => (a.value.long ?? Infinity) - (b.value.long ?? Infinity) || 0);
  const outline = views.flatMap(({ visible }) => visible.flatMap((piece) => stretchesOf(polyline(piece))));
  const inks: readonly MarkInk[] = laidOutFreely(
    drawable.map(({ mark, context, value }) => ({
      at: mark.at && context.paper(mark.at),
      avoid: [...margins, ...views.flatMap(({ id, box }) => (id === mark.view ? [] : [widened(box, 2)]))],
      places: () => value.places(),
      draw: (at: Vec2) => value.draw(at),
    })),
    (ink) => ink,
    outline,
    LANE * height,
    before,
  );
  return {
    strokes: drawable.flatMap(({ id, view }, k): Stroke[] => [
      { line: 'size', pieces: inks[k]!.pieces, view: view.id, mark: id },
      { line: 'centre', pieces: inks[k]!.axes ?? [], view: view.id, mark: id },
    ]),
    letters: drawable.flatMap(({ id }, k) => inks[k]!.letters.map((one) => ({ ...one, mark: id }))),
    marks: Object.fromEntries(
      drawable.map(({ id, view, value }, k) => {
        const { text } = inks[k]!;
        const middle: Vec2 = [(text.low[0] + text.high[0]) / 2, (text.low[1] + text.high[1]) / 2];
        const at = onThing(view, middle);
        const [size] = value.tells;
        const elsewhere = [...contexts.values()].flatMap((other) =>
          other.view !== view && readSeen(byId.get(id)!, other.view.eye, other.context).ok ? [other.view.id] : [],
        );
        return [id, { words: value.words, ...(size ? { amount: size.value } : {}), at, box: text, elsewhere }];
      }),
    ),
    views: new Map(drawable.map(({ id, view }) => [id, view.id])),
    taken: inks,
    read,
  };
}
const LANE = 2.9;

/** Nearer than this, mm on paper, a place lies on a line. */
const ON = 0.02;

/** Is a thing seen in a view: does a place of its rim, of what is round its outline, lie on a visible line? */
export function isSeenIn(view: MarkedView): (held: Held) => boolean {
  const boxes = view.visible.map(boxOf);
  return ({ spot }) =>
    !spot ||
    outlineOf(spot).some((place) => {
      const at = onPaper(view, place);
      return view.visible.some((piece, k) => {
        if (!boxesOverlap({ low: at, high: at }, boxes[k]!, ON)) return false;
        const [x, y] = nearestOn(piece, at);
        return Math.hypot(x - at[0], y - at[1]) < ON;
      });
    });
}

/** Places at which one sees a thing: of what is round and seen from the side those at which it turns away. */
function outlineOf({ places, line, radius, rim }: Spot): readonly Vec2[] {
  if (!line || !radius || rim) return places;
  const [n, r] = [[line.normal[0].value, line.normal[1].value] as const, radius.value];
  const heights = places.map(([x, y]) => x * -n[1] + y * n[0]);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  // in its middle, which may be left out of the view, and near its ends
  const near = Math.min(r, (high - low) / 4);
  return [(low + high) / 2, low + near, high - near].flatMap((along) => {
    const foot: Vec2 = [n[0] * line.height.value - n[1] * along, n[1] * line.height.value + n[0] * along];
    return [r, -r].map((off): Vec2 => [foot[0] + off * n[0], foot[1] + off * n[1]]);
  });
}
