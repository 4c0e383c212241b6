import {
  acrossSide,
  add2,
  arcSlot,
  arcThrough,
  centredRectangle,
  centredSlot,
  circleThrough,
  cornersBetween,
  cross2,
  direction2,
  distance2,
  dot2,
  levelRectangle,
  ORIGIN,
  POLYGON,
  polygon,
  polygonRound,
  scale2,
  straightSlot,
  sub2,
  turnedRectangle,
  type Id,
  type Vec2,
} from '@helb/core';
import {
  apartBy,
  axisOf,
  bulging,
  diameterOf,
  directionOf,
  lengthOf,
  offset,
  polar,
  radiusOf,
  reaching,
  ROUND_WIDTH,
  spanned,
  type ClickSizes,
  type Unsized,
} from './drawn-sizes.ts';
import type { Snap } from './snapping.ts';
import type { FigureMaker } from './tool.ts';

/** How a figure is made from a few clicks. */
export interface FigureRecipe {
  /** For the log: what was drawn. */
  readonly what: string;
  /** What each click says. */
  readonly words: readonly string[];
  /** A number that keys change while drawing. */
  readonly count?: { readonly start: number; readonly least: number; readonly most: number; readonly words: string };
  /** The numbers that can be typed for each click, by its place among them. */
  readonly sizes?: readonly (ClickSizes | undefined)[];
  /**
   * Puts the figure together; false where these places make none.
   * @returns what holds each number of its sizes, in their order
   */
  make(maker: FigureMaker, snaps: readonly Snap[], count: number): readonly (Unsized | undefined)[] | false;
}

type Placed = readonly [id: Id, at: Vec2];

/** Smaller than this nothing is made, mm. */
const LEAST = 1e-3;
const apart = (a: Vec2, b: Vec2) => distance2(a, b) > LEAST;

const placed = (maker: FigureMaker, snap: Snap): Placed => [maker.point(snap), snap.place];

/** The centre of a figure: the origin itself where that was clicked, since figures only hang on it. */
const centreOf = (maker: FigureMaker, snap: Snap): Id => (snap.point === ORIGIN ? ORIGIN : maker.point(snap));

const CORNERS = { start: 6, ...POLYGON, words: 'sides' } as const;

