import {
  add2,
  ANGLE,
  circleThrough,
  direction2,
  distance2,
  dot2,
  left2,
  LENGTH,
  middle2,
  scale2,
  sub2,
  X_AXIS,
  type Action,
  type Dimension,
  type Id,
  type SizedRelation,
  type Vec2,
} from '@helb/core';
import type { FigureMaker } from './tool.ts';

/** A number of what is on its way, as it is now (mm, rad or a count). */
export interface DrawnSize {
  readonly prompt: string;
  readonly asks: Dimension;
  readonly now: number;
  /** Is it settled by a guess, so that the next one is meant first? */
  readonly isGuessed?: boolean;
  /** What it can be; lengths above 0 up to 100 m, angles any, if it is not told. */
  readonly within?: { readonly min: number; readonly max: number };
}

/** A number that was typed while drawing: as typed, what it comes to, and the values that are named on the way. */
export interface TypedSize {
  readonly text: string;
  readonly size: number;
  readonly naming: readonly Action[];
}

/** For each number of a click the typed one; undefined where the pointer decides. */
export type TypedSizes = readonly (TypedSize | undefined)[];
/** The values that are named by what was typed. */
export const namingOf = (typed: TypedSizes): readonly Action[] => typed.flatMap((size) => size?.naming ?? []);

type Given = readonly (number | undefined)[];

/** The numbers that one click of a figure tells, and where the click lies that tells others. */
export interface ClickSizes {
  readonly asked: readonly Pick<DrawnSize, 'prompt' | 'asks'>[];
  /** @param places of the clicks before; undefined where a place tells nothing yet */
  read(places: readonly Vec2[], at: Vec2): readonly number[] | undefined;
  /** The place with the given numbers, where the pointer decides the rest; undefined where there is none. */
  aim(places: readonly Vec2[], at: Vec2, given: Given): Vec2 | undefined;
  /** Does the pointer decide a direction, whatever is typed? */
  readonly isTurned?: boolean;
}

const TINY = 1e-9;
const TURN = 2 * Math.PI;
const directed = (angle: number): Vec2 => [Math.cos(angle), Math.sin(angle)];
const last = (places: readonly Vec2[]): Vec2 => places.at(-1)!;

/**
 * How far from the last place, and in which direction: counter-clockwise from the first axis of the sketch. `times` as
 * long for a figure about its middle.
 */
export const polar = (times: 1 | 2): ClickSizes => ({
  asked: [
    { prompt: 'length', asks: LENGTH },
    { prompt: 'angle', asks: ANGLE },
  ],
  read(places, at) {
    const [dx, dy] = sub2(at, last(places));
    return [Math.hypot(dx, dy) * times, (Math.atan2(dy, dx) + TURN) % TURN];
  },
  aim(places, at, [length, angle]) {
    const from = last(places);
    const out = sub2(at, from);
    const along = angle === undefined ? (direction2(out) ?? [1, 0]) : directed(angle);
    const reach = dot2(out, along);
    const free = reach > TINY ? reach : Math.hypot(...out);
    return add2(from, scale2(along, length === undefined ? free : length / times));
  },
});

/** How wide and how high from the last place; `times` as much for a figure about its centre. */
export const spanned = (times: 1 | 2): ClickSizes => ({
  asked: [
    { prompt: 'width', asks: LENGTH },
    { prompt: 'height', asks: LENGTH },
  ],
  read: (places, at) => sub2(at, last(places)).map((span) => Math.abs(span) * times),
  aim(places, at, given) {
    const from = last(places);
    const [x, y] = sub2(at, from).map((span, k) =>
      given[k] === undefined ? span : ((span < 0 ? -1 : 1) * given[k]) / times,
    ) as [number, number];
    return add2(from, [x, y]);
  },
});

/**
 * How far from the place of an earlier click, in the direction of the pointer: `times` as much is asked for.
 * @param isTurned does the direction count? Of a circle it does not.
 */
export const reaching = (prompt: string, times: 1 | 2, from: number, isTurned = true): ClickSizes => ({
  asked: [{ prompt, asks: LENGTH }],
  isTurned,
  read: (places, at) => [distance2(places[from]!, at) * times],
  aim(places, at, [size]) {
    if (size === undefined) return at;
    const along = direction2(sub2(at, places[from]!)) ?? [1, 0];
    return add2(places[from]!, scale2(along, size / times));
  },
});

