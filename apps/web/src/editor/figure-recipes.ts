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
  /** Puts the figure together; false where these places make none. */
  make(maker: FigureMaker, snaps: readonly Snap[], count: number): boolean;
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
      return true;
    },
  },
  rectangle: {
    what: 'rectangle',
    words: ['Click one corner.', 'Click the opposite corner.'],
    make(maker, [p, q]) {
      if (!spans(p!.place, q!.place)) return false;
      levelRectangle(maker, cornersBetween(maker, [maker.point(p!), p!.place], [maker.point(q!), q!.place]));
      return true;
    },
  },
  'centred rectangle': {
    what: 'rectangle',
    words: ['Click the centre.', 'Click a corner.'],
    make(maker, [centre, corner]) {
      if (!spans(centre!.place, corner!.place)) return false;
      centredRectangle(maker, centreOf(maker, centre!), centre!.place, corner!.place, maker.point(corner!));
      return true;
    },
  },
  'turned rectangle': {
    what: 'rectangle',
    words: ['Click one corner.', 'Click the next corner along a side.', 'Click how far the rectangle reaches.'],
    make(maker, [p, q, r]) {
      const across = acrossSide(p!.place, q!.place, r!.place);
      if (!apart(across, [0, 0]) || !apart(p!.place, q!.place)) return false;
      const [third, fourth] = [add2(q!.place, across), add2(p!.place, across)];
      // a point that was clicked is the corner only where the corner really falls on it
      const opposite = distance2(third, r!.place) < LEAST ? maker.point(r!) : maker.place(third);
      turnedRectangle(maker, [maker.point(p!), maker.point(q!), opposite, maker.place(fourth)]);
      return true;
    },
  },
  circle: {
    what: 'circle',
    words: ['Click the centre.', 'Click how far the circle reaches.'],
    make(maker, [centre, rim]) {
      if (!apart(centre!.place, rim!.place)) return false;
      const circle = maker.circle(maker.point(centre!), distance2(centre!.place, rim!.place));
      maker.hangOn(circle, rim!);
      return true;
    },
  },
  'circle by points': {
    what: 'circle',
    words: ['Click a place on the circle.', 'Click a second place.', 'Click a third place.'],
    make(maker, snaps) {
      const [p, q, r] = snaps.map(({ place }) => place) as [Vec2, Vec2, Vec2];
      const centre = circleThrough(p, q, r);
      if (!centre) return false;
      const circle = maker.circle(maker.place(centre), distance2(centre, p));
      snaps.forEach((snap) => maker.hangOn(circle, snap));
      return true;
    },
  },
  arc: {
    what: 'arc',
    words: ['Click where the arc begins.', 'Click where it ends.', 'Click a place on it.'],
    make(maker, [a, b, on]) {
      const arc = arcThrough(a!.place, b!.place, on!.place);
      if (!arc) return false;
      maker.hangOn(maker.drawnArc(arc, maker.point(a!), maker.point(b!)), on!);
      return true;
    },
  },
  'centred arc': {
    what: 'arc',
    words: ['Click the centre.', 'Click where the arc begins.', 'Click where it ends, counter-clockwise.'],
    make(maker, [centre, start, end]) {
      const radius = distance2(centre!.place, start!.place);
      const out = direction2(sub2(end!.place, centre!.place));
      if (!out || radius < LEAST) return false;
      const b = add2(centre!.place, scale2(out, radius));
      // the end lies on the circle: an existing point there is used, a guess beside it is not
      const last = end!.point !== undefined && distance2(end!.place, b) < 1e-6 ? maker.point(end!) : maker.place(b);
      maker.arc(maker.point(centre!), maker.point(start!), last, radius);
      return true;
    },
  },
  ellipse: {
    what: 'ellipse',
    words: ['Click the centre.', 'Click the end of one axis.', 'Click how far it reaches across.'],
    make(maker, [centre, tip, across]) {
      const minor = Math.hypot(...acrossSide(centre!.place, tip!.place, across!.place));
      if (!apart(centre!.place, tip!.place) || minor < LEAST) return false;
      maker.entity('e', { kind: 'ellipse', centre: maker.point(centre!), tip: maker.point(tip!), minor });
      return true;
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
    make(maker, [centre, tip, start, end]) {
      const minor = radiusAcross(centre!.place, tip!.place, start!.place);
      if (minor === undefined) return false;
      const b = onEllipseTowards(centre!.place, tip!.place, minor, end!.place);
      if (!b || !apart(b, start!.place)) return false;
      const last = end!.point !== undefined && distance2(end!.place, b) < 1e-6 ? maker.point(end!) : maker.place(b);
      const ends = { a: maker.point(start!), b: last };
      maker.entity('e', { kind: 'ellipse-arc', centre: maker.point(centre!), tip: maker.point(tip!), ...ends, minor });
      return true;
    },
  },
  slot: {
    what: 'slot',
    words: ['Click the centre of one end.', 'Click the centre of the other end.', 'Click how wide it is.'],
    make(maker, [p, q, rim]) {
      const radius = Math.hypot(...acrossSide(p!.place, q!.place, rim!.place));
      if (!apart(p!.place, q!.place) || radius < LEAST) return false;
      straightSlot(maker, placed(maker, p!), placed(maker, q!), radius);
      return true;
    },
  },
  'centred slot': {
    what: 'slot',
    words: ['Click the middle.', 'Click the centre of one end.', 'Click how wide it is.'],
    make(maker, [middle, q, rim]) {
      const radius = Math.hypot(...acrossSide(middle!.place, q!.place, rim!.place));
      if (!apart(middle!.place, q!.place) || radius < LEAST) return false;
      centredSlot(maker, [centreOf(maker, middle!), middle!.place], placed(maker, q!), radius);
      return true;
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
    make(maker, [centre, p, q, rim]) {
      const radius = distance2(centre!.place, p!.place);
      const out = direction2(sub2(q!.place, centre!.place));
      const width = Math.abs(distance2(centre!.place, rim!.place) - radius);
      if (!out || width < LEAST || width > radius - LEAST) return false;
      const end = add2(centre!.place, scale2(out, radius));
      if (!apart(end, p!.place)) return false;
      arcSlot(maker, placed(maker, centre!), placed(maker, p!), [maker.place(end), end], width);
      return true;
    },
  },
  polygon: {
    what: 'polygon',
    words: ['Click the centre.', 'Click a corner.'],
    count: CORNERS,
    make(maker, [centre, corner], count) {
      if (!apart(centre!.place, corner!.place)) return false;
      polygon(maker, [centreOf(maker, centre!), centre!.place], corner!.place, count, maker.point(corner!));
      return true;
    },
  },
  'polygon round a circle': {
    what: 'polygon',
    words: ['Click the centre.', 'Click the middle of a side.'],
    count: CORNERS,
    make(maker, [centre, flat], count) {
      if (!apart(centre!.place, flat!.place)) return false;
      polygonRound(maker, [centreOf(maker, centre!), centre!.place], flat!.place, count);
      return true;
    },
  },
  text: {
    what: 'text',
    words: ['Click where the text begins.', 'Click how high a capital letter is.'],
    make(maker, [at, top]) {
      if (!apart(at!.place, top!.place)) return false;
      maker.entity('t', { kind: 'text', at: maker.point(at!), top: maker.point(top!), text: 'Text' });
      return true;
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