/** The register of figures: a new one is an entry here and a verb with its key. */
export const FIGURE_RECIPES = {
  point: {
    what: 'point',
    words: ['Click where the point lies.'],
    make(maker, [at]) {
      // on an existing point there is nothing to add
      if (at!.point !== undefined && at!.point !== ORIGIN) return false;
      maker.point(at!);
      return [];
    },
  },
  rectangle: {
    what: 'rectangle',
    words: ['Click one corner.', 'Click the opposite corner.'],
    sizes: [undefined, spanned(1)],
    make(maker, [p, q]) {
      if (!spans(p!.place, q!.place)) return false;
      const corners = cornersBetween(maker, [maker.point(p!), p!.place], [maker.point(q!), q!.place]);
      levelRectangle(maker, corners);
      return [apartBy(corners[0], corners[1]), apartBy(corners[1], corners[2])];
    },
  },
  'centred rectangle': {
    what: 'rectangle',
    words: ['Click the centre.', 'Click a corner.'],
    sizes: [undefined, spanned(2)],
    make(maker, [centre, corner]) {
      if (!spans(centre!.place, corner!.place)) return false;
      const [at, existing] = [centreOf(maker, centre!), maker.point(corner!)];
      const corners = centredRectangle(maker, at, centre!.place, corner!.place, existing);
      return [apartBy(corners[0], corners[1]), apartBy(corners[1], corners[2])];
    },
  },
  'turned rectangle': {
    what: 'rectangle',
    words: ['Click one corner.', 'Click the next corner along a side.', 'Click how far the rectangle reaches.'],
    sizes: [undefined, polar(1), offset('width', 1)],
    make(maker, [p, q, r]) {
      const across = acrossSide(p!.place, q!.place, r!.place);
      if (!apart(across, [0, 0]) || !apart(p!.place, q!.place)) return false;
      const [third, fourth] = [add2(q!.place, across), add2(p!.place, across)];
      // a point that was clicked is the corner only where the corner really falls on it
      const opposite = distance2(third, r!.place) < LEAST ? maker.point(r!) : maker.place(third);
      const corners = [maker.point(p!), maker.point(q!), opposite, maker.place(fourth)] as const;
      const [side] = turnedRectangle(maker, corners);
      return [lengthOf(maker, side!), directionOf(side!), apartBy(corners[1], corners[2])];
    },
  },
  circle: {
    what: 'circle',
    words: ['Click the centre.', 'Click how far the circle reaches.'],
    sizes: [undefined, reaching('diameter', 2, 0, false)],
    make(maker, [centre, rim]) {
      if (!apart(centre!.place, rim!.place)) return false;
      const circle = maker.circle(maker.point(centre!), distance2(centre!.place, rim!.place));
      maker.hangOn(circle, rim!);
      return [diameterOf(circle)];
    },
  },
  'circle by points': {
    what: 'circle',
    words: ['Click a place on the circle.', 'Click a second place.', 'Click a third place.'],
    sizes: [undefined, undefined, bulging('diameter', 2)],
    make(maker, snaps) {
      const [p, q, r] = snaps.map(({ place }) => place) as [Vec2, Vec2, Vec2];
      const centre = circleThrough(p, q, r);
      if (!centre) return false;
      const circle = maker.circle(maker.place(centre), distance2(centre, p));
      snaps.forEach((snap) => maker.hangOn(circle, snap));
      return [diameterOf(circle)];
    },
  },
  arc: {
    what: 'arc',
    words: ['Click where the arc begins.', 'Click where it ends.', 'Click a place on it.'],
    sizes: [undefined, reaching('length', 1, 0), bulging('radius', 1)],
    make(maker, [a, b, on]) {
      const arc = arcThrough(a!.place, b!.place, on!.place);
      if (!arc) return false;
      const [start, end] = [maker.point(a!), maker.point(b!)];
      const drawn = maker.drawnArc(arc, start, end);
      maker.hangOn(drawn, on!);
      return [apartBy(start, end), radiusOf(drawn)];
    },
  },
  'centred arc': {
    what: 'arc',
    words: ['Click the centre.', 'Click where the arc begins.', 'Click where it ends, counter-clockwise.'],
    sizes: [undefined, reaching('radius', 1, 0)],
    make(maker, [centre, start, end]) {
      const radius = distance2(centre!.place, start!.place);
      const out = direction2(sub2(end!.place, centre!.place));
      if (!out || radius < LEAST) return false;
      const b = add2(centre!.place, scale2(out, radius));
      // the end lies on the circle: an existing point there is used, a guess beside it is not
      const last = end!.point !== undefined && distance2(end!.place, b) < 1e-6 ? maker.point(end!) : maker.place(b);
      return [radiusOf(maker.arc(maker.point(centre!), maker.point(start!), last, radius))];
    },
  },
  ellipse: {
    what: 'ellipse',
    words: ['Click the centre.', 'Click the end of one axis.', 'Click how far it reaches across.'],
    sizes: [undefined, reaching('first axis', 2, 0), offset('second axis', 2)],
    make(maker, [centre, tip, across]) {
      const minor = Math.hypot(...acrossSide(centre!.place, tip!.place, across!.place));
      if (!apart(centre!.place, tip!.place) || minor < LEAST) return false;
      const [at, end] = [maker.point(centre!), maker.point(tip!)];
      const ellipse = maker.entity('e', { kind: 'ellipse', centre: at, tip: end, minor });
      return [axisOf(ellipse, 'first'), axisOf(ellipse, 'second')];
    },
  },
  'elliptical arc': {
    what: 'elliptical arc',
    words: [
      'Click the centre.',
      'Click the end of one axis.',
      'Click where the arc begins.',
      'Click where it ends, counter-clockwise.',
    ],
    sizes: [undefined, reaching('first axis', 2, 0)],
    make(maker, [centre, tip, start, end]) {
      const minor = radiusAcross(centre!.place, tip!.place, start!.place);
      if (minor === undefined) return false;
      const b = onEllipseTowards(centre!.place, tip!.place, minor, end!.place);
      if (!b || !apart(b, start!.place)) return false;
      const last = end!.point !== undefined && distance2(end!.place, b) < 1e-6 ? maker.point(end!) : maker.place(b);
      const ends = { a: maker.point(start!), b: last };
      const axes = { centre: maker.point(centre!), tip: maker.point(tip!), minor };
      return [axisOf(maker.entity('e', { kind: 'ellipse-arc', ...axes, ...ends }), 'first')];
    },
  },
  slot: {
    what: 'slot',
    words: ['Click the centre of one end.', 'Click the centre of the other end.', 'Click how wide it is.'],
    sizes: [undefined, polar(1), offset('width', 2)],
    make(maker, [p, q, rim]) {
      const radius = Math.hypot(...acrossSide(p!.place, q!.place, rim!.place));
      if (!apart(p!.place, q!.place) || radius < LEAST) return false;
      const { spine, end } = straightSlot(maker, placed(maker, p!), placed(maker, q!), radius);
      return [lengthOf(maker, spine), directionOf(spine), diameterOf(end)];
    },
  },
  'centred slot': {
    what: 'slot',
    words: ['Click the middle.', 'Click the centre of one end.', 'Click how wide it is.'],
    sizes: [undefined, polar(2), offset('width', 2)],
    make(maker, [middle, q, rim]) {
      const radius = Math.hypot(...acrossSide(middle!.place, q!.place, rim!.place));
      if (!apart(middle!.place, q!.place) || radius < LEAST) return false;
      const { spine, end } = centredSlot(maker, [centreOf(maker, middle!), middle!.place], placed(maker, q!), radius);
      return [lengthOf(maker, spine), directionOf(spine), diameterOf(end)];
    },
  },
  'arc slot': {
    what: 'slot',
    words: [
      'Click the centre of the arc.',
      'Click the centre of the first end.',
      'Click the centre of the other end, counter-clockwise.',
      'Click how wide it is.',
    ],
    sizes: [undefined, reaching('radius', 1, 0), undefined, ROUND_WIDTH],
    make(maker, [centre, p, q, rim]) {
      const radius = distance2(centre!.place, p!.place);
      const out = direction2(sub2(q!.place, centre!.place));
      const width = Math.abs(distance2(centre!.place, rim!.place) - radius);
      if (!out || width < LEAST || width > radius - LEAST) return false;
      const end = add2(centre!.place, scale2(out, radius));
      if (!apart(end, p!.place)) return false;
      const slot = arcSlot(maker, placed(maker, centre!), placed(maker, p!), [maker.place(end), end], width);
      return [radiusOf(slot.spine), diameterOf(slot.end)];
    },
  },
  polygon: {
    what: 'polygon',
    words: ['Click the centre.', 'Click a corner.'],
    count: CORNERS,
    sizes: [undefined, reaching('across corners', 2, 0)],
    make(maker, [centre, corner], count) {
      if (!apart(centre!.place, corner!.place)) return false;
      const [at, existing] = [centreOf(maker, centre!), maker.point(corner!)];
      return [diameterOf(polygon(maker, [at, centre!.place], corner!.place, count, existing).circle)];
    },
  },
  'polygon round a circle': {
    what: 'polygon',
    words: ['Click the centre.', 'Click the middle of a side.'],
    count: CORNERS,
    sizes: [undefined, reaching('across flats', 2, 0)],
    make(maker, [centre, flat], count) {
      if (!apart(centre!.place, flat!.place)) return false;
      const { circle } = polygonRound(maker, [centreOf(maker, centre!), centre!.place], flat!.place, count);
      return [diameterOf(circle)];
    },
  },
  text: {
    what: 'text',
    words: ['Click where the text begins.', 'Click how high a capital letter is.'],
    sizes: [undefined, reaching('letter height', 1, 0)],
    make(maker, [at, top]) {
      if (!apart(at!.place, top!.place)) return false;
      const [foot, head] = [maker.point(at!), maker.point(top!)];
      maker.entity('t', { kind: 'text', at: foot, top: head, text: 'Text' });
      return [apartBy(foot, head)];
    },
  },
} satisfies Record<string, FigureRecipe>;

