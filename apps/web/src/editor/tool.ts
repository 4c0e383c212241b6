import {
  distance2,
  FigureBuilder,
  isBuiltIn,
  ORIGIN,
  relationKind,
  type Action,
  type DrawnArc,
  type Figure,
  type Geometry,
  type Id,
  type Issue,
  type NewId,
  type Piece,
  type Reference,
  type Vec2,
} from '@helb/core';
import type { DrawnSize, TypedSizes } from './drawn-sizes.ts';
import { apartGuides, apartRelation, type Anchor, type Anchoring } from './placing.ts';
import { COORDINATE, footAlong, KINDS, snap, type Snap, type SnapQuery } from './snapping.ts';

/** The pointer in sketch coordinates (mm). */
export interface PointerAt {
  readonly at: Vec2;
  /** How near counts as on it, mm. */
  readonly reach: number;
  /** The key that holds guesses off is down. */
  readonly free: boolean;
  /** Adds to the selection instead of replacing it. */
  readonly add: boolean;
}

/** What a tool would draw if it went on like this. */
export interface Preview {
  readonly pieces: readonly Piece[];
  /** Signs of the relations that are about to be guessed, with what they hold on to. */
  readonly tags: readonly { readonly at: Vec2; readonly mark: string; readonly of?: Id }[];
  /** From what a place is aligned with. */
  readonly guides: readonly Piece[];
  /** A selection box. */
  readonly box?: readonly [Vec2, Vec2];
}

/** A straight piece of a preview. */
export const straight = (from: Vec2, to: Vec2): Piece => ({ form: 'segment', entity: '', from, to });

export const NO_PREVIEW: Preview = { pieces: [], tags: [], guides: [] };

/** What tools may ask of the editor. */
export interface ToolHost {
  readonly geometry: Geometry;
  /** That with what of the model can be drawn to: what is used of it is borrowed. */
  readonly reachable: Geometry;
  readonly newId: NewId;
  /** From where the numbers of a first place count. */
  readonly anchoring: Anchoring;
  /** Lines that only hold a figure together: nothing is drawn to them. */
  readonly helpers: ReadonlySet<Id>;
  /** Lines that are only seen, to be drawn over. */
  readonly underlay: readonly (readonly Vec2[])[];
  /** @param naming values that are named for it @param goesOn it hangs on what was drawn just before: their guesses are told together */
  draw(figure: Figure, what: string, naming?: readonly Action[], goesOn?: boolean): void;
}

/** A tool is a small state machine on pointer and key events; it changes nothing but through its host. */
export interface Tool {
  readonly name: string;
  /** What to do next, for the line below the canvas. */
  readonly hint: string;
  readonly preview: Preview;
  /** Is something on its way, so that the next click goes on with it wherever it is? */
  readonly isBusy?: boolean;
  /** What can be had under the pointer, for tools that offer a choice: in words, which is chosen, and where. */
  readonly offered?:
    | { readonly words: readonly string[]; readonly chosen: number; readonly at: Vec2; readonly isHeld: boolean }
    | undefined;
  /** This of what is offered is meant. */
  choose?(k: number): void;
  /** Of the model, what a click would take. */
  readonly pointed?: Reference | undefined;
  /** The numbers of what is on its way; none before anything is. */
  readonly sizes?: readonly DrawnSize[];
  /** Do letters begin the name of a number, as nothing but numbers and a click is waited for? Else they are verbs. */
  readonly takesNames?: boolean;
  /** Numbers that were typed for them: what is on its way keeps to these wherever the pointer is. @returns why nothing can be so */
  keep?(typed: TypedSizes): Issue | undefined;
  /** Values that are named by what was typed for earlier clicks. */
  readonly naming?: readonly Action[];
  down?(pointer: PointerAt): void;
  move(pointer: PointerAt): void;
  up?(pointer: PointerAt): void;
  /** Takes a key for itself; false if it has no meaning for it. */
  key?(key: string): boolean;
  /** Leaves the half-made figure; false if there was none. */
  escape(): boolean;
}

/** Where the pointer is taken to be: what is drawn comes first, then what of the model could be borrowed. */
export function snapFor(host: ToolHost, pointer: PointerAt, from?: Vec2, begun: readonly Anchor[] = []): Snap {
  const { geometry, reachable } = host;
  const query = { ...queryFor(host, pointer, from), begun };
  const own = snap(geometry, query);
  if (pointer.free || reachable === geometry || takes(own)) return own;
  const lent = snap(reachable, query);
  return takes(lent) ? lent : own;
}

/** The same by what is drawn alone: for edits, which borrow nothing. */
export const snapToDrawn = (host: ToolHost, pointer: PointerAt): Snap => snap(host.geometry, queryFor(host, pointer));

const queryFor = (host: ToolHost, pointer: PointerAt, from?: Vec2): SnapQuery => ({
  ...{
    ...pointer,
    drawn: host.geometry,
    underlay: host.underlay,
    helpers: host.helpers,
    anchor: host.anchoring.anchor,
  },
  ...(from ? { from } : {}),
});

