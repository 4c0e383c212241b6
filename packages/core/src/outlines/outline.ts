import type { Vec2 } from '../math/index.ts';
import { distance2 } from '../math/index.ts';
import type { Words } from '../result/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder } from '../sketch/index.ts';
import { boxAround, type Box } from '../sketch/pieces/form.ts';

/** A curve as a file describes it, in mm, arcs counter-clockwise from `from` to `to`. */
export type OutlineCurve =
  | { readonly form: 'line'; readonly from: Vec2; readonly to: Vec2 }
  | { readonly form: 'arc'; readonly centre: Vec2; readonly radius: number; readonly from: Vec2; readonly to: Vec2 }
  | { readonly form: 'circle'; readonly centre: Vec2; readonly radius: number }
  | {
      readonly form: 'ellipse';
      readonly centre: Vec2;
      readonly tip: Vec2;
      readonly minor: number;
      /** Of a part of it: where it begins and ends, counter-clockwise. */
      readonly ends?: readonly [from: Vec2, to: Vec2];
    }
  | { readonly form: 'bezier'; readonly from: Vec2; readonly inner: readonly [Vec2, Vec2]; readonly to: Vec2 };

/** What was found in a file. */
export interface Outline {
  readonly curves: readonly OutlineCurve[];
  /** The unit that the file names, mm for 1; undefined where it names none. */
  readonly unit: number | undefined;
  /** What was left out, by the file's own names, with how often. */
  readonly skipped: Readonly<Record<string, number>>;
}

export const LIMITS = { bytes: 8 * 1024 * 1024, curves: 2000 } as const;

/** Every curve taken times a factor. */
export const scaled = (curves: readonly OutlineCurve[], factor: number): OutlineCurve[] => {
  const place = ([x, y]: Vec2): Vec2 => [x * factor, y * factor];
  return curves.map((curve): OutlineCurve => {
    if (curve.form === 'line') return { form: 'line', from: place(curve.from), to: place(curve.to) };
    if (curve.form === 'bezier')
      return {
        ...curve,
        from: place(curve.from),
        to: place(curve.to),
        inner: [place(curve.inner[0]), place(curve.inner[1])],
      };
    if (curve.form === 'circle') return { ...curve, centre: place(curve.centre), radius: curve.radius * factor };
    if (curve.form === 'arc')
      return {
        ...curve,
        centre: place(curve.centre),
        radius: curve.radius * factor,
        from: place(curve.from),
        to: place(curve.to),
      };
    const ends = curve.ends && ([place(curve.ends[0]), place(curve.ends[1])] as const);
    return {
      ...curve,
      centre: place(curve.centre),
      tip: place(curve.tip),
      minor: curve.minor * factor,
      ...(ends ? { ends } : {}),
    };
  });
};

/** A box round all curves, by their named places. */
export const boxOfOutline = (curves: readonly OutlineCurve[]): Box =>
  boxAround(
    curves.flatMap((curve): Vec2[] => {
      if (curve.form === 'line' || curve.form === 'bezier' || curve.form === 'arc') return [curve.from, curve.to];
      const reach = curve.form === 'circle' ? curve.radius : Math.max(distance2(curve.centre, curve.tip), curve.minor);
      const [x, y] = curve.centre;
      return [
        [x - reach, y - reach],
        [x + reach, y + reach],
      ];
    }),
  );

/** Ends nearer than this become one point, mm. */
const JOINED = 1e-3;

/** Adds the curves to a figure; ends that meet share a point, so that closed outlines are closed. */
export function drawOutline(builder: FigureBuilder, curves: readonly OutlineCurve[]): void {
  const points = new Points(builder);
  for (const curve of curves) {
    if (curve.form === 'circle') builder.circle(builder.place(curve.centre), curve.radius);
    else if (curve.form === 'line') {
      const [a, b] = [points.at(curve.from), points.at(curve.to)];
      if (a !== b) builder.line(a, b);
    } else if (curve.form === 'arc')
      builder.arc(builder.place(curve.centre), points.at(curve.from), points.at(curve.to), curve.radius);
    else if (curve.form === 'bezier')
      // through two points with its inner control points for handles a spline is just this curve
      builder.entity('s', {
        kind: 'spline',
        points: [points.at(curve.from), points.at(curve.to)],
        start: builder.place(curve.inner[0]),
        end: builder.place(curve.inner[1]),
        knots: [0, 1],
      });
    else {
      const whole = { centre: builder.place(curve.centre), tip: builder.place(curve.tip), minor: curve.minor };
      if (curve.ends)
        builder.entity('e', {
          kind: 'ellipse-arc',
          ...whole,
          a: points.at(curve.ends[0]),
          b: points.at(curve.ends[1]),
        });
      else builder.entity('e', { kind: 'ellipse', ...whole });
    }
  }
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