export type FigureName = keyof typeof FIGURE_RECIPES;

const spans = (a: Vec2, b: Vec2): boolean => Math.abs(a[0] - b[0]) > LEAST && Math.abs(a[1] - b[1]) > LEAST;

/** Coordinates of a place in the axes of an ellipse, the first in half lengths of its axis, the second in mm. */
function inAxes(centre: Vec2, tip: Vec2, place: Vec2): Vec2 {
  const major = sub2(tip, centre);
  const length = Math.hypot(...major);
  const out = sub2(place, centre);
  return [dot2(out, major) / length ** 2, cross2(major, out) / length];
}

/** The radius across with which the ellipse goes through a place; undefined where none does. */
function radiusAcross(centre: Vec2, tip: Vec2, place: Vec2): number | undefined {
  if (!apart(centre, tip)) return undefined;
  const [x, y] = inAxes(centre, tip, place);
  return Math.abs(x) < 0.999 && Math.abs(y) > LEAST ? Math.abs(y) / Math.sqrt(1 - x * x) : undefined;
}

/** Where the ray from the centre towards a place leaves the ellipse. */
function onEllipseTowards(centre: Vec2, tip: Vec2, minor: number, place: Vec2): Vec2 | undefined {
  const [x, y] = inAxes(centre, tip, place);
  const far = Math.hypot(x, y / minor);
  return far > 1e-9 ? add2(centre, scale2(sub2(place, centre), 1 / far)) : undefined;
}
