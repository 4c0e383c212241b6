import DxfParser, { type IEntity } from 'dxf-parser';
import { add2, scale2, sub2, type Vec2 } from '../math/index.ts';
import { fail, ok, type Result } from '../result/index.ts';
import { arcThrough } from '../sketch/index.ts';
import { bezierSpans } from './bspline.ts';
import { LIMITS, type Outline, type OutlineCurve } from './outline.ts';

/** $INSUNITS of the header, mm for 1. */
const UNITS: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 25.4e-6, 9: 0.0254 };

interface Place {
  readonly x: number;
  readonly y: number;
}
interface Corner extends Place {
  readonly bulge?: number;
}

/** The entities of a file, as the parser gives them; all fields are looked at before they are used. */
type Entity = IEntity & {
  readonly vertices?: readonly Corner[];
  readonly shape?: boolean;
  readonly center?: Place;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly majorAxisEndPoint?: Place;
  readonly axisRatio?: number;
  readonly controlPoints?: readonly Place[];
  readonly knotValues?: readonly number[];
  readonly degreeOfSplineCurve?: number;
  readonly extrusionDirectionZ?: number;
};

const at = ({ x, y }: Place): Vec2 => [x, y];

/** Lines, polylines with bulges, arcs, circles, ellipses and splines of a DXF file; all else is counted and left out. */
export function readDxf(text: string): Result<Outline> {
  if (text.length > LIMITS.bytes) return fail('outline.large', { most: LIMITS.bytes / 1024 ** 2, of: 'MB' });
  const reason = tooMuchIn(text);
  if (reason !== undefined) return fail('outline.unreadable', { format: 'DXF', reason });
  let parsed;
  try {
    parsed = new DxfParser().parseSync(text);
  } catch (error) {
    return fail('outline.unreadable', { format: 'DXF', reason: (error as Error).message });
  }
  if (!parsed) return fail('outline.unreadable', { format: 'DXF', reason: 'it has no entities' });
  const curves: OutlineCurve[] = [];
  const skipped: Record<string, number> = {};
  for (const entity of parsed.entities as Entity[]) {
    const read = Object.hasOwn(READERS, entity.type) ? READERS[entity.type]!(entity) : undefined;
    const sound = read?.every(isFinite2);
    if (read && sound)
      curves.push(...read.map((curve) => ((entity.extrusionDirectionZ ?? 1) < 0 ? flipped(curve) : curve)));
    else skipped[entity.type] = (skipped[entity.type] ?? 0) + 1;
    if (curves.length > LIMITS.curves) return fail('outline.large', { most: LIMITS.curves, of: 'curves' });
  }
  if (curves.length === 0) return fail('outline.empty', { format: 'DXF' });
  const unit = UNITS[Number(parsed.header?.['$INSUNITS'])];
  return ok({ curves, unit, skipped });
}

/** As many as a file has, and more. */
const MOST_SECTIONS = 100;

/**
 * What the parser would not end over: it makes as many corners of a polyline as its group 90 announces, whether they are
 * there or not, and looks at all sections again for each.
 */
function tooMuchIn(text: string): string | undefined {
  const lines = text.split(/\r\n|\r|\n/);
  let sections = 0;
  // codes and values in turn
  for (let k = 0; k + 1 < lines.length; k += 2) {
    const [code, value] = [lines[k]!.trim(), lines[k + 1]!.trim()];
    if (code === '90' && Number(value) > lines.length) return 'it announces more corners than it holds';
    if (value === 'SECTION' && ++sections > MOST_SECTIONS) return `it has more than ${MOST_SECTIONS} sections`;
  }
  return undefined;
}

type Reader = (entity: Entity) => OutlineCurve[] | undefined;