/** How far off the line between the first two places, on the side of the pointer. */
export const offset = (prompt: string, times: 1 | 2): ClickSizes => ({
  asked: [{ prompt, asks: LENGTH }],
  read([p, q], at) {
    const left = direction2(left2(sub2(q!, p!)));
    return left && [Math.abs(dot2(sub2(at, p!), left)) * times];
  },
  aim([p, q], at, [size]) {
    const left = direction2(left2(sub2(q!, p!)));
    if (!left || size === undefined) return left && at;
    const off = dot2(sub2(at, p!), left);
    return add2(at, scale2(left, ((off < 0 ? -1 : 1) * size) / times - off));
  },
});

/** The circle through the first two places and a third: on the side of the pointer, more or less than half of it. */
export const bulging = (prompt: string, times: 1 | 2): ClickSizes => ({
  asked: [{ prompt, asks: LENGTH }],
  read([p, q], at) {
    const centre = circleThrough(p!, q!, at);
    return centre && [distance2(centre, p!) * times];
  },
  aim([p, q], at, [size]) {
    if (size === undefined) return at;
    const [radius, middle, half] = [size / times, middle2(p!, q!), distance2(p!, q!) / 2];
    const left = direction2(left2(sub2(q!, p!)));
    if (!left || radius < half) return undefined;
    const side = dot2(sub2(at, middle), left) < 0 ? -1 : 1;
    const drawn = circleThrough(p!, q!, at);
    const beyond = drawn !== undefined && side * dot2(sub2(drawn, middle), left) > 0;
    const rise = Math.sqrt(radius ** 2 - half ** 2);
    return add2(middle, scale2(left, side * (radius + (beyond ? rise : -rise))));
  },
});

/** How wide round the arc through the second place about the first. */
export const ROUND_WIDTH: ClickSizes = {
  asked: [{ prompt: 'width', asks: LENGTH }],
  read: ([centre, start], at) => [2 * Math.abs(distance2(centre!, at) - distance2(centre!, start!))],
  aim([centre, start], at, [width]) {
    if (width === undefined) return at;
    const radius = distance2(centre!, start!);
    const side = distance2(centre!, at) < radius ? -1 : 1;
    return add2(centre!, scale2(direction2(sub2(at, centre!)) ?? [1, 0], radius + (side * width) / 2));
  },
};

/** A dimension of a figure that waits for its number. */
export type Unsized = SizedRelation;

/** How far apart two points are. */
export const apartBy = (a: Id, b: Id): Unsized => ({
  kind: 'distance',
  ...{ a, b, direction: 'aligned', sense: 1, value: '' },
});

/** How long a line is. */
export function lengthOf(maker: FigureMaker, line: Id): Unsized | undefined {
  const drawn = maker.entities[line];
  return drawn?.kind === 'line' ? apartBy(drawn.a, drawn.b) : undefined;
}

/** In which direction a line runs, from the first axis. */
export const directionOf = (line: Id): Unsized => ({
  kind: 'angle',
  ...{ a: X_AXIS, b: line, alongA: 1, alongB: 1, sense: 1, value: '' },
});

export const diameterOf = (circle: Id): Unsized => ({ kind: 'diameter', circle, value: '' });
/** How long an axis of an ellipse is. */
export const axisOf = (ellipse: Id, axis: 'first' | 'second'): Unsized => ({ kind: 'axis', ellipse, axis, value: '' });
export const radiusOf = (circle: Id): Unsized => ({ kind: 'radius', circle, value: '' });

/** A right angle or a straight one that was typed as such is no dimension: the line is level or upright. */
const SQUARE: Readonly<Record<string, 'horizontal' | 'vertical'>> = {
  ...{ 0: 'horizontal', 180: 'horizontal', 360: 'horizontal' },
  ...{ 90: 'vertical', 270: 'vertical' },
};

/** Gives a figure the dimensions whose numbers were typed. @param unsized in the order of the numbers */
export function holdTyped(maker: FigureMaker, unsized: readonly (Unsized | undefined)[], typed: TypedSizes): void {
  typed.forEach((size, k) => {
    const relation = unsized[k];
    if (!size || !relation) return;
    const level = relation.kind === 'angle' ? SQUARE[size.text.replace(/\s*(°|deg)$/, '')] : undefined;
    maker.relate(level && 'b' in relation ? { kind: level, a: relation.b } : { ...relation, value: size.text });
  });
}
