import {
  distance2,
  LENGTH,
  ORIGIN,
  X_AXIS,
  Y_AXIS,
  type Geometry,
  type Id,
  type Relation,
  type Vec2,
} from '@helb/core';
import type { DrawnSize, TypedSizes } from './drawn-sizes.ts';
import { COORDINATE, KINDS, type Snap } from './snapping.ts';
import type { PointerAt } from './tool.ts';

/** A typed distance of a new place from a point that is there: level or upright. */
export interface Apart {
  readonly from: Id;
  /** Where that point is. */
  readonly at: Vec2;
  readonly direction: 'horizontal' | 'vertical';
  /** 1 where the new place lies right of or above it. */
  readonly sense: 1 | -1;
  /** As it was typed. */
  readonly value: string;
  /** mm */
  readonly size: number;
}

/** The point from which typed numbers count: what the pointer touched last, or the origin. */
export interface Anchor {
  readonly id: Id;
  readonly at: Vec2;
}

/** Remembers which point the pointer touched last while something was drawn. */
export class Anchoring {
  private touched: Id = ORIGIN;

  constructor(private readonly reachable: () => Geometry) {}

  touch(point: Id): void {
    this.touched = point;
  }

  forget(): void {
    this.touched = ORIGIN;
  }

  /** That point where it is still there, else the origin. */
  get anchor(): Anchor {
    const geometry = this.reachable();
    const id = geometry.roleOf(this.touched) === 'point' ? this.touched : ORIGIN;
    return { id, at: geometry.point(id) };
  }
}

const DIRECTIONS = ['horizontal', 'vertical'] as const;
const PROMPTS = ['level', 'upright'] as const;
/** Less than nothing is to the left or below; else the pointer tells to which side. */
const WITHIN = { min: -1e5, max: 1e5 };

/** The numbers that tell the first place of a figure: how far level and how far upright it is from the anchor. */
export const placingSizes = (anchor: Anchor, at: Vec2, pointer: PointerAt): readonly DrawnSize[] =>
  PROMPTS.map((prompt, k) => {
    const now = Math.abs(at[k]! - anchor.at[k]!);
    return {
      prompt,
      asks: LENGTH,
      now,
      isGuessed: now < 1e-9 || isInLine(anchor, pointer, k as 0 | 1),
      within: WITHIN,
    };
  });

/** Is the pointer straight below or above what was touched, or level with it? */
const isInLine = (anchor: Anchor, { at, reach, free }: PointerAt, k: 0 | 1): boolean =>
  !free && anchor.id !== ORIGIN && Math.abs(at[k] - anchor.at[k]) <= reach / 2;

/**
 * The place that typed numbers tell, on the side of the anchor where the pointer is. What is left to the pointer stays as it
 * was guessed, where that goes on holding.
 */
export function placedBy(anchor: Anchor, found: Snap, pointer: PointerAt, typed: TypedSizes): Snap {
  if (!typed.some((size) => size)) return found;
  const place: [number, number] = [...found.place];
  const apart = DIRECTIONS.flatMap((direction, k): Apart[] => {
    const size = typed[k];
    if (!size) return [];
    const off = pointer.at[k]! - anchor.at[k]!;
    // a pointer that has not left what it touched tells no side
    const sense = size.size < 0 || off < -pointer.reach / 2 ? -1 : 1;
    const length = Math.abs(size.size);
    place[k] = anchor.at[k]! + sense * length;
    const value = size.size < 0 ? oppositeText(size.text) : size.text;
    return [{ from: anchor.id, at: anchor.at, direction, sense, value, size: length }];
  });
  const isTold = (kind: 'horizontal' | 'vertical') => typed[kind === 'vertical' ? 0 : 1] !== undefined;
  const aligned = (found.aligned ?? []).filter(({ kind }) => !isTold(kind));
  // straight below what was touched it is that, whatever else is near
  for (const kind of KINDS) {
    const k = COORDINATE[kind];
    if (!isInLine(anchor, pointer, k) || isTold(kind) || aligned.some((one) => one.kind === kind)) continue;
    place[k] = anchor.at[k];
    aligned.push({ kind, point: anchor.id, from: anchor.at });
  }
  const along = { [X_AXIS]: isTold('horizontal'), [Y_AXIS]: isTold('vertical') }[found.on ?? ''];
  return {
    ...{ place, apart },
    ...(aligned.length > 0 && { aligned }),
    // on an axis it stays where that was left to the pointer
    ...(along === false && { on: found.on! }),
  };
}

/** A text that comes to the opposite. */
const oppositeText = (text: string): string => (/^-[^-+]+$/.test(text) ? text.slice(1).trim() : `-(${text})`);

/** The sign of the point from which numbers would count: the origin needs none. */
export const anchorSigns = ({ id, at }: Anchor): readonly { readonly at: Vec2; readonly mark: string }[] =>
  id === ORIGIN ? [] : [{ at, mark: '0' }];

/** What holds a point where it was typed to be. */
export function apartRelation({ from, direction, sense, value, size }: Apart, point: Id): Relation {
  if (size > 1e-9) return { kind: 'distance', a: from, b: point, direction, sense, value };
  if (from === ORIGIN) return { kind: 'coincident', a: point, b: direction === 'horizontal' ? Y_AXIS : X_AXIS };
  return { kind: direction === 'horizontal' ? 'vertical' : 'horizontal', a: from, b: point };
}

/** The way from the anchor to the place, level first. */
export function apartGuides({ place, apart = [] }: Snap): readonly (readonly [Vec2, Vec2])[] {
  const [first] = apart;
  if (!first) return [];
  const corner: Vec2 = [place[0], first.at[1]];
  const ways: (readonly [Vec2, Vec2])[] = [
    [first.at, corner],
    [corner, place],
  ];
  return ways.filter(([from, to]) => distance2(from, to) > 1e-9);
}