const READERS: Readonly<Record<string, Reader>> = {
  LINE: ({ vertices }) =>
    vertices?.length === 2 ? [{ form: 'line', from: at(vertices[0]!), to: at(vertices[1]!) }] : undefined,
  LWPOLYLINE: polyline,
  POLYLINE: polyline,
  CIRCLE: ({ center, radius }) => (center && radius ? [{ form: 'circle', centre: at(center), radius }] : undefined),
  ARC({ center, radius, startAngle, endAngle }) {
    if (!center || !radius || startAngle === undefined || endAngle === undefined) return undefined;
    const place = (angle: number): Vec2 => [center.x + radius * Math.cos(angle), center.y + radius * Math.sin(angle)];
    return [{ form: 'arc', centre: at(center), radius, from: place(startAngle), to: place(endAngle) }];
  },
  ELLIPSE({ center, majorAxisEndPoint, axisRatio, startAngle = 0, endAngle = 2 * Math.PI }) {
    if (!center || !majorAxisEndPoint || !axisRatio) return undefined;
    const [centre, major] = [at(center), at(majorAxisEndPoint)];
    const minor: Vec2 = [-major[1] * axisRatio, major[0] * axisRatio];
    const place = (q: number): Vec2 => add2(centre, add2(scale2(major, Math.cos(q)), scale2(minor, Math.sin(q))));
    const whole = Math.abs(endAngle - startAngle) >= 2 * Math.PI - 1e-6;
    return [
      {
        form: 'ellipse',
        centre,
        tip: add2(centre, major),
        minor: Math.hypot(...minor),
        ...(whole ? {} : { ends: [place(startAngle), place(endAngle)] as const }),
      },
    ];
  },
  SPLINE: ({ controlPoints, knotValues, degreeOfSplineCurve }) =>
    controlPoints && knotValues && degreeOfSplineCurve
      ? bezierSpans(degreeOfSplineCurve, controlPoints.map(at), knotValues)
      : undefined,
};

/** A bulge is the tangent of a quarter of the angle of the arc to the next corner, positive counter-clockwise. */
function polyline({ vertices = [], shape }: Entity): OutlineCurve[] | undefined {
  if (vertices.length < 2) return undefined;
  const count = shape ? vertices.length : vertices.length - 1;
  return Array.from({ length: count }, (_, k): OutlineCurve => {
    const [p, q] = [vertices[k]!, vertices[(k + 1) % vertices.length]!];
    const [from, to] = [at(p), at(q)];
    const bulge = p.bulge ?? 0;
    if (Math.abs(bulge) < 1e-9) return { form: 'line', from, to };
    const chord = sub2(to, from);
    // the top of the arc lies right of the chord where it runs counter-clockwise
    const top: Vec2 = [(from[0] + to[0]) / 2 + (chord[1] * bulge) / 2, (from[1] + to[1]) / 2 - (chord[0] * bulge) / 2];
    const arc = arcThrough(from, to, top);
    if (!arc) return { form: 'line', from, to };
    return { form: 'arc', centre: arc.centre, radius: Math.hypot(...sub2(arc.a, arc.centre)), from: arc.a, to: arc.b };
  });
}

const isFinite2 = (curve: OutlineCurve): boolean =>
  Object.values(curve)
    .flat(2)
    .every((entry) => typeof entry === 'string' || Number.isFinite(entry));

const behind = ([x, y]: Vec2): Vec2 => [-x, y];
type Flipper<F extends OutlineCurve['form']> = (curve: Extract<OutlineCurve, { form: F }>) => OutlineCurve;
/** What is told in a plane of its own that may look the other way; all else is told in space. */
const FLIPPED: { readonly [F in OutlineCurve['form']]?: Flipper<F> } = {
  line: ({ form, from, to }) => ({ form, from: behind(from), to: behind(to) }),
  circle: (curve) => ({ ...curve, centre: behind(curve.centre) }),
  arc: (curve) => ({ ...curve, centre: behind(curve.centre), from: behind(curve.to), to: behind(curve.from) }),
};

/** Seen from behind: x goes the other way, and with it the sense of arcs. */
const flipped = (curve: OutlineCurve): OutlineCurve => FLIPPED[curve.form]?.(curve as never) ?? curve;
