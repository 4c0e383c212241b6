import type { Vec2 } from '../math/index.ts';
import { distance2 } from '../math/index.ts';
import type { Words } from '../result/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder } from '../sketch/index.ts';
import { boxAround, type Box } from '../sketch/pieces/form.ts';

interface OutlineLine {
  readonly form: 'line';
  readonly from: Vec2;
  readonly to: Vec2;
}
/** Counter-clockwise from `from` to `to`. */
interface OutlineArc {
  readonly form: 'arc';
  readonly centre: Vec2;
  readonly radius: number;
  readonly from: Vec2;
  readonly to: Vec2;
}
interface OutlineCircle {
  readonly form: 'circle';
  readonly centre: Vec2;
  readonly radius: number;
}
interface OutlineEllipse {
  readonly form: 'ellipse';
  readonly centre: Vec2;
  readonly tip: Vec2;
  readonly minor: number;
  /** Of a part of it: where it begins and ends, counter-clockwise. */
  readonly ends?: readonly [from: Vec2, to: Vec2];
}
interface OutlineBezier {
  readonly form: 'bezier';
  readonly from: Vec2;
  readonly inner: readonly [Vec2, Vec2];
  readonly to: Vec2;
}

/** A curve as a file describes it, in mm. */
export type OutlineCurve = OutlineLine | OutlineArc | OutlineCircle | OutlineEllipse | OutlineBezier;

/** What was found in a file. */
export interface Outline {
  readonly curves: readonly OutlineCurve[];
  /** The unit that the file names, mm for 1; undefined where it names none. */
  readonly unit: number | undefined;
  /** What was left out, by the file's own names, with how often. */
  readonly skipped: Readonly<Record<string, number>>;
}

export const LIMITS = { bytes: 8 * 1024 * 1024, curves: 2000 } as const;

/** What a kind of curve of a file has to say of itself. */
interface OutlineKind<C> {
  /** The same curve taken times a factor. */
  scaled(curve: C, factor: number): C;
  /** Named places between which it lies. */
  hull(curve: C): readonly Vec2[];
  /** Adds it to a figure; its ends share points with what meets them there. */
  draw(curve: C, builder: FigureBuilder, points: Points): void;
}

const times = ([x, y]: Vec2, factor: number): Vec2 => [x * factor, y * factor];
const around = ([x, y]: Vec2, reach: number): Vec2[] => [
  [x - reach, y - reach],
  [x + reach, y + reach],
];

const KINDS: { readonly [F in OutlineCurve['form']]: OutlineKind<Extract<OutlineCurve, { form: F }>> } = {
  line: {
    scaled: ({ form, from, to }, by) => ({ form, from: times(from, by), to: times(to, by) }),
    hull: ({ from, to }) => [from, to],
    draw({ from, to }, builder, points) {
      const [a, b] = [points.at(from), points.at(to)];
      if (a !== b) builder.line(a, b);
    },
  },
  arc: {
    scaled: ({ form, centre, radius, from, to }, by) => ({
      ...{ form, centre: times(centre, by), radius: radius * by, from: times(from, by), to: times(to, by) },
    }),
    hull: ({ from, to }) => [from, to],
    draw: ({ centre, radius, from, to }, builder, points) =>
      void builder.arc(builder.place(centre), points.at(from), points.at(to), radius),
  },
  circle: {
    scaled: ({ form, centre, radius }, by) => ({ form, centre: times(centre, by), radius: radius * by }),
    hull: ({ centre, radius }) => around(centre, radius),
    draw: ({ centre, radius }, builder) => void builder.circle(builder.place(centre), radius),
  },
  ellipse: {
    scaled: ({ form, centre, tip, minor, ends }, by) => ({
      ...{ form, centre: times(centre, by), tip: times(tip, by), minor: minor * by },
      ...(ends ? { ends: [times(ends[0], by), times(ends[1], by)] as const } : {}),
    }),
    hull: ({ centre, tip, minor }) => around(centre, Math.max(distance2(centre, tip), minor)),
    draw({ centre, tip, minor, ends }, builder, points) {
      const whole = { centre: builder.place(centre), tip: builder.place(tip), minor };
      if (!ends) builder.entity('e', { kind: 'ellipse', ...whole });
      else builder.entity('e', { kind: 'ellipse-arc', ...whole, a: points.at(ends[0]), b: points.at(ends[1]) });
    },
  },
  bezier: {
    scaled: ({ form, from, inner, to }, by) => ({
      ...{ form, from: times(from, by), inner: [times(inner[0], by), times(inner[1], by)], to: times(to, by) },
    }),
    hull: ({ from, to }) => [from, to],
    draw: ({ from, inner, to }, builder, points) =>
      // through two points with its inner control points for handles a spline is just this curve
      void builder.entity('s', {
        kind: 'spline',
        points: [points.at(from), points.at(to)],
        start: builder.place(inner[0]),
        end: builder.place(inner[1]),
        knots: [0, 1],
      }),
  },
};
const kindOf = (curve: OutlineCurve): OutlineKind<OutlineCurve> => KINDS[curve.form];

/** Every curve taken times a factor. */
export const scaled = (curves: readonly OutlineCurve[], factor: number): OutlineCurve[] =>
  curves.map((curve) => kindOf(curve).scaled(curve, factor));

/** A box round all curves, by their named places. */
export const boxOfOutline = (curves: readonly OutlineCurve[]): Box =>
  boxAround(curves.flatMap((curve) => kindOf(curve).hull(curve)));

/** Ends nearer than this become one point, mm. */
const JOINED = 1e-3;

/** Adds the curves to a figure; ends that meet share a point, so that closed outlines are closed. */
export function drawOutline(builder: FigureBuilder, curves: readonly OutlineCurve[]): void {
  const points = new Points(builder);
  for (const curve of curves) kindOf(curve).draw(curve, builder, points);
}

/** Points of a figure by place. */
class Points {
  private readonly cells = new Map<string, { id: Id; place: Vec2 }[]>();

  constructor(private readonly builder: FigureBuilder) {}

  at(place: Vec2): Id {
    const [i, j] = place.map((c) => Math.floor(c / JOINED)) as [number, number];
    for (let di = -1; di <= 1; di++)
      for (let dj = -1; dj <= 1; dj++)
        for (const known of this.cells.get(`${i + di},${j + dj}`) ?? [])
          if (distance2(known.place, place) <= JOINED) return known.id;
    const id = this.builder.place(place);
    const key = `${i},${j}`;
    this.cells.set(key, [...(this.cells.get(key) ?? []), { id, place }]);
    return id;
  }
}

export const outlineWords: Words = {
  'outline.unreadable': (f) => `This is no ${f['format']} file that can be read (${f['reason']}).`,
  'outline.empty': (f) => `The ${f['format']} file has no lines, arcs, circles, ellipses or splines.`,
  'outline.large': (f) => `The file is too large: at most ${f['most']} ${f['of']}.`,
  'outline.format': () => 'Only DXF and SVG files can be drawn into a sketch.',
};