/** Does it hold on to something that is drawn, be it lent? Axes are there everywhere. */
const takes = ({ point, middleOf, on, also }: Snap): boolean =>
  (point ?? middleOf ?? also) !== undefined || (on !== undefined && !isBuiltIn(on));

/** What lies exactly in a place: an existing point there, and no guess. */
export const exactly = (host: ToolHost, place: Vec2): Snap =>
  snap(host.geometry, { at: place, reach: SAME_mm, free: true });
const SAME_mm = 1e-6;

/**
 * What of a guess is left where a typed number puts the place elsewhere: on the same line, or level with or above the same
 * point. One freedom is left: so is one guess, and none that the number tells already.
 * @param aim where the numbers put what the pointer points at
 */
export function keptAt(host: ToolHost, found: Snap, aim: (at: Vec2) => Vec2, { free, reach }: PointerAt): Snap {
  const place = aim(found.place);
  const there = exactly(host, place);
  if (there.point !== undefined || free) return there;
  if (found.point !== undefined && distance2(found.place, place) < SAME_mm) return found;
  const aside = ([x, y]: readonly [number, number]): Vec2 =>
    aim([found.place[0] + x * reach, found.place[1] + y * reach]);
  const others = [aside([0.1, 0]), aside([0, 0.1])];
  /** Does it hold there, and not wherever the pointer is? */
  const isTold = (gap: (at: Vec2) => number) => gap(place) < SAME_mm && others.some((at) => gap(at) > SAME_mm);
  const { on, point, aligned = [] } = found;
  if (on !== undefined && isTold((at) => distance2(footAlong(host.reachable, on, at), at))) return { ...there, on };
  const levels = point === undefined ? aligned : KINDS.map((kind) => ({ kind, point, from: found.place }));
  const level = levels.find(({ kind, from }) =>
    isTold((at) => Math.abs(from[COORDINATE[kind]] - at[COORDINATE[kind]])),
  );
  return level ? { ...there, aligned: [level] } : there;
}

/** The signs of what a snap guesses, where they will stand. */
export function tagsOf(found: Snap, from?: Vec2): Preview['tags'] {
  const tags: { at: Vec2; mark: string; of?: Id }[] = [];
  const [apart] = found.apart ?? [];
  if (apart) tags.push({ at: apart.at, mark: '0', of: apart.from });
  const under = found.point ?? found.on;
  if (under !== undefined) tags.push({ at: found.place, mark: '•', of: under });
  if (found.also !== undefined) tags.push({ at: found.place, mark: '•', of: found.also });
  if (found.middleOf !== undefined) tags.push({ at: found.place, mark: 'M', of: found.middleOf });
  if (found.level && from)
    tags.push({
      at: [(from[0] + found.place[0]) / 2, (from[1] + found.place[1]) / 2],
      mark: relationKind(found.level).mark!,
    });
  for (const { kind, from: other, point } of found.aligned ?? [])
    tags.push({
      at: [(other[0] + found.place[0]) / 2, (other[1] + found.place[1]) / 2],
      mark: relationKind(kind).mark!,
      of: point,
    });
  return tags;
}

/** Lines from the points that a place is aligned with, and the way of typed distances. */
export const guidesOf = (found: Snap): Preview['guides'] => [
  ...(found.aligned ?? []).map(({ from }) => straight(from, found.place)),
  ...apartGuides(found).map(([from, to]) => straight(from, to)),
];

/** Builds a figure from what was clicked: snapped places become existing points, or new ones with their guesses. */
export class FigureMaker extends FigureBuilder {
  point({ place, point, on, also, middleOf, aligned = [], apart = [] }: Snap): Id {
    // the origin is never part of a figure itself: a point of our own is laid on it
    if (point !== undefined && point !== ORIGIN) return point;
    const id = this.place(place);
    if (point === ORIGIN) this.relate({ kind: 'coincident', a: id, b: ORIGIN });
    for (const curve of [on, also]) if (curve !== undefined) this.relate({ kind: 'coincident', a: id, b: curve });
    if (middleOf !== undefined) this.relate({ kind: 'midpoint', point: id, line: middleOf });
    for (const { kind, point: other } of aligned) this.relate({ kind, a: other, b: id });
    for (const one of apart) this.relate(apartRelation(one, id));
    return id;
  }

  /** Lays a curve through the existing point that was clicked, if there was one. */
  hangOn(curve: Id, { point }: Snap): void {
    if (point !== undefined) this.relate({ kind: 'coincident', a: point, b: curve });
  }

  /** The arc between two points, with a centre of its own. */
  drawnArc(drawn: DrawnArc, start: Id, end: Id): Id {
    const [a, b] = drawn.turned ? [end, start] : [start, end];
    return this.arc(this.place(drawn.centre), a, b, distance2(drawn.centre, drawn.a));
  }
}

/** What is asked for, and how else it can be told. */
export const orTyped = (asked: string): string =>
  `${asked.replace(/\.$/, '')}, or touch a point and type how far from it.`;
